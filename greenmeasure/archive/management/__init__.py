"""Commands of archives."""
