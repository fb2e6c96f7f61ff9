"""Sourdough: a fed starter as leaven; wild yeast, lactic bacteria, acid, and the dough that acid weakens."""
