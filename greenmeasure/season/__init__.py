"""Season: what is due, and what each school would have done."""
