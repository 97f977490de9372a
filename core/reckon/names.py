"""The names of an account in a line: found wherever they stand, as they are typed, and hidden while the rest is read.

A name is told by itself, by its first words or letters, by a word of its own (“orchard” of “Orchard field”), or by such a
shortening as people write (“grn” of “green”). The longest stretch of words counts, and of names that fit it those that fit it
best; the word before it (“on”, “with”, “from”) settles between an area, a machine and a product. What fits several is asked when
the line turns out to ask anything.
"""

import difflib
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import IntEnum, StrEnum
from functools import cached_property

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.label.product import Kind
from core.label.rate import Basis, RateUnit
from core.units import NUMBER_WORDS, Quantity, is_spelling, tidy


def vocabulary(words: str) -> frozenset[str]:
    """The words that stand in a text."""
    return frozenset(words.split())


class What(StrEnum):
    """What a name is of."""

    AREA = "area"
    PRODUCT = "product"
    MACHINE = "machine"
    MIX = "mix"


@dataclass(frozen=True)
class Goods:
    """What a line is read by of a product: whether it is poured, what its card rates it in, what it is and holds, its package."""

    liquid: bool = True
    unit: RateUnit | None = None
    kinds: tuple[Kind, ...] = ()
    holds: frozenset[Basis] = frozenset()
    package: Quantity | None = None


@dataclass(frozen=True)
class Names:
    """The names that a line may use; `us` tells whether the account measures in US units."""

    areas: Sequence[str] = ()
    products: Sequence[str] = ()
    machines: Sequence[str] = ()
    mixes: Sequence[str] = ()
    goods: Mapping[str, Goods] = field(default_factory=dict)
    us: bool = True

    def of(self, what: What) -> Sequence[str]:
        return {What.AREA: self.areas, What.PRODUCT: self.products, What.MACHINE: self.machines, What.MIX: self.mixes}[what]

    def good(self, product: str) -> Goods:
        return self.goods.get(product, Goods())

    @cached_property
    def by_letter(self) -> Mapping[str, Sequence[tuple[What, str, tuple[str, ...]]]]:
        """The names that have a word with a first letter, each with its words."""
        found: dict[str, list[tuple[What, str, tuple[str, ...]]]] = {}
        for what in What:
            for name in self.of(what):
                words = tuple(t.text for t in tokens(name))
                for letter in dict.fromkeys(w[0] for w in words):
                    found.setdefault(letter, []).append((what, name, words))
        return found


class Fit(IntEnum):
    """How well some words tell a name, the best first."""

    WHOLE = 0
    FIRST_WORDS = 1
    OWN_WORDS = 2
    FIRST_LETTERS = 3
    SHORTENED = 4


@dataclass(frozen=True)
class Token:
    """A word of a line, in small letters, and where it stands."""

    text: str
    start: int
    end: int


@dataclass(frozen=True)
class Called:
    """A name as it was typed, and the names that it can be; more than one where they are to be asked."""

    said: str
    fits: tuple[tuple[What, str], ...]

    @property
    def what(self) -> What:
        return self.fits[0][0]

    def among(self, what: What) -> tuple[str, ...]:
        return tuple(name for w, name in self.fits if w is what)


NEAR, OFFERED = 0.6, 3
"""How alike a name is that is offered, of 1, and how many are (ours)."""
FIRST, LAST = 0xE000, 0xF8FF
"""The private characters that names are hidden behind: of an area from E000, a product from E400, a machine E800, a mix EC00."""
_ROOM = 0x400
_BASE = {w: FIRST + i * _ROOM for i, w in enumerate(What)}
HIDDEN = f"[{chr(FIRST)}-{chr(LAST)}]"
SIGNS = {w: f"[{chr(base)}-{chr(base + _ROOM - 1)}]" for w, base in _BASE.items()}
"""A pattern for a hidden name of each sort."""

_TOKEN = re.compile(r"\d+(?:-\d+){2,}|[^\W_]+(?:'[^\W_]+)?")
_NUMBER_AT_END = re.compile(r"\s+[\d.]+$")
BEFORE = {
    What.AREA: {"on", "over", "onto"},
    What.PRODUCT: {"of", "from"},
    What.MACHINE: {"with", "using", "by", "w"},
    What.MIX: {"mix"},
}
"""The words after which a name of a sort stands."""
_SMALL, _SMALLEST = 3, 2
"""Fewer letters than this tell no name, and no further word of one (ours)."""
COMMON = vocabulary(
    "a an the and or of on over to from for at in with using by w is are was were be it its my our this that than "
    "as not no how what which when where who why can could do does did i we you have has had need want make give go "
    "goes went last next left far much many long enough ok okay all per each every half third quarter whole water "
    "spray sprayed sprays apply applied spread put down mix tank tanks pass passes low middle high cost costs price "
    "since until after before today tomorrow yesterday day days week weeks month months year years base gdd degree "
    "rate rates amount bag bags bottle pack product compare versus vs between best spot spots seconds caught "
    "covered covers cover started minus less plus times january february march april may june july august september "
    "october november december jan feb mar apr jun jul aug sep sept oct nov dec"
) | frozenset(NUMBER_WORDS)
"""Words of the line's own, which alone tell no name unless they are one."""
ARTICLES = frozenset({"the", "a", "an", "my", "our", "all", "half"})
"""What may stand between “on” and a name."""


def tokens(text: str) -> list[Token]:
    """The words of a text."""
    return [Token(m[0].lower(), m.start(), m.end()) for m in _TOKEN.finditer(text)]


@dataclass(frozen=True)
class Masked:
    """A line in which each name is one private character, and what those stand for."""

    text: str
    called: Mapping[str, Called]

    def shown(self, text: str) -> str:
        """A piece of it as it was typed."""
        return re.sub(HIDDEN, lambda m: self.called[m[0]].said, text)


def mask(text: str, names: Names) -> Masked:
    """The line with its names hidden, so that nothing of them is read as a number, a unit or a word of the line."""
    clean = tidy(text)
    called: dict[str, Called] = {}
    out, at = [], 0
    for start, end, found in _found(clean, names):
        sign = chr(_BASE[found.what] + len(called))
        called[sign] = found
        out += [clean[at:start], sign]
        at = end
    return Masked("".join([*out, clean[at:]]), called)


def _found(clean: str, names: Names) -> Iterator[tuple[int, int, Called]]:
    words = tokens(clean)
    i = 0
    while i < len(words):
        best = None if _of_a_number(clean, words[i]) else _best(clean, words, i, names)
        if best is None:
            i += 1
            continue
        length, fits = best
        start, end = words[i].start, words[i + length - 1].end
        yield start, end, Called(clean[start:end], fits)
        i += length


def _of_a_number(clean: str, word: Token) -> bool:
    """Whether a word is what something is per, or hangs on a number: the A of 3 lb/A, the N of 3 lbN."""
    before = clean[: word.start]
    if word.text[0].isdigit():
        return before.endswith(".")
    return len(word.text) < _SMALL and bool(re.search(r"(?:/|\bper|\d\.?)\s*$", before, re.IGNORECASE))


def _best(clean: str, words: Sequence[Token], i: int, names: Names) -> tuple[int, tuple[tuple[What, str], ...]] | None:
    """The longest stretch from a word that tells a name, and the names that it tells best."""
    wanted = next((w for w, before in BEFORE.items() if _before(words, i) in before), None)
    fits: dict[int, list[tuple[Fit, What, str]]] = {}
    for what, name, of_name in names.by_letter.get(words[i].text[0], ()):
        for length, how in _lengths(words, i, of_name):
            if length > 1 or how is Fit.WHOLE or _tells(words[i].text, how, what is wanted):
                fits.setdefault(length, []).append((how, what, name))
    if not fits:
        return None
    length = max(fits)
    found = fits[length]
    mine = [f for f in found if f[1] is wanted] or found
    least = min(how for how, _, _ in mine)
    return length, tuple((w, n) for how, w, n in mine if how is least)


def _before(words: Sequence[Token], i: int) -> str:
    """The word before, past “the”."""
    i -= 1
    while i >= 0 and words[i].text in ARTICLES:
        i -= 1
    return words[i].text if i >= 0 else ""


def _tells(word: str, how: Fit, wanted: bool) -> bool:
    """Whether one word is enough to tell a name by."""
    if word in COMMON or word.isdigit() or is_spelling(word):
        return wanted and how <= Fit.OWN_WORDS and not word.isdigit() and word not in ARTICLES
    return len(word) >= _SMALL if how >= Fit.FIRST_LETTERS else len(word) > 1


def _lengths(words: Sequence[Token], i: int, name: tuple[str, ...]) -> Iterator[tuple[int, Fit]]:
    """How many words from the `i`th tell a name, and how well: of each place in the name, the longest stretch."""
    for offset in range(len(name)):
        how, length = Fit.WHOLE, 0
        while offset + length < len(name) and i + length < len(words):
            one = _word_fit(words[i + length].text, name[offset + length], _SMALL if length == 0 else _SMALLEST)
            if one is None:
                break
            how, length = max(how, one), length + 1
        if length == 0:
            continue
        if how is Fit.WHOLE and not (offset == 0 and length == len(name)):
            how = Fit.OWN_WORDS if offset else Fit.FIRST_WORDS
        elif how is Fit.FIRST_LETTERS and offset:
            how = Fit.SHORTENED
        yield length, how


def _word_fit(said: str, word: str, least: int) -> Fit | None:
    """How well a word of a line tells one of a name, of which it has at least so many letters."""
    if said == word:
        return Fit.WHOLE
    if len(said) >= least and word.startswith(said):
        return Fit.FIRST_LETTERS
    if len(said) >= _SMALL and said.isalpha() and said[0] == word[0] and _within(said, word):
        return Fit.SHORTENED
    return None


def _within(said: str, word: str) -> bool:
    """Whether a word is written short: its letters in their order, and none but vowels missing (grn of green)."""
    letters = iter(word)
    return all(c in letters for c in said) and re.sub("[aeiou]", "", said) == re.sub("[aeiou]", "", word)


# --- one name ---------------------------------------------------------------------------------------------------


def which(called: Called, what: What, line: str) -> str:
    """The one name that is meant.

    Raises:
        Ambiguous: it can be several; each is offered as a whole line.
        NotUnderstood: it is a name of something else.
    """
    fitting = called.among(what)
    if not fitting:
        problem = f"{called.fits[0][1]} is a {called.what.value}, not a {what.value}."
        raise NotUnderstood(what.value, called.said, problem, f"Name a {what.value}.")
    if len(fitting) > 1:
        raise Ambiguous(
            what.value,
            called.said,
            f"“{called.said}” could be {' or '.join(fitting[:4])}.",
            "Say which.",
            [Choice(in_line(line, called.said, n), what.value) for n in fitting],
        )
    return fitting[0]


def in_line(line: str, said: str, name: str) -> str:
    """The line with a name in place of what was said."""
    return re.sub(re.escape(said), lambda _: name, line, count=1, flags=re.IGNORECASE)


def unknown(said: str, names: Names, line: str, what: What | None = None) -> InputError:
    """That nothing is called so; the nearest names are offered as whole lines. A number at its end may be of the name or not."""
    sorts = () if said.lower() in COMMON else (what,) if what else (What.AREA, What.PRODUCT, What.MACHINE)
    tried = [(text, near(text, names, sorts)) for text in dict.fromkeys([said, _NUMBER_AT_END.sub("", said)])]
    said, close = max(tried, key=lambda x: x[1][0][0] if x[1] else 0.0)
    problem = f"No {what.value} here is called “{said}”." if what else f"“{said}” was not understood."
    if what:
        remedy = "Pick one of the names, or add it first." if names.of(what) else f"This account has no {what.value} yet."
    else:
        remedy = "Check the spelling, or leave it out." if close else "Ask a rate, an area, a conversion or a sum; “?” tells how."
    offered = [Choice(in_line(line, said, name), sort.value) for _, sort, name in close[:OFFERED]]
    return NotUnderstood(what.value if what else "line", said, problem, remedy, offered)


def near(said: str, names: Names, sorts: Sequence[What]) -> list[tuple[float, What, str]]:
    """The names of some sorts that are spelt most like what was typed, the nearest first, with how alike they are (0 to 1)."""
    matcher = difflib.SequenceMatcher(None, "", said.lower())
    count = len(tokens(said))
    found = []
    for sort in sorts:
        for name in names.of(sort):
            best = 0.0
            for part in _parts(name.lower(), count):
                matcher.set_seq1(part)
                if min(matcher.real_quick_ratio(), matcher.quick_ratio()) >= NEAR:
                    best = max(best, matcher.ratio())
            if best >= NEAR:
                found.append((best, sort, name))
    return sorted(found, key=lambda x: (-x[0], x[2]))


def _parts(name: str, count: int) -> list[str]:
    """A name, and each stretch of as many of its words as were typed."""
    words = tokens(name)
    return [name, *(name[words[i].start : words[i + count - 1].end] for i in range(len(words) - count + 1) if count)]
