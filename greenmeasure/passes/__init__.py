"""The walking plan and what lands where."""
