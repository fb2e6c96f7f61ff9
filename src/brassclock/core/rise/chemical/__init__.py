"""Soda and powder: gas released at mixing, on the bench and in the heat, and how long the dough may wait."""
