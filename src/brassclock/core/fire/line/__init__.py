"""The line at the heat: roll, rest, load, turn, take off, brush, for many breads, a few spots and one pair of hands or
more. Whole seconds."""
