"""An account whole, as one file: written, read back, and closed."""
