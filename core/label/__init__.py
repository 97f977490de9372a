"""The label card: its rate rows, its rules, what it is for, and what a plan is checked against."""
