"""The Drill: cases drawn by the core, of the house or of one's own kitchen, kept with their answers."""
