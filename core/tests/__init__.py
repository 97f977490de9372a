"""Tests of the core alone. They need no Django, no database and no clock."""
