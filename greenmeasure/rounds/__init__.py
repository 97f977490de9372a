"""Rounds, from the mix sheet to the book."""
