"""What is done to the application to see that it holds: `make break` runs all of it, the suite a short form of each."""
