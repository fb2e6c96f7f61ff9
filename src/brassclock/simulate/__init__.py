"""A stand-in for a kitchen's instruments: a program of its own that sends what they would, over HTTP, faults and all.

It knows nothing of the application but the address and the token that an instrument has.
"""
