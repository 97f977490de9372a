"""Text for CSV cells: what a spreadsheet would take for a formula is marked, and unmarked again on the way in."""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence

from core.errors import NotUnderstood

FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n", "＝", "＋", "－", "＠")


class Echo:
    """A file that hands back what is written to it, so that lines can be streamed."""

    def write(self, line: str) -> str:
        return line


def safe(text: str) -> str:
    """Text that a spreadsheet will not take for a formula, full-width signs among them (OWASP, CSV injection)."""
    return f"'{text}" if text[:1] in FORMULA and text else text


def unsafe(text: str) -> str:
    """The same text without its mark."""
    return text[1:] if text[:1] == "'" and text[1:2] in FORMULA else text


def rows_of(text: str, needed: Iterable[str], columns: Sequence[str]) -> Iterator[tuple[int, dict[str, str]]]:
    """The lines of a CSV (RFC 4180) by its headings, each with its number in the file; empty ones are passed over.

    Args:
        text: the file.
        needed: columns that it cannot do without.
        columns: all that are read, to be named where one is missing.

    Raises:
        NotUnderstood: no CSV, or a needed column is missing.
    """
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff"), newline=None))
    try:
        missing = set(needed) - set(reader.fieldnames or ())
        if missing:
            raise NotUnderstood(
                "text",
                ", ".join(reader.fieldnames or ()),
                f"The column {' and '.join(sorted(missing))} is missing.",
                f"The first line names the columns: {', '.join(columns)}.",
            )
        for cells in reader:
            row = {k: unsafe((v or "").strip()) for k, v in cells.items() if k}
            if any(row.values()):
                yield reader.line_num, row
    except csv.Error as wrong:
        raise NotUnderstood("text", text[:40], f"It is no CSV (line {reader.line_num}: {wrong}).", "Pick a .csv file.") from None
