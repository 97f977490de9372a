"""What was seen, in words."""

from collections.abc import Sequence
from datetime import date, timedelta

from core.book.after import How
from core.days import dated, day, so_many
from core.label.targets import TARGETS
from core.readable import joined
from core.scouting.colour import Colours
from core.scouting.kinds import Look, Namer, Sure, shown_score
from core.units import UNITS, show_number
from greenmeasure.common.schemas import FactOut
from greenmeasure.scouting.models import Photo, Scouting

COLOUR_SOURCES = [
    "Dark green colour index: Karcher & Richardson 2003, Crop Science 43:943-951.",
    "Share of green turf: hue 45 to 140°, saturation from 0.10, Karcher & Richardson 2005, Crop Science 45:1536-1539.",
    "Excess green: Woebbecke et al. 1995, Transactions of the ASAE 38:259-269.",
]


CARD_SAYS = "Its card"
"""What stands before what a card says is seen after it."""


def name_of(look: Look, what: str) -> str:
    """What was looked for, as one says it."""
    return TARGETS[what].name if what in TARGETS else what or look.name


def scout_text(found: Scouting, us: bool) -> str:
    """What a scout saw, on how much, its score, and where."""
    name = name_of(found.look, found.what)
    if not found.seen:
        return f"No {name[0].lower()}{name[1:]} seen"
    bare = not found.look.of and found.score is not None
    head = name if bare else f"{name} seen"
    share = f" on {show_number(found.severity)} %" if found.severity else ""
    score = shown_score(found.look, found.score, us) if found.score is not None else ""
    across = f"{length_text(found.across, us)} across" if found.across else ""
    return ", ".join(x for x in (head + share, across, score, found.spot.name if found.spot else "", found.where) if x)


def length_text(metres: float, us: bool) -> str:
    """A length as one says it.

    Args:
        metres: of it [m].
        us: whether to say it in feet.
    """
    unit = UNITS["ft" if us else "m"]
    return f"{show_number(metres / unit.size, 2)} {unit.symbol}"


def named_text(found: Scouting) -> str:
    """Who named it, and how sure it is; nothing for what an own eye was sure of."""
    sure, namer = Sure(found.sure), Namer(found.named_by)
    said = [] if namer is Namer.EYE else [f"named by {namer.text[0].lower()}{namer.text[1:]}"]
    if sure is not Sure.SURE:
        said.append(sure.text.lower())
    return joined(said)


def eyes_sentence(area: str, reports: Sequence[Scouting], photos: Sequence[Photo], us: bool) -> str:
    """What was last seen on an area, and how many pictures of it there are; the newest come first."""
    if not reports and not photos:
        return f"{area}: nothing has been looked at or photographed yet."
    several = "1 photograph" if len(photos) == 1 else f"{len(photos)} photographs"
    taken = f"{several} of {area}, the latest of {dated(photos[0].local.date())}." if photos else f"{area}."
    if not reports:
        return taken
    said = scout_text(reports[0], us)
    return f"{taken} Last scouted {dated(reports[0].on)}: {said[0].lower()}{said[1:]}."


def photo_text(found: Photo) -> str:
    """What is noted of how a photograph was taken."""
    shot = found.shot
    said = ", ".join(x.text.lower() for x in (shot.light, shot.mown) if x)
    return ". ".join(x for x in (said.capitalize(), found.note) if x)


def colour_facts(found: Colours) -> list[FactOut]:
    """A picture's numbers."""
    none = "none: nothing in it is of those hues"
    return [
        FactOut(name="Green turf", text=f"{show_number(100 * found.cover, 3)} % of the picture"),
        FactOut(name="Dark green colour index", text=none if found.index is None else f"{found.index:.3f} of 1"),
        FactOut(name="Hues that the index was not made for", text=f"{show_number(100 * found.outside, 2)} % of the turf"),
        FactOut(name="Excess green", text="none: it is black" if found.excess is None else f"{found.excess:.3f} (-1 to 2)"),
    ]


def shot_text(taken: date, applied: date) -> str:
    """When a photograph was taken, beside an application's day."""
    gone = (taken - applied).days
    if gone > 0:
        return f"{dated(taken)}, {so_many(gone)} after"
    return f"{dated(taken)}, {so_many(-gone)} before" if gone else f"{dated(taken)}, the same day"


def since_text(gone: int, products: str, target: str) -> str:
    """How long ago what was put down.

    Args:
        gone: days since.
        products: what went down.
        target: against what, empty where that is not known.
    """
    return f"{so_many(gone)} after {products}{f' against {target}' if target else ''}"


def days_text(first: int, last: int) -> str:
    """A stretch of days after an application."""
    return "On the day" if last == 0 else f"Day {first} to {last}"


def looks_text(on: date, days: Sequence[int]) -> str:
    """When to look again; nothing where no day is set."""
    if not days:
        return ""
    said = joined([f"day {n} ({day(on + timedelta(days=n))})" for n in days])
    return f"Look again on {said}: the same spots, the same hour, the same light."


def follow_text(how: How, gone: int, products: str) -> str:
    """How it was, and how long after what."""
    return f"{how.text}, {since_text(gone, products, '')}"
