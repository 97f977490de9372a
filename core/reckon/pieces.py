"""A line taken apart: its names, rates, amounts, numbers and days, and the words between them.

Nothing here says what the line asks; `core.reckon.grammar` does, by what stands in it. A bare ounce is settled by the product
that it is of; `per thousand` is a thousand square feet in an account that measures so.
"""

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum

from core.errors import Ambiguous, Choice, InputError
from core.label.phrase import poured, rate_at, spelt, weighed
from core.label.rate import Basis, LabelRate
from core.label.wording import BARE_OUNCE, WHAT, WHAT_MEANS
from core.reckon.days import Said, find_day
from core.reckon.names import ARTICLES, BEFORE, HIDDEN, SIGNS, Called, Masked, Names, What, unknown, vocabulary, which
from core.units import AREA, NUMBER, NUMBER_WORDS, Quantity, quantity, read_number, read_unit_at


class Is(StrEnum):
    """What a piece is."""

    NAME = "name"
    RATE = "rate"
    AMOUNT = "amount"
    NUMBER = "number"
    SHARE = "share"
    WARM = "temperature"
    PASSES = "passes"
    DAY = "day"
    MONTHS = "months"
    BREAK = "break"
    WORD = "word"
    UNCLEAR = "unclear"


@dataclass(frozen=True)
class Amount:
    """A quantity, and of what it counts so much: product, unless the line says otherwise."""

    quantity: Quantity
    basis: Basis = Basis.PRODUCT


@dataclass(frozen=True)
class Degrees:
    """A temperature as it was said [°F where `fahrenheit`, else °C]."""

    value: float
    fahrenheit: bool


@dataclass(frozen=True)
class Piece:
    """A stretch of the masked line, and what is read in it."""

    what: Is
    start: int
    end: int
    read: Called | LabelRate | Amount | Degrees | Said | float | int | str | InputError

    @property
    def is_size(self) -> bool:
        """Whether it is an amount of ground."""
        return isinstance(self.read, Amount) and self.read.quantity.unit.dimension == AREA


FILLERS = vocabulary(
    "a an the and of on onto over to from for at with using by w in is it my our this that please plus so be do i "
    "we need needs give takes take spray apply put down out how much many what should would will"
)
"""Words that join the others and ask nothing of their own."""

_SPACE = re.compile(r"(?:[\s?!\"']|\.(?!\d))+")
_BREAK = re.compile(r"[,;:+&]|\bplus\b", re.IGNORECASE)
_PASSES = re.compile(r"(?:in\s+)?(\d+|one|two|three|four)[\s-]+pass(?:es)?\b", re.IGNORECASE)
_PASS_WORDS = {"one": 1, "two": 2, "three": 3, "four": 4}
_MONTHS = re.compile(r"(\d{1,4})\s+(month|year)s?\b", re.IGNORECASE)
_WARM = re.compile(r"(-?\d+(?:\.\d+)?)\s*(?:°|deg(?:rees)?\b)?\s*([FC])(?![A-Za-z0-9])", re.IGNORECASE)
_SHARE = re.compile(
    rf"(?:(?P<percent>\d+(?:\.\d+)?|\.\d+)\s*%|(?P<fraction>\d+\s*/\s*\d+)(?=\s+(?:of\s+)?(?:the\s+)?{SIGNS[What.AREA]})"
    rf"|(?:an?\s+)?(?P<word>half|third|quarter|fifth|tenth)\b)(?!\s*(?:v\b|v\s*/|by\b|solution\b))",
    re.I,
)
_SHARE_WORDS = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4, "fifth": 1 / 5, "tenth": 1 / 10}
_NUMBER = re.compile(NUMBER)
_NUMBER_WORD = re.compile(rf"(?:{'|'.join(NUMBER_WORDS)})\b", re.IGNORECASE)
_BELOW_ZERO = re.compile(r"(?:^|(?<=[\s,;]))-\s?(?=\d|\.\d)")
_COMMAS = re.compile(r"\d+,\d{1,2}(?!\d)[,\d]*")
_WORD = re.compile(r"[^\s,;:+&?!]+")
_PRODUCT_BETWEEN = re.compile(
    rf"({NUMBER}\s*(?:fl\s+)?[A-Za-z]+(?:\s+wt)?)\s+(of\s+(?:the\s+)?)?({SIGNS[What.PRODUCT]})\s*"
    r"((?:/|per\b)\s*(?:\d[\d,]*\s+)?[A-Za-z][A-Za-z0-9²]*(?:\s+(?:ft|feet|foot|m|metres?|meters?)\b)?)",
    re.IGNORECASE,
)
_PER_THOUSAND = re.compile(
    r"(/|\bper|\ba)\s*(?:1,?000|thousand|K)\b(?!\s*(?:sq|ft|m2|m²|square|gal|l\b|lit|,?\d))", re.IGNORECASE
)


@dataclass(frozen=True)
class Line:
    """A line that was taken apart."""

    typed: str
    masked: Masked
    names: Names
    pieces: tuple[Piece, ...]

    # --- what is in it

    def of(self, what: Is) -> list[Piece]:
        return [p for p in self.pieces if p.what is what]

    @property
    def text(self) -> str:
        """The line with its names hidden, in small letters; for what a question is told by."""
        return self.masked.text.lower()

    def words(self) -> list[Piece]:
        return self.of(Is.WORD)

    def has(self, *words: str) -> bool:
        said = {str(p.read).lower() for p in self.words()}
        return bool(said & set(words))

    def called(self, what: What) -> list[Piece]:
        """The names of a sort, those that can be it."""
        return [p for p in self.of(Is.NAME) if isinstance(p.read, Called) and p.read.what is what]

    def name(self, piece: Piece, what: What) -> str:
        """The one name that a piece is. Raises Ambiguous or NotUnderstood."""
        assert isinstance(piece.read, Called)
        return which(piece.read, what, self.typed)

    def areas(self) -> list[str]:
        return [self.name(p, What.AREA) for p in self.called(What.AREA)]

    @property
    def placed(self) -> bool:
        """Whether it says any ground: an area by its name, or a size."""
        return bool(self.called(What.AREA)) or any(p.is_size for p in self.pieces)

    def products(self) -> list[str]:
        return [self.name(p, What.PRODUCT) for p in self.called(What.PRODUCT)]

    def product(self) -> str | None:
        """The one product of the line; None where it names none. Raises InputError for several."""
        found = list(dict.fromkeys(self.products()))
        if len(found) > 1:
            raise InputError("product", self.typed, "That asks about one product.", f"Name one: {found[0]} or {found[1]}.")
        return found[0] if found else None

    def machine(self) -> str | None:
        """The machine of the line. Raises InputError for several."""
        found = list(dict.fromkeys(self.name(p, What.MACHINE) for p in self.called(What.MACHINE)))
        if len(found) > 1:
            raise InputError("machine", self.typed, "One machine does a job.", f"Name one: {found[0]} or {found[1]}.")
        return found[0] if found else None

    def amounts(self, *dimensions: str) -> list[Amount]:
        found = [p.read for p in self.of(Is.AMOUNT) if isinstance(p.read, Amount)]
        return [a for a in found if not dimensions or a.quantity.unit.dimension in dimensions]

    def rates(self) -> list[LabelRate]:
        return [p.read for p in self.of(Is.RATE) if isinstance(p.read, LabelRate)]

    def numbers(self) -> list[float]:
        return [p.read for p in self.of(Is.NUMBER) if isinstance(p.read, float)]

    def days(self) -> list[Said]:
        return [p.read for p in self.of(Is.DAY)]  # type: ignore[misc]

    def says_product(self, rate: Piece | None) -> bool:
        """Whether a rate is said to count product: in its own part of the line."""
        if rate is None:
            return False
        i = self.pieces.index(rate)
        stretch = [rate]
        for step in (-1, 1):
            j = i + step
            while 0 <= j < len(self.pieces) and self.pieces[j].what is not Is.BREAK:
                stretch.append(self.pieces[j])
                j += step
        return any(re.search(r"\bproduct\b", self.masked.text[p.start : p.end], re.IGNORECASE) for p in stretch)

    # --- other lines of it

    def without(self, pattern: re.Pattern[str]) -> "Line":
        """The line less what a pattern finds in it; for a question that is asked of a dose."""
        return take_apart(Masked(pattern.sub(" ", self.masked.text), self.masked.called), self.names, self.typed)

    # --- what is amiss in it

    def clear(self) -> None:
        """Ask back what has two readings. Raises the first of them."""
        for p in self.of(Is.UNCLEAR):
            assert isinstance(p.read, InputError)
            raise p.read

    def only(self, words: Iterable[str] = ()) -> None:
        """That no word is left which the question does not know.

        Raises:
            Ambiguous: what has two readings.
            NotUnderstood: names the word, with names that are near it.
        """
        self.clear()
        known = FILLERS | set(words)
        for i, p in enumerate(self.pieces):
            if p.what is Is.WORD and str(p.read).lower() not in known:
                raise unknown(self._run(i, known), self.names, self.typed, self._meant(i))

    def _run(self, i: int, known: frozenset[str]) -> str:
        """The unknown words that stand together from the `i`th piece, with the number that ends them."""
        j = i
        while j + 1 < len(self.pieces) and self._goes_on(self.pieces[j + 1], known):
            j += 1
        return self.masked.shown(self.masked.text[self.pieces[i].start : self.pieces[j].end]).strip()

    @staticmethod
    def _goes_on(piece: Piece, known: frozenset[str]) -> bool:
        return (piece.what is Is.WORD and str(piece.read).lower() not in known) or piece.what is Is.NUMBER

    def _meant(self, i: int) -> What | None:
        """What a name would be of that stands after “on”, “with” or “from”."""
        before = [str(p.read).lower() for p in self.pieces[max(0, i - 2) : i] if p.what is Is.WORD and p.read not in ARTICLES]
        return next((what for what, words in BEFORE.items() if before and before[-1] in words), None)

    def with_(self, piece: Piece, text: str, *, instead: bool = False) -> str:
        """The whole line as typed, with other text after a piece, or instead of it."""
        masked = self.masked.text
        return self.masked.shown(masked[: piece.start if instead else piece.end] + text + masked[piece.end :])


def take_apart(masked: Masked, names: Names, typed: str) -> Line:
    """The pieces of a line.

    Raises:
        InputError: a number below zero.
        NotUnderstood: commas that can be read in two ways.
    """
    text = _ounces(_regrouped(_thousands(spelt(masked.text), names)), masked, names)
    masked = Masked(text, masked.called)
    at, pieces = 0, []
    while at < len(text):
        if match := _SPACE.match(text, at):
            at = match.end()
            continue
        piece = next(found for read in _READERS if (found := read(text, at, masked)))
        pieces.append(piece)
        at = piece.end
    return Line(typed, masked, names, tuple(pieces))


def _thousands(text: str, names: Names) -> str:
    return _PER_THOUSAND.sub(r"\1 1000 ft2", text) if names.us else text


def _regrouped(text: str) -> str:
    """“2 oz of X per 1000” as “2 oz per 1000 of X”: what an amount is per stands beside it."""
    return _PRODUCT_BETWEEN.sub(r"\1 \4 \3", text)


def _ounces(text: str, masked: Masked, names: Names) -> str:
    """Bare ounces settled by the product that they are of: that of their own part of a mix, or the line's only one."""
    products = [(m.start(), masked.called[m[0]]) for m in re.finditer(SIGNS[What.PRODUCT], text)]
    if not products or not BARE_OUNCE.search(text):
        return text
    out, at = [], 0
    for stretch in re.finditer(r"[^,;+]+[,;+]?", text):
        mine = [c for start, c in products if stretch.start() <= start < stretch.end()] or [c for _, c in products]
        liquid = {names.good(name).liquid for c in mine for name in c.among(What.PRODUCT)}
        settled = stretch[0] if len(liquid) != 1 else poured(stretch[0]) if liquid == {True} else weighed(stretch[0])
        out += [text[at : stretch.start()], settled]
        at = stretch.end()
    return "".join([*out, text[at:]])


# --- readers, in the order in which they are asked --------------------------------------------------------------


def _name(text: str, at: int, masked: Masked) -> Piece | None:
    return Piece(Is.NAME, at, at + 1, masked.called[text[at]]) if re.match(HIDDEN, text[at]) else None


def _break(text: str, at: int, masked: Masked) -> Piece | None:
    match = _BREAK.match(text, at)
    return Piece(Is.BREAK, at, match.end(), match[0].lower()) if match else None


def _passes(text: str, at: int, masked: Masked) -> Piece | None:
    match = _PASSES.match(text, at)
    if not match:
        return None
    return Piece(Is.PASSES, at, match.end(), _PASS_WORDS.get(match[1].lower()) or int(match[1]))


def _day(text: str, at: int, masked: Masked) -> Piece | None:
    found = find_day(text, at)
    return Piece(Is.DAY, at, found[1], found[0]) if found else None


def _months(text: str, at: int, masked: Masked) -> Piece | None:
    match = _MONTHS.match(text, at)
    return Piece(Is.MONTHS, at, match.end(), int(match[1]) * (12 if match[2].lower() == "year" else 1)) if match else None


def _warm(text: str, at: int, masked: Masked) -> Piece | None:
    match = _WARM.match(text, at)
    return Piece(Is.WARM, at, match.end(), Degrees(float(match[1]), match[2].upper() == "F")) if match else None


def _share(text: str, at: int, masked: Masked) -> Piece | None:
    match = _SHARE.match(text, at)
    if not match:
        return None
    if match["percent"]:
        share = float(match["percent"]) / 100
    elif match["fraction"]:
        share = read_number(match["fraction"], "line")
    else:
        share = _SHARE_WORDS[match["word"].lower()]
    return Piece(Is.SHARE, at, match.end(), share)


def _number(text: str, at: int, masked: Masked) -> Piece | None:
    """A rate, an amount or a bare number, whichever can be read farthest."""
    if _BELOW_ZERO.match(text, at):
        read_number(text[at:].split(" ")[0], "line")
    if match := _COMMAS.match(text, at):
        read_number(match[0], "line")
    number = _NUMBER.match(text, at) or _NUMBER_WORD.match(text, at)
    if not number:
        return None
    unclear: InputError | None = None
    try:
        rate, end = rate_at(text, at, "line")
        return Piece(Is.RATE, at, end, rate)
    except Ambiguous as problem:
        unclear = _in_whole(problem, text, at, masked)
    except InputError:
        pass
    return _amount(text, at, number, unclear, masked)


def _amount(text: str, at: int, number: re.Match[str], unclear: InputError | None, masked: Masked) -> Piece:
    value = read_number(number[0], "line")
    start = number.end() + len(text[number.end() :]) - len(text[number.end() :].lstrip(" -"))
    try:
        unit, end = read_unit_at(text, start, "line")
    except Ambiguous as problem:
        end = start + len((re.match(r"\S+", text[start:]) or [""])[0])
        return Piece(Is.UNCLEAR, at, end, unclear or _in_whole(problem, text, at, masked, 0))
    except InputError:
        return Piece(Is.NUMBER, at, number.end(), value)
    if unclear and re.match(r"\s*(?:/|per\b)", text[end:]):
        return Piece(Is.UNCLEAR, at, len(text), unclear)
    counted = WHAT.match(text, end)
    basis = WHAT_MEANS[counted["what"].lower()] if counted else Basis.PRODUCT
    found = quantity("line", value, unit.key)
    return Piece(Is.AMOUNT, at, counted.end() if counted else end, Amount(found, basis))


def _in_whole(problem: Ambiguous, text: str, at: int, masked: Masked, start: int | None = None) -> Ambiguous:
    """The same question, its readings as whole lines; those of a reader start where it did."""
    before = text[: at if start is None else start]
    choices = [Choice(masked.shown(before + c.text), c.meaning) for c in problem.choices]
    said = masked.shown(str(problem.value))
    return Ambiguous("line", said, masked.shown(problem.problem), problem.remedy, choices)


def _word(text: str, at: int, masked: Masked) -> Piece | None:
    match = _WORD.match(text, at)
    end = match.end() if match else at + 1
    said = text[at:end]
    if hidden := re.search(HIDDEN, said[1:]):
        end, said = at + 1 + hidden.start(), said[: 1 + hidden.start()]
    said = said.rstrip(".")
    return Piece(Is.WORD, at, max(end, at + 1), said or text[at])


_READERS: Sequence[Callable[[str, int, Masked], Piece | None]] = (
    _name,
    _break,
    _passes,
    _day,
    _months,
    _warm,
    _share,
    _number,
    _word,
)
