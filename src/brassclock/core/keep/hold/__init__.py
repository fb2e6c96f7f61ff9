"""A bread after the heat: how it cools, dries, softens and stales in its wrap, and until when it is good."""
