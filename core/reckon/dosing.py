"""Which dose a line asks: its products each with its rate, the ground, the machine and the passes, in whatever order they stand.

components are parted by “+”, “,”, “;”, “and”, “plus”, or by a second product or a second rate
a bare number beside a product is in the unit of its card; a bare per cent is of the spray, by volume
a share stands before its area: 20 % of …, half of …, a third of …
"""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.label.product import Kind
from core.label.rate import Basis, LabelRate, RateUnit
from core.reckon.asked import DoseAsked, GroundAsked, MixedAsked, SpanAsked, SprayAsked
from core.reckon.names import What, vocabulary
from core.reckon.pieces import Amount, Is, Line, Piece
from core.units import AREA, UNITS, VOLUME, Quantity

MOST_GROUNDS = 20
"""Grounds in one line (ours)."""
KIND_WORDS = {
    "dye": Kind.COLOURANT,
    "colourant": Kind.COLOURANT,
    "colorant": Kind.COLOURANT,
    "marker": Kind.COLOURANT,
    "wetter": Kind.ADJUVANT,
    "surfactant": Kind.ADJUVANT,
    "sticker": Kind.ADJUVANT,
    "adjuvant": Kind.ADJUVANT,
    "fertiliser": Kind.FERTILISER,
    "fertilizer": Kind.FERTILISER,
    "feed": Kind.FERTILISER,
    "iron": Kind.IRON,
    "regulator": Kind.GROWTH_REGULATOR,
    "pgr": Kind.GROWTH_REGULATOR,
    "fungicide": Kind.FUNGICIDE,
    "herbicide": Kind.HERBICIDE,
    "insecticide": Kind.INSECTICIDE,
}
"""What people call a product by what it is."""
PACKAGES = vocabulary("bag bags bottle bottles jug jugs pack packs package packages sack sacks can cans box boxes tub tubs")
"""What people call what a product is sold in."""
_ENDS = {"low", "high"}
_MIDDLE = {"middle", "mid", "medium"}
WORDS = {
    *_ENDS,
    *_MIDDLE,
    "rate",
    "rates",
    "product",
    "per",
    "tank",
    "tankful",
    "full",
    "spot",
    "spots",
    "label",
    "each",
    *PACKAGES,
    *KIND_WORDS,
}
"""The words that a dose may hold besides its names and numbers."""


@dataclass
class Part:
    """One component of a line as far as it is read."""

    product: Piece | None = None
    rate: Piece | None = None
    word: Piece | None = None
    """What it is called by in place of a name."""

    @property
    def named(self) -> bool:
        return self.product is not None or self.word is not None


def doses_of(line: Line) -> list[Part]:
    """The components of a line, in its order."""
    found, part = [], Part()

    def close() -> None:
        nonlocal part
        if part.named or part.rate:
            found.append(part)
        part = Part()

    for i, p in enumerate(line.pieces):
        if _is_product(line, i):
            if part.product:
                close()
            part.product = p
        elif _is_kind(line, i):
            if part.named:
                close()
            part.word = p
        elif _is_rate(line, i):
            if part.rate:
                close()
            part.rate = p
        elif part.named and (p.what is Is.BREAK or (p.what is Is.WORD and p.read == "and") or (p.what is Is.NAME and part.rate)):
            close()
    close()
    return _joined(found)


def _joined(found: list[Part]) -> list[Part]:
    """A rate that stands apart from the only product without one belongs to it."""
    bare = [p for p in found if p.named and not p.rate]
    loose = [p for p in found if p.rate and not p.named]
    if len(bare) == len(loose) == 1:
        bare[0].rate = loose[0].rate
        found.remove(loose[0])
    return found


def _is_product(line: Line, i: int) -> bool:
    return line.pieces[i] in line.called(What.PRODUCT)


def _is_kind(line: Line, i: int) -> bool:
    """Whether a word stands for a product: no product is named in its own part of the line."""
    p = line.pieces[i]
    if p.what is not Is.WORD or str(p.read).lower() not in KIND_WORDS:
        return False
    begin, end = i, i
    while begin > 0 and line.pieces[begin - 1].what is not Is.BREAK:
        begin -= 1
    while end + 1 < len(line.pieces) and line.pieces[end + 1].what is not Is.BREAK:
        end += 1
    return not any(_is_product(line, j) for j in range(begin, end + 1))


def _is_rate(line: Line, i: int) -> bool:
    p = line.pieces[i]
    if p.what is Is.AMOUNT:
        assert isinstance(p.read, Amount)
        return p.read.quantity.unit.dimension != AREA and not _of_spray(line, p)
    return p.what in (Is.RATE, Is.NUMBER, Is.UNCLEAR) or (p.what is Is.SHARE and _area_after(line, i) is None)


def _of_spray(line: Line, piece: Piece) -> bool:
    """Whether an amount is of finished spray: a volume beside a rate per volume, or of a mix for spots."""
    assert isinstance(piece.read, Amount)
    if piece.read.quantity.unit.dimension != VOLUME:
        return False
    return any(not r.unit.per_area for r in line.rates()) or line.has("spot", "spots", "mix", "make") or _of_machine(line)


def _of_machine(line: Line) -> bool:
    """Whether a volume can be of a machine's spray: it stands beside a rate per area, no ground is named, and a machine is."""
    rate = any(r.unit.per_area for r in line.rates()) or bool(line.numbers())
    return rate and bool(line.called(What.MACHINE)) and not line.called(What.AREA)


def _area_after(line: Line, i: int) -> Piece | None:
    """The area that a share is of: the next name, past “of” and “the”; a bare per cent after a product is of the spray."""
    here, after = line.pieces[i], line.pieces[i + 1 : i + 2]
    of = bool(after) and after[0].what is Is.WORD and str(after[0].read).lower() == "of"
    if not of and i and _is_product(line, i - 1) and "%" in line.masked.text[here.start : here.end]:
        return None
    for p in line.pieces[i + 1 :]:
        if p.what is Is.WORD and str(p.read).lower() in ("of", "the"):
            continue
        return p if p in line.called(What.AREA) or p.is_size else None
    return None


def grounds_of(line: Line) -> tuple[GroundAsked, ...]:
    """The grounds of a line, each with its share.

    Raises:
        InputError: a share that is none, or one of nothing.
    """
    found: list[GroundAsked] = []
    shares = {id(area): float(p.read) for i, p in enumerate(line.pieces) if p.what is Is.SHARE and (area := _area_after(line, i))}  # type: ignore[arg-type]
    for p in line.pieces:
        share = shares.get(id(p), 1.0)
        if not 0 < share <= 1:
            raise InputError(
                "line", line.typed, f"{share * 100:g} % is more than the whole of it.", "Give a share between 0 and 100 %."
            )
        if p in line.called(What.AREA):
            found.append(GroundAsked(line.name(p, What.AREA), share))
        elif p.is_size:
            assert isinstance(p.read, Amount)
            found.append(GroundAsked(p.read.quantity, share))
    if len(found) > MOST_GROUNDS:
        raise NotUnderstood("line", line.typed, f"{len(found)} grounds are too many for one line.", f"Name up to {MOST_GROUNDS}.")
    return tuple(found)


def passes_of(line: Line) -> int | None:
    """The passes that a line asks for."""
    return next((p.read for p in line.of(Is.PASSES) if isinstance(p.read, int)), None)


# --- the dose ---------------------------------------------------------------------------------------------------


def dose(line: Line) -> DoseAsked | SpanAsked | SprayAsked:
    """The dose that a line asks.

    Raises:
        Ambiguous: an amount of which it is not said per what, a nutrient without its product, a word for several products.
        NotUnderstood: no rate and no product, no ground, a word that is not known.
        InputError: a product twice, a bare number of a product whose card has no rate.
    """
    parts = doses_of(line)
    if not parts:
        if any(p.what in (Is.NUMBER, Is.RATE, Is.AMOUNT, Is.NAME) for p in line.pieces):
            line.only(WORDS)
        raise NotUnderstood(
            "line", line.typed, "The line asks nothing that can be reckoned.", "Type a rate and an area, or a conversion."
        )
    spray = _spray(line)
    by_area = spray is not None and line.machine() is not None and any(_per_area(line, p) for p in parts)
    if spray and not by_area:
        return _in_spray(line, parts, spray)
    line.only({*WORDS, "mix", "make"} if by_area else WORDS)
    mixed = [_component(line, p, len(parts) > 1) for p in parts]
    grounds = grounds_of(line)
    per_tank = line.has("tank", "tankful") or by_area
    if not grounds and not (per_tank and line.machine()):
        said = "The line says no machine whose tank is meant." if per_tank else "The line does not say on what ground."
        raise NotUnderstood(
            "line",
            line.typed,
            said,
            "Go on with “with” and a machine." if per_tank else "Go on with “on” and an area, or “in” and a unit.",
        )
    names = [m.product for m in mixed if m.product]
    if len(set(names)) < len(names):
        twice = next(n for n in names if names.count(n) > 1)
        raise InputError("product", twice, f"{twice} is in the mix twice.", "Give it once, with the whole of its rate.")
    first, *others = mixed
    if not others and (spanned := _spanned(line, first, grounds)):
        return spanned
    if first.rate is None and not others:
        return SpanAsked(first.product, None, grounds)
    return DoseAsked(
        rate=first.rate,
        product=first.product or None,
        grounds=() if per_tank and not grounds else grounds,
        machine=line.machine(),
        passes=passes_of(line),
        said_product=first.said_product,
        others=tuple(others),
        spray=spray if by_area else None,
        packages=line.has(*PACKAGES),
    )


def _spanned(line: Line, first: MixedAsked, grounds: tuple[GroundAsked, ...]) -> SpanAsked | None:
    """A range, or the label's low, middle and high."""
    ends, middle = line.has(*_ENDS), line.has(*_MIDDLE)
    if first.rate is None or ends or middle:
        return SpanAsked(first.product or None, first.rate, grounds, middle)
    if first.rate.low != first.rate.high:
        return SpanAsked(first.product or None, first.rate, grounds)
    return None


def _component(line: Line, part: Part, mixed: bool) -> MixedAsked:
    product = _product(line, part)
    said = line.says_product(part.rate)
    rate = _rate(line, part, product)
    if mixed and not product:
        raise NotUnderstood("line", line.typed, "The line does not say of what.", "Name every product of the mix.")
    if rate and not product and rate.unit.basis is not Basis.PRODUCT:
        raise _from_which(line, part, rate.unit.basis)
    good = line.names.good(product)
    if rate is None and mixed and good.unit is not None and Kind.COLOURANT not in good.kinds:
        raise NotUnderstood(
            "line", line.typed, f"The line does not say how much of {product}.", "Give each product of a mix its rate."
        )
    return MixedAsked(rate, product, said)


def _product(line: Line, part: Part) -> str:
    if part.product:
        return line.name(part.product, What.PRODUCT)
    if part.word is None:
        return ""
    said = str(part.word.read)
    kind = KIND_WORDS[said.lower()]
    fitting = [n for n in line.names.products if kind in line.names.good(n).kinds]
    if len(fitting) == 1 and kind is Kind.COLOURANT:
        return fitting[0]
    choices = [Choice(line.with_(part.word, n, instead=True), "product") for n in fitting[:5]]
    if fitting:
        problem = f"“{said}” names no product: is {' or '.join(fitting[:4])} meant?"
        raise Ambiguous("product", said, problem, "Say which.", choices)
    raise NotUnderstood("product", said, f"“{said}” names no product of this account.", "Name the product.")


def _rate(line: Line, part: Part, product: str) -> LabelRate | None:
    piece = part.rate
    if piece is None:
        return None
    if isinstance(piece.read, LabelRate):
        return piece.read
    if piece.what is Is.SHARE:
        assert isinstance(piece.read, float)
        return LabelRate(piece.read * 100, piece.read * 100, RateUnit(UNITS["pct_vv"], None))
    if isinstance(piece.read, InputError):
        raise piece.read
    if isinstance(piece.read, Amount):
        raise _per_what(line, piece, piece.read)
    assert isinstance(piece.read, float)
    rate = carded(line, product, piece.read)
    if rate is None:
        what = f"of {product} is not told by its card" if product else "is no rate without a unit"
        raise NotUnderstood("line", line.typed, f"{piece.read:g} {what}.", "Say it with its unit, such as fl oz/M or L/ha.")
    return rate


def carded(line: Line, product: str | None, value: float) -> LabelRate | None:
    """A bare number as a rate in the unit of a product's card; None where the card tells none.

    Args:
        line: that it stands in.
        product: by its name.
        value: the number [the unit of the card].
    """
    unit = line.names.good(product).unit if product else None
    return LabelRate(value, value, unit) if unit else None


def _per_what(line: Line, piece: Piece, amount: Amount) -> InputError:
    """An amount in place of a rate: per what is asked, or whether it is of product in all."""
    feet = ("1000 ft²", "acre") if line.names.us else ("100 m²", "ha")
    choices = [Choice(line.with_(piece, f" per {foot}"), "rate") for foot in feet]
    if amount.basis is Basis.PRODUCT and line.called(What.AREA) and line.called(What.PRODUCT):
        choices.append(Choice(f"what rate is {line.typed}", f"{amount.quantity} in all"))
    return Ambiguous("line", line.typed, f"{amount.quantity} is an amount, not yet a rate.", "Say per what.", choices)


def _from_which(line: Line, part: Part, basis: Basis) -> InputError:
    """A nutrient without the product that holds it: those that do are offered."""
    assert part.rate is not None
    holding = [n for n in line.names.products if basis in line.names.good(n).holds]
    if not holding:
        return InputError(
            "line",
            line.typed,
            f"A rate of {basis.text} needs the product that holds it.",
            "Say which: “… from the” and a product's name.",
        )
    choices = [Choice(line.with_(part.rate, f" from {n}"), f"holds {basis.text}") for n in holding[:5]]
    return Ambiguous("product", line.typed, f"{basis.text} from which product?", "Name it.", choices)


def _spray(line: Line) -> Quantity | None:
    """The finished spray that a line gives."""
    found = [p for p in line.of(Is.AMOUNT) if _of_spray(line, p)]
    return found[0].read.quantity if found and isinstance(found[0].read, Amount) and not line.called(What.AREA) else None


def _per_area(line: Line, part: Part) -> bool:
    """Whether a component's rate is per area: as it says, or by its card."""
    if part.rate is None or part.product is None:
        return False
    if isinstance(part.rate.read, LabelRate):
        return part.rate.read.unit.per_area
    unit = line.names.good(line.name(part.product, What.PRODUCT)).unit
    return part.rate.what is Is.NUMBER and unit is not None and unit.per_area


def _in_spray(line: Line, parts: Sequence[Part], spray: Quantity) -> SprayAsked:
    line.only({*WORDS, "mix"})
    if len(parts) > 1:
        raise NotUnderstood(
            "line", line.typed, "A mix for so much spray is more than the line can do.", "Ask each product alone."
        )
    product = _product(line, parts[0])
    rate = _rate(line, parts[0], product)
    if rate is not None and rate.unit.per_area:
        raise NotUnderstood("line", line.typed, "The line does not say on what ground.", "Go on with “on” and an area.")
    return SprayAsked(product or None, rate, spray)


def one_ground(line: Line) -> GroundAsked:
    """The one ground of a line. Raises NotUnderstood for none or several."""
    found = grounds_of(line)
    if len(found) != 1:
        raise NotUnderstood("line", line.typed, "That asks about one ground.", "Name one of your areas.")
    return found[0]


def mixed_alike(line: Line) -> tuple[MixedAsked, ...]:
    """The products of a line, each with its own rate, for asking them apart."""
    return tuple(_component(line, p, True) for p in doses_of(line))
