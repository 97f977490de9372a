"""What became of what was done: what to expect after it, and whether it worked."""
