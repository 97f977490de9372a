"""The reckon line: one line of text in, an answer with its working out."""
