"""Green Measure: its settings, its addresses, and an app a place."""
