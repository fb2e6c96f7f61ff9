"""Practice cases drawn from the models with hidden spreads, and what an answer to one is worth."""
