"""Brass Clock: from *when do we eat?* to *flip it now*, for flatbreads."""

__version__ = "0.1.0"
