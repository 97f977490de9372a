"""Catch-can audits and tasks."""
