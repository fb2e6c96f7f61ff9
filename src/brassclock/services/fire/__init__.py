"""Fire: taps, the live hearth, its session and its views."""
