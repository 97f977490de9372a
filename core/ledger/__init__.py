"""What bears on a plan for a ground and a day, and the gate that a plan is held against."""
