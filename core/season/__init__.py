"""A season on one ground: what has gone down, what a label and the house still allow, what must not follow what."""
