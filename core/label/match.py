"""Which rate row of a label is meant for a ground. A height or a grass in no row is said so, never read between rows."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.grasses import GRASSES, ORNAMENTALS, Sward
from core.ground import Ground
from core.label.rules import Intent, Row
from core.label.targets import PESTS, find_target, includes
from core.readable import is_us, joined
from core.schools import House
from core.units import UNITS, Unit, show_number


@dataclass(frozen=True)
class Fit:
    """How one row fits a ground: `misses` says what keeps it from fitting, one sentence each; `aspects` which."""

    row: Row
    index: int
    misses: tuple[str, ...]
    aspects: frozenset[str]

    @property
    def fits(self) -> bool:
        return not self.misses


def fit(row: Row, index: int, ground: Ground, target: str = "", intent: Intent = Intent.ANY) -> Fit:
    """How `row` fits `ground`, for `target` (a target's key, or text) and `intent` where they are given."""
    misses: dict[str, str] = {}
    if said := _grass(row, ground):
        misses["grass"] = said
    if said := _height(row, ground):
        misses["height"] = said
    if row.uses and ground.use and ground.use not in row.uses:
        misses["use"] = f"The row is for {', '.join(row.uses)}; {ground.name} is kept as a {ground.use}."
    if target and not is_for(row, target):
        misses["target"] = f"The row is for {_name(row.target or row.use)}, not for {_name(target)}."
    if intent is not Intent.ANY and row.intent is not Intent.ANY and row.intent is not intent:
        misses["intent"] = f"The row is the {row.intent.text} rate."
    return Fit(row, index, tuple(misses.values()), frozenset(misses))


def unlisted(row: Row, sward: Sward) -> tuple[str, ...]:
    """What grows there and is not on a row's list, by its keys: a mixed sward is judged by every grass in it.

    A row that lists nothing is for all turf, and for no ornamentals.
    """
    if not row.grasses:
        return () if sward.turf else (ORNAMENTALS,)
    here = sward.grasses or ((sward.grass,) if sward.grass else ())
    return tuple(g for g in here if g not in row.grasses)


def _grass(row: Row, ground: Ground) -> str:
    missing = unlisted(row, ground.sward)
    if not missing:
        return ""
    listed = ", ".join(GRASSES[g].name.lower() for g in row.grasses if g in GRASSES) or "turf"
    has = f"{ground.name} is {ground.grass_name.lower()}"
    if len(ground.sward.grasses) > 1:
        has = f"{has}, and {joined([GRASSES[g].name.lower() for g in missing])} {'is' if len(missing) == 1 else 'are'} not on it"
    return f"The row lists {listed}; {has}."


def _key(text: str) -> str:
    found = find_target(text)
    return found.key if found else text.strip().lower()


def _name(text: str) -> str:
    found = find_target(text)
    return found.name.lower() if found else text


def is_for(row: Row, target: str) -> bool:
    """Whether a row may be meant for a target (its key, or text): it names it, or what includes it, or nothing that is known."""
    named = find_target(row.target or row.use)
    if named is None or (not row.target and named.kind not in PESTS):
        return not row.target or _key(row.target) == _key(target)
    return includes(named.key, _key(target))


def lists(row: Row, target: str) -> bool:
    """Whether a row is for a target (its key)."""
    named = find_target(row.target or row.use)
    return named is not None and includes(named.key, target)


def height_span(row: Row, unit: Unit) -> str:
    """A row's range of heights in words, in `unit`."""
    low, high = (None if h is None else show_number(h / unit.size, 3) for h in row.height)
    if low is None and high is None:
        return "any height"
    if low is None:
        return f"up to {high} {unit.symbol}"
    return f"{low} {unit.symbol} and over" if high is None else f"{low} to {high} {unit.symbol}"


def _height(row: Row, ground: Ground) -> str:
    low, high = row.height
    if low is None and high is None:
        return ""
    if ground.height is None:
        unit = UNITS["in" if is_us(ground.size.unit) else "mm"]
        return f"The row is for {height_span(row, unit)}, and the height of {ground.name} is not known."
    here = ground.height.base
    if (low is None or here >= low * (1 - 1e-9)) and (high is None or here <= high * (1 + 1e-9)):
        return ""
    return f"The row is for {height_span(row, ground.height.unit)}; {ground.name} is mown at {ground.height}."


def fits(
    rows: Sequence[Row], ground: Ground, target: str = "", intent: Intent = Intent.ANY, house: House | None = None
) -> list[Fit]:
    """All rows with how they fit, those that fit first and then as the label prints them.

    With `house`, as for a growth regulator, rows that fit alike come in the order of the house's rule.
    """
    found = [fit(row, i, ground, target, intent) for i, row in enumerate(rows)]
    return sorted(found, key=lambda f: (len(f.misses), *(_turn(f.row, house) if house else ()), f.index))


def _turn(row: Row, house: House) -> tuple[float, ...]:
    """The turn of a row among those that fit alike: narrower first, by what the house goes by."""
    low, high = row.height
    width = (high if high is not None else 1.0) - (low or 0.0)
    grasses = len(row.grasses) or len(GRASSES)
    rule = house.of("regulator_rate")
    if rule == "lower":
        return (row.label.highest.base,)
    return (width, grasses) if rule == "height" else (grasses, width)


def gap_in_heights(rows: Sequence[Row], ground: Ground, target: str = "") -> str:
    """What to say where rows for this grass exist and none is for its height; empty where there is no such gap."""
    found = [fit(row, i, ground, target) for i, row in enumerate(rows)]
    if ground.height is None or any("height" not in f.aspects and "grass" not in f.aspects for f in found):
        return ""
    only = [f for f in found if f.aspects == {"height"}]
    if not only:
        return ""
    unit = ground.height.unit
    offered = "; ".join(f"{height_span(f.row, unit)}: {f.row.label}" for f in only)
    return (
        f"The label has no rate for {ground.height} on {ground.grass_name.lower()}. It has {offered}. None is read between them."
    )
