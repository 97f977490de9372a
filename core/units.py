"""Units of the trade: parsing, converting and formatting quantities. The only place that converts.

Base units inside the core: mass g, volume L, area m², length m, ratio 1 (a fraction), time s, speed m/s, pressure kPa;
temperatures are °C. Definitions and their sources stand in `core.trade_units`; a conversion is one multiplication.
"""

import math
import re
import unicodedata
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction
from functools import cache

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.trade_units import AMBIGUOUS_SPELLINGS, CASE_SENSITIVE_SPELLINGS, TRADE_UNITS
from core.trade_units import AREA as AREA
from core.trade_units import LENGTH as LENGTH
from core.trade_units import MASS as MASS
from core.trade_units import PRESSURE as PRESSURE
from core.trade_units import RATIO as RATIO
from core.trade_units import SPEED as SPEED
from core.trade_units import TIME as TIME
from core.trade_units import VOLUME as VOLUME

LARGEST = {MASS: 1e9, VOLUME: 1e7, AREA: 1e8, LENGTH: 1e5, RATIO: 1.0, TIME: 1e9, SPEED: 100.0, PRESSURE: 2e4}
"""The largest magnitude taken seriously, in base units: 1000 t, 10,000 m³, 10,000 ha, 100 km, the whole, 30 years, 100 m/s,
20 MPa."""

SMALLEST = {MASS: 1e-6, VOLUME: 1e-9, AREA: 1e-4, LENGTH: 1e-5, RATIO: 1e-9, TIME: 1e-2, SPEED: 1e-3, PRESSURE: 1.0}
"""The smallest magnitude taken seriously, in base units: 1 µg, 1 nL, 1 cm², 0.01 mm, 10 ms, 1 mm/s, 1 kPa."""


@dataclass(frozen=True)
class Unit:
    """One unit of the trade. `size` is how many base units it holds."""

    key: str
    symbol: str
    name: str
    plural: str
    dimension: str
    size: float


@dataclass(frozen=True)
class Quantity:
    """A number and its unit, as typed or as shown."""

    value: float
    unit: Unit

    @property
    def base(self) -> float:
        """The value in the base unit of its dimension (g, L, m², m)."""
        return self.value * self.unit.size

    def to(self, unit: "Unit | str") -> "Quantity":
        """The same quantity in another unit of the same dimension."""
        target = UNITS[unit] if isinstance(unit, str) else unit
        return Quantity(convert(self.value, self.unit, target), target)

    def __str__(self) -> str:
        return f"{show_number(self.value)} {self.unit.symbol}"


UNITS = {
    key: Unit(key, symbol, name, plural, dimension, float(size)) for key, symbol, name, plural, dimension, size, _ in TRADE_UNITS
}


def unit(key: str, field: str = "unit") -> Unit:
    """The unit with this key.

    Raises:
        InputError: no unit has that key.
    """
    try:
        return UNITS[key]
    except KeyError:
        raise InputError(field, key, f"“{key}” is not a unit known here.", f"Use one of: {', '.join(UNITS)}.") from None


def convert(value: float, source: Unit, target: Unit) -> float:
    """`value` of `source` in `target`.

    Args:
        value: in the unit `source` [source].
        source: the unit it is in.
        target: the unit it is wanted in.

    Raises:
        InputError: the two measure different things (a mass is no volume without a density).
    """
    if source.dimension != target.dimension:
        raise InputError(
            "unit",
            f"{source.symbol} → {target.symbol}",
            f"{source.symbol} measures {source.dimension} and {target.symbol} measures {target.dimension}.",
            "A density links mass and volume; nothing links the others.",
        )
    if source is target:
        return value
    return value * (source.size / target.size)


DENSITY_UNITS = {"lb/gal": UNITS["lb"].size / UNITS["gal"].size, "kg/l": 1000.0, "g/ml": 1000.0, "g/l": 1.0}
"""Units of density and of concentration, and how many g/L each is."""


def density(field: str, value: float, key: str) -> float:
    """A checked density or concentration [g/L].

    Args:
        field: whose fault it would be.
        value: in the unit `key` [key].
        key: of the unit.

    Raises:
        InputError: not positive and finite, or no unit of density.
    """
    if key not in DENSITY_UNITS:
        known = ", ".join(DENSITY_UNITS)
        raise InputError(field, key, f"“{key}” is not a unit of density.", f"Use one of: {known}.")
    return positive(field, value, most=1e6, symbol=key) * DENSITY_UNITS[key]


TEMPERATURE_UNITS = ("degF", "degC")
COLDEST, HOTTEST = -60.0, 60.0
"""Air and soil are not taken seriously outside -60 to 60 °C."""


def celsius(field: str, value: float, key: str) -> float:
    """A checked temperature [°C].

    Args:
        field: whose fault it would be.
        value: in the unit `key` [key].
        key: of the unit.

    Raises:
        InputError: no unit of temperature, or a temperature that no air or soil has.
    """
    if key not in TEMPERATURE_UNITS:
        raise InputError(field, key, f"“{key}” is not a unit of temperature.", "Use degF or degC.")
    found = (value - 32) / 1.8 if key == "degF" else value
    if not math.isfinite(value) or not COLDEST <= found <= HOTTEST:
        shown = f"{value:g} {'°F' if key == 'degF' else '°C'}"
        raise InputError(field, value, f"{shown} is no temperature of air or soil.", "Check the number and its unit.")
    return found


# --- magnitudes ------------------------------------------------------------------------------------------------


def positive(
    field: str, value: float, *, most: float | None = None, least: float | None = None, symbol: str = "", zero: bool = False
) -> float:
    """`value` if it is a finite number above zero (or zero, where `zero`) and within `least` and `most`.

    Args:
        field: whose fault it would be.
        value: to check [any one unit].
        most: the most it may be [the same unit].
        least: the least it may be [the same unit].
        symbol: of the unit, for the sentence.
        zero: whether nothing is taken.

    Raises:
        InputError: names the field and the value, and says what would do.
    """
    if not math.isfinite(value):
        raise InputError(field, value, f"{value} is not a number to measure with.", "Enter a finite number.")
    if value < 0:
        raise InputError(field, value, f"{show_number(value)} {symbol}".strip() + " is below zero.", "Enter a number above zero.")
    if value == 0 and not zero:
        raise InputError(field, value, "Zero measures nothing.", "Enter a number above zero.")
    if most is not None and value > most:
        shown = f"{show_number(value)} {symbol}".strip()
        raise InputError(
            field,
            value,
            f"{shown} is beyond belief here; the most taken is {show_number(most)} {symbol}".strip() + ".",
            "Check the number and its unit.",
        )
    if least is not None and 0 < value < least:
        shown = f"{show_number(value)} {symbol}".strip()
        raise InputError(
            field,
            value,
            f"{shown} is too small to measure; the least taken is {show_number(least)} {symbol}".strip() + ".",
            "Check the number and its unit.",
        )
    return value


def quantity(field: str, value: float, key: str, *dimensions: str) -> Quantity:
    """A checked quantity from a number and a unit key.

    Args:
        field: whose fault it would be.
        value: in the unit `key` [key].
        key: of the unit.
        *dimensions: those that are taken.

    Raises:
        InputError: the number is not positive and finite, is absurd for its dimension, or the unit measures
            something else than `dimensions`.
    """
    found = unit(key, field)
    if dimensions and found.dimension not in dimensions:
        raise InputError(
            field,
            f"{value} {found.symbol}",
            f"{found.symbol} measures {found.dimension}, not {' or '.join(dimensions)}.",
            "Pick a unit that does.",
        )
    most, least = LARGEST[found.dimension] / found.size, SMALLEST[found.dimension] / found.size
    positive(field, value, most=most, least=least, symbol=found.symbol)
    return Quantity(value, found)


LONGEST_NUMBER = 60
"""Characters of a number as typed."""
TINIEST, HUGEST = 1e-12, 1e15
"""How near to 0 and how far from it a number may be: between them no product or quotient of a few of them overflows."""


def bounded(field: str, value: float) -> float:
    """`value` if it is finite, and 0 or of a size that can be reckoned with.

    Args:
        field: whose fault it would be.
        value: to check [any one unit].

    Raises:
        InputError: names the field and the value.
    """
    if value == 0 or TINIEST <= abs(value) <= HUGEST:
        return value
    raise InputError(field, value, f"{value:g} is not a number to measure with.", "Check the number and its unit.")


# --- text to numbers -------------------------------------------------------------------------------------------

_VULGAR = "½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
NUMBER_WORDS = {
    w: n
    for n, w in enumerate(
        ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"], start=1
    )
}
NUMBER = r"(?:\d+[ -]\d+ ?/ ?\d+|\d+ ?/ ?\d+|\d{1,3}(?:,\d{3})+(?![\d])(?:\.\d+)?|\d+(?:\.\d+)?|\.\d+)"
_NUMBER_RE = re.compile(NUMBER)


def typed_quantity(field: str, value: float | str, key: str, *dimensions: str) -> Quantity:
    """A checked quantity from a number and a unit; text may carry its own unit (`2 qt`), which then counts.

    Args:
        value: or text, in the unit `key` [key].
        field: whose fault it would be.
        key: of the unit.
        dimensions: those that are taken.

    Raises:
        InputError: as `quantity` and `read_quantity`; a bare `oz` is asked back.
    """
    if isinstance(value, str) and re.search(r"[A-Za-z²]", value):
        return read_quantity(value, field, *dimensions)
    return quantity(field, read_number(value, field) if isinstance(value, str) else value, key, *dimensions)


def tidy(text: str) -> str:
    """Text with one spelling for dashes, fractions, powers, spaces and abbreviating full stops."""
    text = re.sub(f"[{_VULGAR}]", lambda m: " " + unicodedata.normalize("NFKC", m[0]).replace("⁄", "/"), text)
    text = unicodedata.normalize("NFKC", text)
    text = re.sub("[‐‑‒–—−]", "-", text).replace("⁄", "/").replace("’", "'").replace("”", '"')
    text = re.sub(r"(?<=[A-Za-z])\.", " ", text)
    text = re.sub(r"\ba i\b", "ai", text)
    return re.sub(r"\s+", " ", text).strip()


_DECIMAL_COMMA = re.compile(
    r"(?<![\d.,])(?:(?P<groups>\d{1,3}(?:\.\d{3})+)|(?P<nought>0)(?=,\d)|(?P<whole>\d+)(?=,(?:\d{1,2}|\d{4,})(?!\d)))"
    r",(?P<part>\d+)(?![\d]|[.,]\d)"
)


def pointed(text: str) -> str:
    """A text whose decimal commas are points, where a comma can be nothing else: 5,5 · 0,125 · 1.234,5.

    `1,500` stays fifteen hundred, and so do lists: 2,4,8.
    """
    return _DECIMAL_COMMA.sub(lambda m: f"{(m['groups'] or m['nought'] or m['whole']).replace('.', '')}.{m['part']}", text)


def read_number(text: str, field: str = "value") -> float:
    """A number as people write it: 1,720 · 0.5 · .5 · 0,5 · 1.234,5 · 1/4 · 1 1/2 · 1-1/2 · 1½ · two.

    Raises:
        NotUnderstood: it is no number, or its commas can be read in two ways.
        InputError: a division by zero, or no finite number.
    """
    if len(text) > LONGEST_NUMBER:
        raise NotUnderstood(field, text[:LONGEST_NUMBER], f"{len(text)} characters are no number.", "Enter a finite number.")
    clean = pointed(tidy(text))
    if clean.lower() in NUMBER_WORDS:
        return float(NUMBER_WORDS[clean.lower()])
    if clean.lower().lstrip("+-") in {"nan", "inf", "infinity"}:
        raise InputError(field, text, f"“{text}” is not a number to measure with.", "Enter a finite number.")
    if re.fullmatch(r"-\s?(\d|\.\d).*", clean):
        raise InputError(field, text, f"{text} is below zero.", "Enter a number above zero.")
    if re.search(r"\d,\d{1,2}(?!\d)|\d,\d{4,}", clean):
        raise NotUnderstood(
            field,
            text,
            f"The commas in “{text}” can be read in two ways.",
            "Write 1.5 or 1,5 for one and a half, 1,500 for thousands.",
        )
    if not _NUMBER_RE.fullmatch(clean):
        raise NotUnderstood(field, text, f"“{text}” is not a number.", "Write it like 1.5, 1/4, 1 1/2 or 1,500.")
    return _number(clean, text, field)


def read_signed(text: str, field: str = "value") -> float:
    """A number that may be below zero, as a longitude or a frost. Raises as `read_number`."""
    clean = text.strip()
    below = clean[:1] in ("-", "−")
    found = read_number(clean[1:].lstrip() if below else clean.removeprefix("+"), field)
    return -found if below else found


def _number(clean: str, text: str, field: str) -> float:
    whole, fraction = Fraction(0), clean.replace(",", "").replace(" /", "/").replace("/ ", "/")
    if match := re.fullmatch(r"(\d+)[ -](\d+/\d+)", fraction):
        whole, fraction = Fraction(match[1]), match[2]
    try:
        number = float(whole + Fraction(fraction))
    except ZeroDivisionError:
        raise InputError(field, text, f"“{text}” divides by zero.", "Check the fraction.") from None
    except OverflowError:
        number = math.inf
    if number and not TINIEST <= number <= HUGEST:
        raise InputError(
            field, text[:LONGEST_NUMBER], f"“{text[:LONGEST_NUMBER]}” is not a number to measure with.", "Enter a finite number."
        )
    return number


# --- text to units ---------------------------------------------------------------------------------------------


def _spellings() -> dict[str, str]:
    table: dict[str, str] = {}
    for key, symbol, name, plural, _, _, others in TRADE_UNITS:
        for spelling in (symbol, name, plural, *others):
            clean = tidy(spelling).lower()
            if table.setdefault(clean, key) != key:
                raise AssertionError(f"two units are spelt {clean!r}")
    return table


_SPELLINGS = _spellings()


@cache
def _spelling_re() -> re.Pattern[str]:
    """Every spelling, the longest first; it takes a tenth of a second to make, so the first unit that is read makes it."""
    words = sorted([*_SPELLINGS, *AMBIGUOUS_SPELLINGS], key=len, reverse=True)
    tail = r"(?![A-Za-z0-9²^])"
    return re.compile("|".join(re.escape(w) + (tail if w[-1].isalnum() else "") for w in words), re.IGNORECASE)


_CASED_RE = re.compile("(" + "|".join(CASE_SENSITIVE_SPELLINGS) + r")(?![A-Za-z0-9²^])")


def read_unit_at(clean: str, start: int, field: str = "unit", *dimensions: str) -> tuple[Unit, int]:
    """The unit spelt at `start` of tidied text, and where it ends; the longest spelling wins.

    `dimensions` narrows what may stand there, which settles some ambiguities (`oz` per acre stays a question, since
    both ounces are possible) but never guesses between two units that both fit.

    Raises:
        Ambiguous: the word means two units (`oz`, `ton`).
        NotUnderstood: no unit is spelt there.
    """
    if match := _CASED_RE.match(clean, start):
        return UNITS[CASE_SENSITIVE_SPELLINGS[match[1]]], match.end()
    match = _spelling_re().match(clean, start)
    if not match:
        word = re.match(r"[^\s\d/]*", clean[start:])
        shown = word[0] if word and word[0] else clean[start:]
        raise NotUnderstood(
            field,
            clean,
            f"“{shown}” is not a unit known here." if shown else "A unit is missing.",
            "Use fl oz, oz wt, mL, g, lb, kg, gal, L, and per 1000 sq ft, acre, 100 m², ha, gal, 100 gal.",
        )
    word_found = match[0].lower()
    if word_found in AMBIGUOUS_SPELLINGS:
        fitting = [UNITS[k] for k in AMBIGUOUS_SPELLINGS[word_found]]
        fitting = [u for u in fitting if not dimensions or u.dimension in dimensions]
        if len(fitting) == 1:
            return fitting[0], match.end()
        raise Ambiguous(
            field,
            clean,
            f"“{match[0]}” can mean {' or '.join(u.plural for u in fitting)}.",
            "Say which.",
            [Choice(_replaced(clean, match, u.symbol), _scale_of(u)) for u in fitting],
        )
    if word_found == "m" and dimensions and LENGTH not in dimensions:
        raise Ambiguous(
            field,
            clean,
            "“m” is a metre; the trade's thousand square feet is a capital M.",
            "Say which area is meant.",
            [Choice(_replaced(clean, match, "1000 ft²"), "92.9 m²"), Choice(_replaced(clean, match, "m²"), "1 m²")],
        )
    return UNITS[_SPELLINGS[word_found]], match.end()


def is_spelling(word: str) -> bool:
    """Whether a word spells a unit, or begins to be two of them."""
    clean = word.lower()
    return clean in _SPELLINGS or clean in AMBIGUOUS_SPELLINGS or clean in {w.lower() for w in CASE_SENSITIVE_SPELLINGS}


def _replaced(clean: str, match: re.Match[str], symbol: str) -> str:
    return clean[: match.start()] + symbol + clean[match.end() :]


def _scale_of(u: Unit) -> str:
    base = {MASS: ("g", 1.0), VOLUME: ("mL", 1000.0), AREA: ("m²", 1.0)}.get(u.dimension, ("", 1.0))
    return f"1 {u.symbol} = {show_number(u.size * base[1])} {base[0]}"


def read_quantity(text: str, field: str = "value", *dimensions: str) -> Quantity:
    """A number and its unit as typed: `1,720 sq ft`, `1/2 in`, `30 lb`.

    Raises:
        Ambiguous, NotUnderstood, InputError: as the number and the unit do; absurd magnitudes too.
    """
    clean = pointed(tidy(text))
    match = _NUMBER_RE.match(clean) or re.match("|".join(NUMBER_WORDS) + r"\b", clean, re.IGNORECASE)
    if not match:
        read_number(clean.split(" ")[0] if clean else clean, field)
        raise NotUnderstood(field, text, f"“{text}” does not start with a number.", "Write a number and a unit.")
    rest = clean[match.end() :]
    if re.match(r",\d", rest):
        read_number(match[0] + rest.split(" ")[0], field)
    value = read_number(match[0], field)
    start = match.end() + (len(rest) - len(rest.lstrip()))
    found, end = read_unit_at(clean, start, field, *dimensions)
    if clean[end:].strip():
        raise NotUnderstood(field, text, f"“{clean[end:].strip()}” was not understood.", "Write one number and a unit.")
    return quantity(field, value, found.key, *dimensions)


# --- numbers to text -------------------------------------------------------------------------------------------


def show_number(value: float, digits: int = 4) -> str:
    """A number for people: `digits` significant figures, thousands grouped, no exponent, no trailing zeros.

    Whole numbers are never cut: 12,345 stays 12,345 at four digits.

    Args:
        value: any number [any one unit].
        digits: that are told.
    """
    if value == 0:
        return "0"
    if not math.isfinite(value):
        return str(value)
    places = max(0, digits - 1 - math.floor(math.log10(abs(value))))
    text = f"{value:,.{places}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return text.replace("-", "−")


def exact_number(value: float) -> str:
    """The shortest text that reads back as the same float: a plain decimal, or a fraction where that is shorter.

    Args:
        value: any number [any one unit].
    """
    plain = repr(float(value))
    if "e" in plain:
        plain = f"{Decimal(plain):f}"
    whole_part, _, rest = plain.partition(".")
    plain = f"{int(whole_part):,}" + (f".{rest}" if rest.strip("0") else "")
    if len(plain) > 7 and any(abs(value * d - round(value * d)) < 1e-9 for d in (3, 6, 7, 9, 11, 12, 13, 14, 15)):
        fraction = Fraction(value).limit_denominator(16)
        if float(fraction) == value and fraction.denominator > 1:
            whole, part = divmod(fraction.numerator, fraction.denominator)
            return f"{whole} {part}/{fraction.denominator}" if whole else f"{part}/{fraction.denominator}"
    return plain


def show_percent(fraction: float, digits: int = 2, sign: bool = False) -> str:
    """A fraction as a percentage: 0.0123 is `1.2 %`, signed where asked.

    Args:
        fraction: of a whole [1].
        digits: that are told.
        sign: whether a plus is written.
    """
    percent = fraction * 100
    if abs(percent) < 0.05:
        return "0 %"
    text = show_number(abs(percent), digits)
    mark = ("+" if percent > 0 else "−") if sign else ("−" if percent < 0 else "")
    return f"{mark}{text} %"
