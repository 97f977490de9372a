"""Sky: weather in, disease and growth out."""
