"""The demo account."""
