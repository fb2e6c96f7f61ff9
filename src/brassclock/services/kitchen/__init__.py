"""A kitchen: its settings, surfaces, pantry, leavens, air, starters and hours."""
