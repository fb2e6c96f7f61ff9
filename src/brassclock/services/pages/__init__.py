"""Pages: a bake with every leaf, the bench, the say-line."""
