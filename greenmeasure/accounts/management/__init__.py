"""Commands of the accounts."""
