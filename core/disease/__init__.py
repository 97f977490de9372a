"""Diseases foretold by weather: a file a model, one registry. Every model says where it does not hold."""
