"""Outings: what is due gathered into jobs, put in an order that keeps every rule, and followed to its end."""
