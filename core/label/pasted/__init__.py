"""A label's text as it is pasted or typed off: what of a card stands in it, and in which words."""
