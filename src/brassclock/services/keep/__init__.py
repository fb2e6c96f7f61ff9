"""Keep: what a bake teaches."""
