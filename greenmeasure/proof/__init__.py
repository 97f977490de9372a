"""Proof on paper: records as authorities and customers want them, the customer's note and the notice for the gate."""
