"""How big a piece of ground is: from a tape, from offsets, from radii, from a ring of positions; and its plan to draw."""
