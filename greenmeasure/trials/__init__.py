"""Trials: treatments side by side on one ground, scored blind on set days, and what the scores show."""
