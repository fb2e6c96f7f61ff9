"""A bake's stored rows, taken up at one moment."""
