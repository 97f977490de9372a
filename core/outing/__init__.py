"""An outing: jobs with their stops, what one asks of another on the same ground, and the order with the earliest end."""
