"""The season's programme: steps, their turns, what is due of them, and outlines to start from."""
