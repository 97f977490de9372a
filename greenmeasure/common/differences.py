"""What differs between a thing as it stands and as it is sent: values that compare alike, and in words."""

from math import isfinite
from typing import Any


def named(field: str) -> str:
    """A field's name as one says it."""
    return field.removesuffix("_id").replace("_", " ").capitalize()


def plain(value: Any) -> Any:
    """A value so that what was typed and what was stored of it compare alike: `7,000` is 7000, nothing is nothing.

    The ids of rows within it do not count.
    """
    if isinstance(value, dict):
        held = {k: p for k, v in value.items() if k != "id" and (p := plain(v)) is not None}
        return None if set(held) <= {"unit"} else held
    if isinstance(value, list):
        return [plain(v) for v in value] or None
    if isinstance(value, str):
        text = value.strip()
        try:
            number = float(text.replace(",", ""))
        except ValueError:
            return text or None
        return number if isfinite(number) else text
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else value or None


MOST_SAID = 120
"""Characters of a value that are said."""


def short(value: Any) -> str:
    """A value in a few words."""
    text = said(value)
    return text if len(text) <= MOST_SAID else text[: MOST_SAID - 3] + "…"


def said(value: Any) -> str:
    """A value in words."""
    if isinstance(value, dict):
        if set(value) == {"value", "unit"}:
            return f"{value['value']} {value['unit']}" if str(value["value"]).strip() else "—"
        return ", ".join(f"{named(k).lower()} {text}" for k, v in value.items() if (text := said(v)) != "—") or "—"
    if isinstance(value, list):
        return "; ".join(map(said, value)) or "—"
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "—" if value is None or not str(value).strip() else str(value)
