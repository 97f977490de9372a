"""Did it work: what came of applications, how the forecasts did on this ground, what became of plans; no tables of its own."""
