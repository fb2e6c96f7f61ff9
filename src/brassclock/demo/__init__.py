"""The night canteen of the (made-up) Mount Pell Observatory, built through the same doors a user uses."""
