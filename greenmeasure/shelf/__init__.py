"""Products, their label cards and stock."""
