"""The pure core: no web, no tables, no clock, no randomness. Everything comes in as arguments."""
