"""Commands of this app."""
