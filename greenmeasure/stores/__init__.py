"""The shelf against the season: how old it is, what is needed, what to buy; no tables of its own."""
