"""The real interface in headless Chromium, against a live server."""
