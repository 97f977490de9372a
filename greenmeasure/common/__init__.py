"""What every app shares at the border."""
