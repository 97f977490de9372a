"""The sum itself, forwards, backwards and side by side."""
