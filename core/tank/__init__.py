"""From a dose to what is poured: loads, the order of filling, and the vessel that can measure it."""
