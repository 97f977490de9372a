"""The day's state in a sentence."""
