"""Growth regulators: how strong the first doses of a season are."""
