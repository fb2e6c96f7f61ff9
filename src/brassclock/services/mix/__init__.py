"""Mix: the heat of the bowl."""
