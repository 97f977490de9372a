"""Water on turf: what irrigation really puts down, and how long to run it."""
