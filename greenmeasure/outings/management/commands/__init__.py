"""Commands of outings."""
