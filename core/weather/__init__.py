"""Weather by the hour and by the day, and what is derived of it: moisture, wetness, soil temperature, degree days."""
