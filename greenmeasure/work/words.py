"""Other work as one says it: mown at 0.5 in, lengthwise, clippings taken off."""

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
            word = str(Quantity(given["value"], UNITS[given["unit"]]))
        else:
            word = dict(ask.choices).get(given, given)
        told.append(ask.said.format(word))
    said = ", ".join(told)
    done = doing.done.capitalize() if found.done else f"Not {doing.done}"
    return f"{done} {said}." if said.startswith("at ") else f"{done}: {said}." if said else f"{done}."


def inside(what: str, lock: str) -> str:
    """Work inside of a lock, with the lock's own sentence."""
    return f"{what} falls inside of this: {lock}"
