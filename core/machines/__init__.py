"""Machines measured: what a sprayer or a spreader puts down, its nozzles, its pattern, its pace."""
