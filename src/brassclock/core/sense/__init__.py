"""The signals of instruments: which values are to be believed, a long row made short, a weight that stands still, a
heat that has settled."""
