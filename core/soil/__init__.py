"""Soil: what would move its pH, how much of it, and over how many seasons."""
