"""What is seen on turf: what one looks for and how it is scored, and what a photograph says of colour."""
