"""Machines, their calibrations and their cleaning."""
