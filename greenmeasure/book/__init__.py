"""The book: what was really done."""
