"""Weigh: from a formula's lines to its sheet, methods and files."""
