"""What a label says that is in its product: the guaranteed analysis, the actives, how heavy it is, what it is sold in."""

import re
from collections.abc import Iterator, Sequence

from core.errors import InputError
from core.label.contents import as_nutrient, grade_in
from core.label.groups import common_name, group_of
from core.label.pasted.pieces import Found, Statement
from core.label.product import WATER_G_PER_L
from core.label.rate import Basis
from core.units import MASS, NUMBER, VOLUME, exact_number, read_number, read_quantity

_SHARE = rf"(?P<share>{NUMBER})\s*%"
_NAMED_FIRST = re.compile(rf"^(?P<name>(?:\d,\d-)?[A-Za-z][^%]*?)[\s.:·…_*†‡=-]*{_SHARE}", re.IGNORECASE)
_SHARE_FIRST = re.compile(rf"^[*†‡]*{_SHARE}\s*(?:of\s+)?(?P<name>[A-Za-z][^%]*)$", re.IGNORECASE)
_ACTIVES = re.compile(r"\bactive ingredients?\b\s*:?\s*(?P<rest>.*)", re.IGNORECASE)
_OTHERS = re.compile(r"\b(?:other|inert) ingredients?\b|^total\b(?!\s+nitrogen)", re.IGNORECASE)
_SLOW = re.compile(
    r"\b(?:slow(?:ly)?[ -](?:release|available)|water[ -]insoluble|controlled[ -]release|coated slow)\b", re.IGNORECASE
)
_PART_OF_N = re.compile(r"\b(?:ammoniacal|nitrate|urea|water[ -]soluble|other)\b.*\bnitrogen\b", re.IGNORECASE)
_BRACKET = re.compile(r"\s*[\[(][^)\]]*[)\]]|[*†‡]+|\bCAS\b.*$|,?\s*(?:[a-z-]+ ){1,3}(?:salt|ester)\b.*$", re.IGNORECASE)
_PER_VOLUME = re.compile(
    rf"(?P<amount>{NUMBER})\s*(?:(?P<lb>lbs?|pounds?)|g|grams?)\b\s*(?:of\s+)?"
    r"(?:(?:an?\s+|the\s+)?active(?: ingredients?)?|a\.?i\.?|"
    rf"(?P<name>[a-z][\w-]*(?:[ -][a-z][\w-]*){{0,2}}?))\s*(?:per|/)\s*(?:(?:US )?(?P<gal>gal(?:lons?)?)|l(?:it(?:re|er)s?)?)\b",
    re.IGNORECASE,
)
_ACTIVE_PER_VOLUME = re.compile(
    rf"^(?P<name>[A-Za-z][\w ,-]*?)[\s.:]+(?P<amount>{NUMBER})\s*(?:(?P<lb>lbs?)|g)\s*(?:per|/)\s*(?:(?P<gal>gal)|l)\b",
    re.IGNORECASE,
)
_WEIGHS = re.compile(
    rf"\b(?:weighs|weight|density|weigh)\b[^\d;]{{0,40}}?(?P<value>{NUMBER})\s*"
    r"(?P<unit>(?:lbs?|pounds?)\.?\s*(?:per|/)\s*(?:US )?gal(?:lon)?"
    r"|kg\s*(?:per|/)\s*l(?:it(?:re|er))?|g\s*(?:per|/)\s*(?:ml|cm3|cm³|cc)|g\s*(?:per|/)\s*l(?:it(?:re|er))?)\b",
    re.IGNORECASE,
)
_GALLON_WEIGHS = re.compile(rf"\b(?:one|1) gallon weighs\s*(?P<value>{NUMBER})\s*(?:lbs?|pounds?)\b", re.IGNORECASE)
_LITRE_WEIGHS = re.compile(rf"\b(?:one|1) lit(?:re|er) weighs\s*(?P<value>{NUMBER})\s*kg\b", re.IGNORECASE)
_GRAVITY = re.compile(rf"\bspecific gravity\b[^\d]{{0,30}}(?:\d+\s*°\s*[CF][^\d]{{0,6}})?(?P<value>{NUMBER})", re.IGNORECASE)
_NET = re.compile(r"\bnet\s*(?:contents?|weight|wt\.?|volume|vol\.?)\s*:?\s*(?P<size>[\d][^;(]*?)\s*(?:\(|$|;)", re.IGNORECASE)
_NUTRIENT = re.compile(
    r"\b(?:total|available|soluble|chelated|water|combined|free)\b|\([^)]*\)|,.*$|\b(?:acid|derived from.*)\b", re.IGNORECASE
)
_ACID = re.compile(r"\bacid equivalent\b", re.IGNORECASE)


def contents(said: Sequence[Statement]) -> Iterator[Found]:
    """The contents, each as the card is typed: nutrients of the analysis or the grade, and the actives."""
    nutrients = list(_analysis(said))
    if not nutrients:
        nutrients = next((found for s in said if (found := _grade(s))), [])
    yield from nutrients
    yield from _actives(said)


def _typed(name: str, basis: Basis, amount: float, unit: str = "%", slow: str = "") -> dict[str, str]:
    return {"name": name, "basis": basis.value, "amount": exact_number(amount), "unit": unit, "slow": slow}


def _grade(s: Statement) -> list[Found]:
    return [s.found("contents", _typed(c.name, c.basis, c.percent or 0.0)) for c in grade_in(s.tidy)]


def _analysis(said: Sequence[Statement]) -> Iterator[Found]:
    """The lines of a guaranteed analysis: `Total nitrogen (N) … 24.0 %` · `2.0% Iron (Fe)`; nothing of what makes up the N."""
    slow = _slow(said)
    met: set[Basis] = set()
    for s in said:
        match = _SHARE_FIRST.match(s.tidy) or _NAMED_FIRST.match(s.tidy)
        if not match or _PART_OF_N.search(s.text) or _SLOW.search(s.text):
            continue
        basis = _nutrient(match["name"])
        amount = read_number(match["share"])
        if basis is None or basis in met or not 0 < amount <= 100:
            continue
        met.add(basis)
        yield s.found("contents", _typed(basis.text, basis, amount, slow=slow if basis is Basis.N else ""))


def _nutrient(name: str) -> Basis | None:
    symbol = re.search(r"\(([A-Z][a-z]?\d?(?:O\d?)?)\)", name)
    plain = " ".join(_NUTRIENT.sub(" ", name).split())
    for word in (symbol[1] if symbol else "", plain):
        found = as_nutrient(word, None) if word else None
        if found and plain.casefold() != "urea":
            return found.basis
    return None


def _slow(said: Sequence[Statement]) -> str:
    """What of the product is slow nitrogen [%], as typed; the largest that is stated, as the parts of it are stated too."""
    shares = [
        read_number(match["share"])
        for s in said
        if _SLOW.search(s.text)
        and re.search(r"nitrogen|\bN\b", s.text)
        and (match := _SHARE_FIRST.match(s.tidy) or _NAMED_FIRST.match(s.tidy))
    ]
    return exact_number(max(shares)) if shares else ""


def _actives(said: Sequence[Statement]) -> Iterator[Found]:
    """What stands under “Active ingredients”, by its share; by its weight in a gallon or litre where no share is printed."""
    inside, met = False, set[str]()
    for s in said:
        text = s.tidy
        header = _ACTIVES.search(text)
        if header:
            inside, text = True, header["rest"]
        elif inside and _OTHERS.search(text):
            inside = False
        if not inside:
            continue
        match = _NAMED_FIRST.match(text) or _SHARE_FIRST.match(text)
        name = _active(match["name"]) if match else ""
        if match and name and name not in met and not _OTHERS.search(name):
            met.add(name)
            yield s.found("contents", _typed(name, Basis.ACTIVE, read_number(match["share"])))
        elif header is None and not match and len(text) > 60:
            inside = False  # the list has ended in prose
    if not met:
        yield from _per_volume(said)


def _per_volume(said: Sequence[Statement]) -> Iterator[Found]:
    for s in said:
        match = _PER_VOLUME.search(s.tidy) or _ACTIVE_PER_VOLUME.match(s.tidy)
        if not match or _ACID.search(s.text) or bool(match["lb"]) != bool(match["gal"]):
            continue
        name = _active(match["name"] or "")
        if name and group_of(name):
            yield s.found(
                "contents", _typed(name, Basis.ACTIVE, read_number(match["amount"]), "lb/gal" if match["lb"] else "g/l")
            )
            return


def _active(name: str) -> str:
    """The name of an active without its brackets, by its common name where that is known."""
    plain = " ".join(_BRACKET.sub("", name).strip(" .:;,-").split())
    known = common_name(plain)
    return known or (plain.casefold() if plain.isupper() or plain.istitle() else plain)


# --- weight and packages -----------------------------------------------------------------------------------------


def density(said: Sequence[Statement]) -> Iterator[Found]:
    """How heavy a liquid is, as printed; specific gravity as kg/L, by water at 20 °C."""
    for s in said:
        text = s.tidy
        if re.search(r"\bbulk density\b", text, re.IGNORECASE):
            continue
        if match := _GALLON_WEIGHS.search(text):
            yield s.found("density", {"value": match["value"], "unit": "lb/gal"})
        elif match := _LITRE_WEIGHS.search(text):
            yield s.found("density", {"value": match["value"], "unit": "kg/l"})
        elif match := _WEIGHS.search(text):
            yield s.found("density", _heavy(match["value"], match["unit"].lower()))
        elif match := _GRAVITY.search(text):
            kg = read_number(match["value"]) * WATER_G_PER_L / 1000
            yield s.found("density", {"value": exact_number(round(kg, 4)), "unit": "kg/l"})
        else:
            continue
        return


def _heavy(value: str, unit: str) -> dict[str, str]:
    if "gal" in unit:
        return {"value": value, "unit": "lb/gal"}
    if unit.startswith("kg") or re.search(r"ml|cm|cc", unit):
        return {"value": value, "unit": "kg/l"}
    return {"value": exact_number(read_number(value) / 1000), "unit": "kg/l"}


def packages(said: Sequence[Statement]) -> Iterator[Found]:
    """What it is sold in: `Net weight 50 lb (22.7 kg)` · `NET CONTENTS: 2.5 gallons`."""
    for s in said:
        match = _NET.search(s.tidy)
        try:
            size = read_quantity(match["size"], "packages", MASS, VOLUME) if match else None
        except InputError:
            continue
        if size:
            yield s.found("packages", {"value": exact_number(size.value), "unit": size.unit.key, "price": ""})
            return
