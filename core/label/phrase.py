"""Read a rate as a label prints it.

What is understood, in any mix of case, dots and dashes:

    phrase    = [lead] rate {tail}
    rate      = [limit] range unit [bracket] [what] {joined}
              | [limit] range "% v/v"
              | ["covers"] area ("per" | "/" | "with") size-of-package      covers 5,000 sq ft per 16 lb bag
    joined    = ("per" | "/" | "covers" | "treats" | "for" …) [number] area
              | ("per" | "/") [number] volume                               per gallon, per 100 gal
              | ("in" | "with" | "water volume") range volume ["per" area]  what it is sprayed in
    range     = number | number ("to" | "-" | "and") number | number unit "to" number unit
    number    = 1,500 | 0.5 | .5 | 1/4 | 1 1/2 | 1-1/2 | 1½ | two | half a
    limit     = "up to" | "no more than" | "do not exceed" | "a maximum of" …
    what      = ["of"] ("N" | "P2O5" | "K2O" | … | "ai" | "product" | a name)
    tail      = bracket | another rate | "per application" | "every 14 to 28 days" | "watered in …" | "for …" | a name

An amount per gallon and per area is per area, in so much spray; an amount in so many gallons and per nothing is per those
gallons. A bracket that says the rate a second time must agree with it. Two rates are asked back, and so are a bare `oz`, a bare
`%`, a `m`, an amount per nothing and one per tank. What a tail tells is told, never dropped: see `Phrase.told`. A limit of a
season, a count of applications and a spreader's setting are no rates. Anything else is not understood, and is named.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NoReturn

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.label import wording as w
from core.label.rate import Basis, LabelRate, RateUnit, show_label_rate
from core.units import AREA, MASS, NUMBER, RATIO, UNITS, VOLUME, Unit, convert, pointed, positive, read_number, read_unit_at, tidy

SAME = 0.03
"""A second printing of a rate agrees with the first within this share: labels round (ours)."""
TANKS = (1, 2, 4)
"""Sizes of a tank [gal] that are offered where a label says only per tank (common practice, no source)."""


@dataclass(frozen=True)
class Phrase:
    """What a label's phrase says: its rate, the same printed a second time, and what else it tells, in words."""

    rate: LabelRate
    same_as: tuple[LabelRate, ...] = ()
    told: tuple[str, ...] = ()


def read_phrase(text: str, field: str = "rate") -> Phrase:
    """What the label's phrase says.

    Raises:
        NotUnderstood: names the words that were not understood.
        Ambiguous: `oz`, `ton`, `a`, `per 1,000`, a bare `%`, two rates are asked back with their readings.
        InputError: zero, negative, infinite, or a range that runs down.
    """
    if not text.strip():
        raise NotUnderstood(field, text, "The rate is empty.", "Type it as the label prints it.")
    if len(text) > 200:
        raise NotUnderstood(field, text[:40] + "…", "That is longer than a rate.", "Type the rate alone.")
    return _Reader(text, field).phrase()


def read_label_rate(text: str, field: str = "rate") -> LabelRate:
    """The rate that the label's phrase states. Raises as `read_phrase`."""
    return read_phrase(text, field).rate


def find_label_rate(text: str, field: str = "rate") -> tuple[LabelRate, str]:
    """The rate at the start of `text`, and what is left after it; for lines that go on. Raises as `read_phrase`."""
    reader = _Reader(text, field)
    reader.goes_on = True
    reader.take(w.LEAD)
    rate = reader.rate()
    return rate, reader.rest()


def rate_at(clean: str, start: int, field: str = "rate") -> tuple[LabelRate, int]:
    """The rate at a place of a text that was made `spelt`, and where it ends. Raises as `read_phrase`."""
    reader = _Reader(clean[start:], field)
    reader.goes_on = True
    rate = reader.rate()
    return rate, start + reader.at


def spelt(text: str) -> str:
    """A text with one spelling for what labels write in several ways."""
    clean = pointed(tidy(text))
    for pattern, to in w.SPELT:
        clean = pattern.sub(to, clean)
    return clean


def poured(text: str) -> str:
    """The phrase of a product that is known to be liquid: a bare ounce of it is a fluid ounce."""
    return w.BARE_OUNCE.sub("fl oz", text)


def weighed(text: str) -> str:
    """The phrase of a product that is known to be dry: a bare ounce of it is an ounce by weight."""
    return w.BARE_OUNCE.sub("oz wt", text)


@dataclass
class _Range:
    low: float
    high: float
    unit: Unit


Foot = tuple[float, Unit]
Carrier = tuple[float, float, Unit]


class _Reader:
    """Reads one phrase from left to right; `at` is how far it has come."""

    def __init__(self, text: str, field: str) -> None:
        self.text, self.field = text, field
        self.clean = spelt(text).rstrip(" .;")
        self.at = 0

    goes_on = False
    """Whether more than the phrase is read, so that names are the line's."""

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

    def phrase(self) -> Phrase:
        """The rate, what is said round it, and nothing left."""
        lead = self.lead()
        first = self.rate()
        if self.take(w.WHEN):
            self.lead()
            whole = self.rate()
            self.take(w.ONCE)
            return Phrase(whole, (first,)) if not self.rest() else self.lost(self.rest())
        same: list[LabelRate] = []
        told: list[str] = []
        while self.rest():
            self.tail(first, lead, same, told)
            first = self._joined_up or first
        return Phrase(first, tuple(same), tuple(told))

    _joined_up: LabelRate | None = None
    """The range that two whole rates make, `6 pts/A to 4 qts/A`."""

    def lead(self) -> str:
        """What stands before the first number; a setting and a season's limit are told apart by it."""
        begun = self.at
        if not self.take(w.LEAD) or not self.rest() or not re.match(r"[\d.]", self.rest()):
            self.take(w.ANY_LEAD)
        said = self.clean[begun : self.at].strip(" :,")
        if w.SETTING.search(said):
            self.no_rate("A spreader's setting is no rate.", "Keep it with the spreader in Kit.")
        if w.SEASON_LEAD.search(said):
            self.limit_only()
        return said

    def tail(self, rate: LabelRate, lead: str, same: list[LabelRate], told: list[str]) -> None:
        """One thing that stands after the rate."""
        self._joined_up = None
        if self.take(w.ONCE):
            return
        if self.take(w.SEASON):
            self.limit_only()
        if self.bracket(rate, same) or self.range_of_rates(rate) or self.limit_of_season(told):
            return
        if every := self.take(w.EVERY):
            told.append(every[0].strip(" ,"))
            return
        for pattern in (w.WATER_IN, w.FILL, w.NOTE, w.TRADE_NAME):
            if found := self.take(pattern):
                told.append(found[0].strip(" ,"))
                return
        self.second(rate, lead)
        self.lost(self.rest())

    def bracket(self, rate: LabelRate, same: list[LabelRate]) -> bool:
        """(0.25% vol/vol): the rate a second time, which must agree."""
        match = re.match(r"\s*\(([^()]*)\)", self.clean[self.at :])
        if not match:
            return False
        try:
            other = _Reader(match[1], self.field).phrase().rate
        except InputError:
            return False
        if not _agree(rate, other):
            self.which([(show_label_rate(rate), "as it is printed"), (show_label_rate(other), "in the bracket")])
        self.at += match.end()
        same.append(other)
        return True

    def range_of_rates(self, rate: LabelRate) -> bool:
        """6 pts/A to 4 qts/A"""
        here = self.at
        if not self.take(w.TO) or not self.number_next():
            self.at = here
            return False
        try:
            other = self.rate()
        except InputError:
            self.at = here
            return False
        if other.unit.kind != rate.unit.kind:
            self.at = here
            return False
        high = other.highest.to(rate.highest.unit).value * (rate.high / rate.highest.value)
        if high < rate.low:
            self.runs_down()
        self._joined_up = replace(rate, high=high)
        return True

    def limit_of_season(self, told: list[str]) -> bool:
        """, not to exceed 6 lb/M per season"""
        here = self.at
        self.take(w.OTHER)
        begun = self.at
        if self.take(w.LIMIT):
            try:
                self.rate()
                if self.take(w.SEASON):
                    told.append(self.clean[begun : self.at].strip(" ,"))
                    return True
            except InputError:
                pass
        self.at = here
        return False

    def second(self, rate: LabelRate, lead: str) -> None:
        """Another rate: which of them is asked."""
        here = self.at
        self.take(w.OTHER)
        try:
            meant = self.lead()
            other = self.rate()
        except Ambiguous:
            raise
        except InputError:
            self.at = here
            return
        self.which([(show_label_rate(rate), lead.lower()), (show_label_rate(other), meant.lower())])

    def which(self, readings: Sequence[tuple[str, str]]) -> NoReturn:
        raise Ambiguous(
            self.field,
            self.text,
            "That is more than one rate.",
            "Say which; a label's other rate is a row of its own.",
            [Choice(text, meaning) for text, meaning in readings],
        )

    # --- one rate

    def rate(self) -> LabelRate:
        """One rate, from its number to what it is per."""
        opened = self.take(w.COVERAGE) or self.take(w.COVERS)
        least = self.take(w.LEAST)
        up_to = bool(self.take(w.LIMIT)) and not least
        first = self.range()
        if opened or first.unit.dimension == AREA:
            return self.coverage_by_area(first)
        if first.unit.dimension == RATIO:
            return LabelRate(0.0 if up_to else first.low, first.high, RateUnit(first.unit, None))
        if first.unit.dimension not in (MASS, VOLUME):
            self.measures(first.unit, "A rate starts with a weight or a volume.")
        self.second_unit(first)
        basis = self.what()
        foot, carrier = self.joined()
        if foot is None and carrier is not None and carrier[0] == carrier[1]:
            foot, carrier = _grouped(carrier[0], carrier[2]), None
        if foot is None:
            if self.rest() and not w.GOES_ON.match(self.rest()):
                self.lost(self.rest())
            self.no_foot()
        return LabelRate(0.0 if up_to else first.low, first.high, RateUnit(first.unit, foot[1], basis), foot[0], carrier)

    def second_unit(self, first: _Range) -> None:
        """4 oz (118 ml): the same amount in another unit."""
        match = re.match(r"\s*\(([^()]*)\)", self.clean[self.at :])
        if not match:
            return
        inner = _Reader(match[1], self.field)
        try:
            other = inner.range()
        except InputError:
            return
        if inner.rest() or other.unit.dimension != first.unit.dimension:
            return
        if abs(other.high * other.unit.size / (first.high * first.unit.size) - 1) > SAME:
            self.no_rate(f"({match[1]}) is not what stands before it.", "Type the one that the label means.")
        self.at += match.end()

    def joined(self) -> tuple[Foot | None, Carrier | None]:
        """What an amount is per, and the spray it is in; either may come first."""
        foot: Foot | None = None
        carrier: Carrier | None = None
        self.take(w.PACKAGE)
        while True:
            here = self.at
            if foot is None and (joint := self.take(w.COVERS)):
                if self.number_next() and (area := self.area_at()):
                    foot = area
                    continue
                if joint[0].strip(" ,").lower() in ("covers", "treats"):
                    raise InputError(self.field, self.text, "What it covers is not one area.", "Give one area.")
                self.at = here
            if carrier is None and (found := self.spray(foot)):
                carrier, own = found
                foot = foot or own
                continue
            if foot is None and self.take(w.PER):
                foot, carrier = self.per(carrier)
                continue
            if foot is None and not self.goes_on and self.take(w.NAME):
                continue
            return foot, carrier

    def per(self, carrier: Carrier | None) -> tuple[Foot | None, Carrier | None]:
        """Per 1,000 sq ft · per gallon · per gallon of water per 1,000 sq ft"""
        if w.TANK.match(self.clean, self.at):
            self.per_tank()
        foot = self.foot()
        if foot[1].dimension == AREA:
            return foot, carrier
        self.take(w.TANK)
        self.take(w.OF_SPRAY)
        here = self.at
        if (self.take(w.PER) or self.take(w.COVERS)) and (area := self.area_at()):
            litres = foot[0] * foot[1].size
            unit = next((UNITS[k] for k in ("gal", "l") if foot[1].key.startswith(k)), foot[1])
            volume = litres / unit.size
            return area, (volume, volume, unit)
        self.at = here
        return foot, carrier

    def spray(self, foot: Foot | None) -> tuple[Carrier, Foot | None] | None:
        """In 2 gal of water · with 1/2 gallon of water per 500 sq ft · in 250 to 500 L/ha"""
        here = self.at
        match = self.take(w.IN)
        if not match or not self.number_next():
            self.at = here
            return None
        named = bool(re.search("volume", match[0], re.IGNORECASE))
        try:
            water = self.range()
        except InputError:
            self.at = here
            return None
        if water.unit.dimension != VOLUME:
            self.at = here
            return None
        said = bool(self.take(w.OF_SPRAY)) or named
        own, mark = None, self.at
        if self.take(w.PER):
            own = self.area_at()
            if own is None:
                self.at = mark
        if foot is not None and own is None and not said:
            self.at = here
            return None
        low, high = water.low, water.high
        if own and foot:
            share = foot[0] * foot[1].size / (own[0] * own[1].size)
            low, high = low * share, high * share
        return (low, high, water.unit), own

    def area_at(self) -> Foot | None:
        """An area here, or None with nothing taken."""
        here = self.at
        try:
            foot = self.foot()
        except Ambiguous:
            raise
        except InputError:
            self.at = here
            return None
        if foot[1].dimension != AREA:
            self.at = here
            return None
        return foot

    def coverage_by_area(self, area: _Range) -> LabelRate:
        """Covers 5,000 sq ft per 16 lb bag"""
        if area.low != area.high:
            raise InputError(self.field, self.text, "A coverage given as a range says no rate.", "Give one area.")
        bracket = re.compile(r"\s*\((?=[^()]*\)\s*$)").match(self.clean, self.at)
        if bracket:
            self.at = bracket.end()
            self.clean = self.clean.rstrip(") ")
        elif not (self.take(w.PER) or self.take(w.words(r"\s*with\b\s*"))):
            self.lost(self.rest() or "the amount that covers it")
        self.take(w.LEAD)
        package = self.range()
        if package.unit.dimension not in (MASS, VOLUME):
            self.measures(package.unit, "What covers an area is a weight or a volume.")
        basis = self.what()
        self.take(w.PACKAGE)
        return LabelRate(package.low, package.high, RateUnit(package.unit, area.unit, basis), area.low)

    # --- parts

    def number_next(self) -> bool:
        self.spaces()
        return bool(w.NUMBER_AT.match(self.clean, self.at) or w.NUMBER_WORD.match(self.clean, self.at))

    def number(self) -> float:
        self.spaces()
        if re.match(r"\d+,\d{1,2}(?!\d)|-\s?[\d.]|nan\b|[+-]?inf", self.clean[self.at :], re.IGNORECASE):
            bad = re.match(r"\S+", self.clean[self.at :])
            read_number(bad[0] if bad else "", self.field)
        match = self.take(w.NUMBER_AT) or self.take(w.NUMBER_WORD)
        if not match:
            self.lost(self.rest() or "the end: a number is missing")
        return positive(self.field, read_number(match[0], self.field), most=1e12)

    def range(self) -> _Range:
        low = self.number()
        here = self.at
        if self.take(w.TO) and self.number_next():
            high = self.number()
            return self.checked(low, high, self.unit())
        self.at = here
        unit = self.unit()
        here = self.at
        if self.take(w.TO) and self.number_next():
            high, second = self.number(), self.unit()
            if second.dimension == unit.dimension:
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
            self.runs_down()
        return _Range(low, high, unit)

    def unit(self, *dimensions: str) -> Unit:
        self.spaces()
        if self.take(w.VV):
            return UNITS["pct_vv"]
        if bare := w.PERCENT.match(self.clean, self.at):
            self.percent(bool(bare[1]))
        found, self.at = read_unit_at(self.clean, self.at, self.field, *dimensions)
        return found

    def percent(self, solution: bool) -> NoReturn:
        said = self.clean[: self.at].strip()
        choices = [Choice(f"{said} % v/v", "of the finished spray, by volume")]
        if solution and (number := re.search(f"({NUMBER})$", said)):
            choices.append(Choice(f"{read_number(number[0]) * 10:g} g per L", "weight in volume"))
        raise Ambiguous(self.field, self.text, "A bare % does not say of what.", "Say which.", choices)

    def what(self) -> Basis:
        match = self.take(w.WHAT)
        return w.WHAT_MEANS[match["what"].lower()] if match else Basis.PRODUCT

    def foot(self) -> Foot:
        self.spaces()
        match = w.NUMBER_AT.match(self.clean, self.at)
        foot = self.number() if match or w.NUMBER_WORD.match(self.clean, self.at) else 1.0
        if foot == 1000.0 and not self.rest():
            said = self.clean.rstrip()
            choices = [Choice(f"{said} sq ft", "92.9 m²"), Choice(f"{said} m²", "1,000 m²")]
            raise Ambiguous(self.field, self.text, "“per 1,000” does not say of what.", "Say which.", choices)
        unit = self.unit(AREA, VOLUME)
        if unit.key == "kft2" and match is None and re.match(r"\s*(?:sq|ft2|square)", self.clean[self.at :], re.I):
            inner = self.unit(AREA)  # "per thousand square feet"
            if inner.key != "ft2":
                self.lost(self.rest())
        if unit.dimension not in (AREA, VOLUME):
            self.measures(unit, "A rate is per area (1000 sq ft, acre, 100 m², ha) or per volume of spray (gal, L, 100 gal).")
        if unit.dimension == VOLUME:
            self.take(w.OF_SPRAY)
        return _grouped(foot, unit)

    # --- what is no rate

    def measures(self, unit: Unit, remedy: str) -> NoReturn:
        raise InputError(self.field, self.text, f"{unit.symbol} measures {unit.dimension}.", remedy)

    def runs_down(self) -> NoReturn:
        said = "The range runs down: its first number is the larger."
        raise InputError(self.field, self.text, said, "Put the lower rate first.")

    def no_rate(self, said: str, remedy: str) -> NoReturn:
        raise NotUnderstood(self.field, self.text, said, remedy)

    def limit_only(self) -> NoReturn:
        self.no_rate(
            f"“{self.clean}” is a limit of a season, not a rate: “per year” and the like say so.",
            "Enter it among the label's rules.",
        )

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

    def per_tank(self) -> NoReturn:
        said = self.clean[: self.at].strip()
        raise Ambiguous(
            self.field,
            self.text,
            "“per tank” does not say how large the tank is.",
            "Say how many gallons or litres it holds.",
            [Choice(f"{said} {size} gal", f"a tank of {size} gal") for size in TANKS],
        )

    def lost(self, words: str) -> NoReturn:
        raise NotUnderstood(
            self.field,
            self.text,
            f"“{words}” was not understood.",
            "Type the rate like “1.5 to 3 fl oz per 1,000 sq ft” or “2 lb per acre”.",
        )


def _agree(a: LabelRate, b: LabelRate) -> bool:
    """Whether two printings say one rate, as far as they can be compared."""
    one, other = _comparable(a), _comparable(b)
    if one[0] != other[0]:
        return a.unit.basis is not b.unit.basis  # a nutrient beside its product is another thing, not another rate
    return all(abs(x - y) <= SAME * max(x, y) for x, y in zip(one[1:], other[1:], strict=True))


def _comparable(rate: LabelRate) -> tuple[str, float, float]:
    """What a rate measures, and its ends in base units: volume in volume is a share."""
    unit = rate.unit
    if unit.per is None:
        return f"volume/volume {unit.basis}", rate.lowest.base, rate.highest.base
    return f"{unit.amount.dimension}/{unit.per.dimension} {unit.basis}", rate.lowest.base, rate.highest.base


def _grouped(foot: float, unit: Unit) -> Foot:
    """1,000 ft², 100 m², 100 gal and 100 L are units of their own in the trade."""
    own = {(1000.0, "ft2"): "kft2", (100.0, "m2"): "m2_100", (100.0, "gal"): "gal_100", (100.0, "l"): "l_100"}
    return (1.0, UNITS[own[foot, unit.key]]) if (foot, unit.key) in own else (foot, unit)
