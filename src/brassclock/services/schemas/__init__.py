"""Shapes of requests and answers."""
