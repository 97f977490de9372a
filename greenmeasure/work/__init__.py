"""Other work on the ground: mowing, watering, aeration and the like, as it was done."""
