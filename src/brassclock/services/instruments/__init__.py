"""Instruments of a kitchen: readings taken in, what each is used for, what it moves, and when it is not believed."""
