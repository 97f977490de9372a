"""Text for CSV cells: what a spreadsheet would take for a formula is marked, and unmarked again on the way in."""

FORMULA = ("=", "+", "-", "@", "\t", "\r")


class Echo:
    """A file that hands back what is written to it, so that lines can be streamed."""

    def write(self, line: str) -> str:
        return line


def safe(text: str) -> str:
    """Text that a spreadsheet will not take for a formula (OWASP, CSV injection)."""
    return f"'{text}" if text[:1] in FORMULA and text else text


def unsafe(text: str) -> str:
    """The same text without its mark."""
    return text[1:] if text[:1] == "'" and text[1:2] in FORMULA else text
