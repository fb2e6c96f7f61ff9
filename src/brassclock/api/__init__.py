"""The web's door: Flask, typed handlers, problem+json. Holds no rules of its own."""
