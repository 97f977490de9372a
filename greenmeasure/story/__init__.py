"""The story of a ground: what went down on it, what else was done, what was seen, and what comes next."""
