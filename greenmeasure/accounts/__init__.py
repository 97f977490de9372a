"""Accounts, sites, people, and the doors."""
