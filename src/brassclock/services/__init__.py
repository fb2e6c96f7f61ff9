"""Use cases: core and store together, one transaction each. Knows no web."""
