"""The walking plan: where the passes run, how far and how long, and where the tank or hopper is filled again."""
