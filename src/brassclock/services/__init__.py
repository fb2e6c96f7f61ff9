"""What a user can do: core and store together, one transaction each. Knows no web."""
