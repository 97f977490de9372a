"""The ledger of an account: everything that bears on a plan for its ground, read once and asked by every door."""
