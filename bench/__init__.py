"""Speed as ratios: `make bench`."""
