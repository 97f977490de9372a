"""Areas, measured and described."""
