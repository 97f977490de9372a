"""Lines that can be asked of an account, in its own names: what the reckon line shows while nothing is typed."""

from collections.abc import Callable, Iterator

from core.errors import InputError
from core.label.product import Kind
from core.label.rate import Basis, LabelRate
from core.reckon.grammar import read_line
from greenmeasure.accounts.models import Account
from greenmeasure.reckon.line.here import Here
from greenmeasure.reckon.line.words import EXAMPLES
from greenmeasure.reckon.schemas import ExampleOut
from greenmeasure.shelf.queries import Card


def examples(account: Account) -> list[ExampleOut]:
    """One line of each sort that the account has the things for; each of them reads."""
    here = Here(account)
    return [ExampleOut(line=line, what=EXAMPLES[key]) for key, line in _lines(here) if _reads(here, line)]


def _reads(here: Here, line: str) -> bool:
    try:
        read_line(line, here.names)
    except InputError:
        return False
    return True


def _lines(here: Here) -> Iterator[tuple[str, str]]:
    us = here.account.us
    area = next(iter(here.ground), None)
    sprayed = _first(here, lambda c: c.core.liquid and c.core.label_binds)
    feed = _first(here, lambda c: c.core.is_a(Kind.FERTILISER) and c.core.content(Basis.N) is not None)
    sprayer = next((m.name for m in here.kit.values() if m.core().sprays), None)
    if sprayed and area:
        name, rate = sprayed.product.name, _rate(sprayed)
        yield "dose", f"{rate} {name} on {area}{f' with {sprayer}' if sprayer else ''}"
        yield "span", f"{name} on {area}, low middle high"
        yield "may", f"can {name} go on {area} tomorrow"
        yield "last", f"what went on {area} last"
    if sprayed and sprayer:
        yield "tank", f"per tank: {_rate(sprayed)} {sprayed.product.name}, {sprayer}"
    if feed and area:
        name = feed.product.name
        yield "nutrient", f"{'0.5 lb N/M' if us else '3 g N/m2'} from {name} on {area}"
        yield "bags", f"what does {name} cost per {'lb' if us else 'kg'} N"
        yield "back", f"what rate is {'10 lb' if us else '5 kg'} of {name} on {area}"
    if area:
        yield "water", f"how long to water in {'0.25 in' if us else '6 mm'} on {area}"
    yield "reach", "how far does 30 lb go at 4 lb/M" if us else "how far does 25 kg go at 30 g/m2"
    yield "output", "0.5 gal in 500 ft2" if us else "4 l in 100 m2"
    yield "days", "6 weeks after 4 Aug"
    yield "convert", "22 fl oz/A in fl oz/M" if us else "300 l/ha in l per 100 m2"
    yield "sum", "120 ft x 45 ft" if us else "36 m x 14 m"


def _first(here: Here, fits: Callable[[Card], bool]) -> Card | None:
    return next((c for c in here.shelf.values() if c.label_rows and c.label_rows[0].label.unit.per_area and fits(c)), None)


def _rate(card: Card) -> LabelRate:
    label = card.label_rows[0].label
    return LabelRate(label.high, label.high, label.unit, label.foot)
