"""Read a rate as a label prints it.

What is understood, in any mix of case, dots and dashes:

    rate      = [lead] range unit [what] [carrier] foot [carrier]
              | [lead] range "% v/v"
              | size-of-package ("covers" | "treats") area        16 lb bag covers 5,000 sq ft
              | ["covers"] area "per" size-of-package             covers 5,000 sq ft per 16 lb bag
    range     = ["up to"] number | number ("to" | "-" | "and") number | number unit "to" number unit
    number    = 1,500 | 0.5 | .5 | 1/4 | 1 1/2 | 1-1/2 | 1½ | two
    what      = ["of"] ("N" | "P2O5" | "K2O" | … | "ai" | "product")
    foot      = ("per" | "/" | "for each" | "for every") [number] unit ["of spray" | "of water"]
    carrier   = "in" range volume ["of water" | "of spray"]

Anything else is said to be not understood, with the words that were not. A bare `oz` is asked back.
"""

import re
from dataclasses import dataclass
from typing import NoReturn

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.label.rate import Basis, LabelRate, RateUnit
from core.units import (
    AREA,
    MASS,
    NUMBER,
    NUMBER_WORDS,
    RATIO,
    UNITS,
    VOLUME,
    Unit,
    convert,
    positive,
    read_number,
    read_unit_at,
    tidy,
)

_LEAD = re.compile(
    r"(?:(?:label rate|use rate|application rate|rate|apply|use|mix|spread|add|at|of|a|an|the|one|from|between)\b"
    r"\s*:?\s*)*",
    re.IGNORECASE,
)
_NUMBER = re.compile(NUMBER)
_NUMBER_WORD = re.compile("(?:" + "|".join(NUMBER_WORDS) + r")\b", re.IGNORECASE)
_TO = re.compile(r"\s*(?:-|to\b|through\b|and\b|up to\b)\s*", re.IGNORECASE)
_PER = re.compile(r"\s*(?:/|per\b|for each\b|for every\b|to each\b|to every\b)\s*", re.IGNORECASE)
_OF_SPRAY = re.compile(r"\s*(?:of (?:finished )?(?:spray|water|mix|solution)(?: (?:solution|mix|volume))?)\b", re.I)
_WATER = re.compile(r"\b(?:water|spray|solution|mix)\b", re.IGNORECASE)
_IN = re.compile(r"\s*(?:in|with)\b\s*", re.IGNORECASE)
_COVERS = re.compile(r"\s*(?:covers|treats|for)\b\s*(?:up to\b\s*)?", re.IGNORECASE)
_PACKAGE = re.compile(r"\s*\b(?:bag|bottle|jug|pack|packet|container|box|drum|case)s?\b", re.IGNORECASE)
_VV = re.compile(r"\s*%\s*(?:\(?v\s*/\s*v\)?|by vol(?:ume)?\b|vol\s*/\s*vol\b)|\s*percent by volume\b", re.IGNORECASE)
_GOES_ON = re.compile(r"(?:on|over|from|of|with)\b", re.IGNORECASE)
_WHAT = re.compile(
    r"\s*(?:of\s+)?(?:actual\s+)?(?P<what>nitrogen|phosphate|potash|potassium|phosphorus|iron|manganese|magnesium|calcium"
    r"|sulfur|sulphur|active ingredient|active|product|P2O5|K2O|Fe|Mn|Mg|Ca|ai|N|P|K|S)\b",
    re.IGNORECASE,
)
_WHAT_MEANS = {
    "nitrogen": Basis.N,
    "n": Basis.N,
    "phosphate": Basis.P2O5,
    "p2o5": Basis.P2O5,
    "potash": Basis.K2O,
    "k2o": Basis.K2O,
    "phosphorus": Basis.P,
    "p": Basis.P,
    "potassium": Basis.K,
    "k": Basis.K,
    "iron": Basis.FE,
    "fe": Basis.FE,
    "manganese": Basis.MN,
    "mn": Basis.MN,
    "magnesium": Basis.MG,
    "mg": Basis.MG,
    "calcium": Basis.CA,
    "ca": Basis.CA,
    "sulfur": Basis.S,
    "sulphur": Basis.S,
    "s": Basis.S,
    "active ingredient": Basis.ACTIVE,
    "active": Basis.ACTIVE,
    "ai": Basis.ACTIVE,
    "product": Basis.PRODUCT,
}


def read_label_rate(text: str, field: str = "rate") -> LabelRate:
    """The rate that the label's phrase states.

    Raises:
        NotUnderstood: names the words that were not understood.
        Ambiguous: `oz`, `ton`, `a`, `per 1,000` and a bare `%` are asked back with their readings.
        InputError: zero, negative, infinite, or a range that runs down.
    """
    if not text.strip():
        raise NotUnderstood(field, text, "The rate is empty.", "Type it as the label prints it.")
    if len(text) > 200:
        raise NotUnderstood(field, text[:40] + "…", "That is longer than a rate.", "Type the rate alone.")
    return _Reader(text, field).read()


def find_label_rate(text: str, field: str = "rate") -> tuple[LabelRate, str]:
    """The rate at the start of `text`, and what is left after it; for lines that go on. Raises as `read_label_rate`."""
    reader = _Reader(text, field)
    rate = reader.read_partly()
    return rate, reader.rest()


@dataclass
class _Range:
    low: float
    high: float
    unit: Unit


class _Reader:
    """Reads one phrase from left to right; `at` is how far it has come."""

    def __init__(self, text: str, field: str) -> None:
        self.text, self.field = text, field
        self.clean = tidy(text).rstrip(" .;")
        self.at = 0

    def rest(self) -> str:
        return self.clean[self.at :].strip()

    def take(self, pattern: re.Pattern[str]) -> re.Match[str] | None:
        match = pattern.match(self.clean, self.at)
        if match:
            self.at = match.end()
        return match

    def spaces(self) -> None:
        while self.at < len(self.clean) and self.clean[self.at] == " ":
            self.at += 1

    # --- whole phrases

    def read(self) -> LabelRate:
        rate = self.read_partly()
        if self.rest():
            self.lost(self.rest())
        return rate

    def read_partly(self) -> LabelRate:
        self.take(_LEAD)
        opened = self.take(_COVERS)
        up_to = bool(self.take(re.compile(r"up to\b\s*", re.IGNORECASE)))
        first = self.range()
        if opened or first.unit.dimension == AREA:
            return self.coverage_by_area(first)
        if first.unit.dimension == RATIO:
            return LabelRate(0.0 if up_to else first.low, first.high, RateUnit(first.unit, None))
        if first.unit.dimension not in (MASS, VOLUME):
            raise InputError(
                self.field,
                self.text,
                f"{first.unit.symbol} measures {first.unit.dimension}.",
                "A rate starts with a weight or a volume.",
            )
        basis = self.what()
        self.take(_PACKAGE)
        if self.take(_COVERS):
            return self.coverage_by_package(first, basis)
        carrier = self.carrier()
        if not self.take(_PER):
            if self.rest() and not _GOES_ON.match(self.rest()):
                self.lost(self.rest())
            self.no_foot()
        foot, per = self.foot()
        carrier = carrier or self.carrier(said=True)
        low = 0.0 if up_to else first.low
        return LabelRate(low, first.high, RateUnit(first.unit, per, basis), foot, carrier)

    def no_foot(self) -> NoReturn:
        said, rest = self.clean[: self.at].strip(), self.rest()
        feet = ("1000 ft²", "acre", "100 m²")
        raise Ambiguous(
            self.field,
            self.text,
            f"“{said}” is an amount, not yet a rate.",
            "Say per what.",
            [Choice(f"{said} per {foot} {rest}".strip(), "rate") for foot in feet],
        )

    def coverage_by_area(self, area: _Range) -> LabelRate:
        """Covers 5,000 sq ft per 16 lb bag"""
        if area.low != area.high:
            raise InputError(self.field, self.text, "A coverage given as a range says no rate.", "Give one area.")
        if not (self.take(_PER) or self.take(re.compile(r"\s*with\b\s*", re.IGNORECASE))):
            self.lost(self.rest() or "the amount that covers it")
        self.take(_LEAD)
        package = self.range()
        basis = self.what()
        self.take(_PACKAGE)
        return LabelRate(package.low, package.high, RateUnit(package.unit, area.unit, basis), area.low)

    def coverage_by_package(self, package: _Range, basis: Basis) -> LabelRate:
        """16 lb bag covers 5,000 sq ft"""
        area = self.range()
        if area.unit.dimension != AREA or area.low != area.high:
            raise InputError(self.field, self.text, "What the package covers is not one area.", "Give one area.")
        return LabelRate(package.low, package.high, RateUnit(package.unit, area.unit, basis), area.low)

    # --- parts

    def number(self) -> float:
        self.spaces()
        if re.match(r"\d+,\d{1,2}(?!\d)|-\s?[\d.]|nan\b|[+-]?inf", self.clean[self.at :], re.IGNORECASE):
            bad = re.match(r"\S+", self.clean[self.at :])
            read_number(bad[0] if bad else "", self.field)
        match = self.take(_NUMBER) or self.take(_NUMBER_WORD)
        if not match:
            self.lost(self.rest() or "the end: a number is missing")
        return positive(self.field, read_number(match[0], self.field), most=1e12)

    def range(self) -> _Range:
        low = self.number()
        here = self.at
        if self.take(_TO) and (_NUMBER.match(self.clean, self.at) or _NUMBER_WORD.match(self.clean, self.at)):
            high = self.number()
            return self.checked(low, high, self.unit())
        self.at = here
        unit = self.unit()
        here = self.at
        if self.take(_TO) and (_NUMBER.match(self.clean, self.at) or _NUMBER_WORD.match(self.clean, self.at)):
            high, second = self.number(), self.unit()
            return self.checked(low, high if second is unit else convert(high, second, unit), unit)
        self.at = here
        return self.checked(low, low, unit)

    def checked(self, low: float, high: float, unit: Unit) -> _Range:
        """Checked.

        Args:
            low: end of the range [its unit].
            high: end of the range [its unit].
            unit: that both are in.
        """
        if low > high:
            raise InputError(
                self.field, self.text, "The range runs down: its first number is the larger.", "Put the lower rate first."
            )
        return _Range(low, high, unit)

    def unit(self, *dimensions: str) -> Unit:
        self.spaces()
        if self.take(_VV):
            return UNITS["pct_vv"]
        if re.match(r"\s*(?:%|percent\b)", self.clean[self.at :], re.IGNORECASE):
            said = self.clean[: self.at].strip()
            raise Ambiguous(
                self.field,
                self.text,
                "A bare % does not say of what.",
                "Say which.",
                [Choice(f"{said} % v/v", "of the finished spray, by volume")],
            )
        found, self.at = read_unit_at(self.clean, self.at, self.field, *dimensions)
        return found

    def what(self) -> Basis:
        match = self.take(_WHAT)
        return _WHAT_MEANS[match["what"].lower()] if match else Basis.PRODUCT

    def carrier(self, said: bool = False) -> tuple[float, float, Unit] | None:
        """The spray volume, if one stands here; after the foot it must be `said` to be water or spray."""
        here = self.at
        if said and not _WATER.search(self.rest()):
            return None
        if not self.take(_IN):
            return None
        if not (_NUMBER.match(self.clean, self.at) or _NUMBER_WORD.match(self.clean, self.at)):
            self.at = here
            return None
        water = self.range()
        if water.unit.dimension != VOLUME:
            self.at = here
            return None
        self.take(_OF_SPRAY)
        return water.low, water.high, water.unit

    def foot(self) -> tuple[float, Unit]:
        self.spaces()
        match = _NUMBER.match(self.clean, self.at)
        foot = self.number() if match or _NUMBER_WORD.match(self.clean, self.at) else 1.0
        if foot == 1000.0 and not self.rest():
            said = self.clean.rstrip()
            raise Ambiguous(
                self.field,
                self.text,
                "“per 1,000” does not say of what.",
                "Say which.",
                [Choice(f"{said} sq ft", "92.9 m²"), Choice(f"{said} m²", "1,000 m²")],
            )
        unit = self.unit(AREA, VOLUME)
        if unit.key == "kft2" and match is None and re.match(r"\s*(?:sq|ft2|square)", self.clean[self.at :], re.I):
            inner = self.unit(AREA)  # "per thousand square feet"
            if inner.key != "ft2":
                self.lost(self.rest())
        if unit.dimension not in (AREA, VOLUME):
            raise InputError(
                self.field,
                self.text,
                f"{unit.symbol} measures {unit.dimension}.",
                "A rate is per area (1000 sq ft, acre, 100 m², ha) or per volume of spray (gal, L, 100 gal).",
            )
        self.take(_OF_SPRAY)
        return _grouped(foot, unit)

    def lost(self, words: str) -> NoReturn:
        raise NotUnderstood(
            self.field,
            self.text,
            f"“{words}” was not understood.",
            "Type the rate like “1.5 to 3 fl oz per 1,000 sq ft” or “2 lb per acre”.",
        )


def _grouped(foot: float, unit: Unit) -> tuple[float, Unit]:
    """1,000 ft², 100 m², 100 gal and 100 L are units of their own in the trade."""
    own = {(1000.0, "ft2"): "kft2", (100.0, "m2"): "m2_100", (100.0, "gal"): "gal_100", (100.0, "l"): "l_100"}
    return (1.0, UNITS[own[foot, unit.key]]) if (foot, unit.key) in own else (foot, unit)
