"""Files a formula travels in: our bake file, schema.org Recipe, Markdown, CSV. Text in, text out; no disk, no
tables."""
