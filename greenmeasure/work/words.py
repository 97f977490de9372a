"""Other work as one says it: mown at 0.5 in, lengthwise, clippings taken off."""

from core.readable import joined
from core.units import UNITS, Quantity
from greenmeasure.work.models import Work


def work_text(found: Work) -> str:
    """What was done, and all that was told of it."""
    doing, told = found.doing, []
    for ask in doing.asks:
        given = found.of(ask.key)
        if not given:
            continue
        if ask.dimension:
            amount = str(Quantity(given["value"], UNITS[given["unit"]]))
            told.append(f"at {amount}" if ask.key == "height" else f"{amount} deep" if doing.key == "aerate" else amount)
        elif ask.choices:
            word = dict(ask.choices)[given]
            told.append(f"clippings {word}" if ask.key == "clippings" else word)
        else:
            told.append(given)
    said = ", ".join(told)
    done = doing.done.capitalize() if found.done else f"Not {doing.done}"
    return f"{done} {said}." if said.startswith("at ") else f"{done}: {said}." if said else f"{done}."


def struck_text(found: Work) -> str:
    """By whom it was struck and why; empty where it stands."""
    return f"Struck by {found.struck_by}: {found.struck_why}" if found.struck_at else ""


def inside(what: str, lock: str) -> str:
    """Work inside of a lock, with the lock's own sentence."""
    return f"{what} falls inside of this: {lock}"


def noted(works: list[Work]) -> str:
    """What was noted, in a sentence."""
    first = works[0]
    return f"{work_text(first).rstrip('.')} on {joined([w.area.name for w in works])}."
