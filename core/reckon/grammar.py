"""The grammar of the reckon line.

    line     = kept | earlier | dose | reach | backwards | brings | compare | measure | cup | convert
    dose     = one {"+" one} ("on" | "over") grounds ["with" MACHINE] ["in" number "passes"]
    one      = rate [["of" | "from"] ["the"] PRODUCT]
    reach    = "how far does" amount ["of" PRODUCT] "go" "at" rate
    backwards = "what rate is" amount ["less" amount] "of" PRODUCT "on" grounds
    brings   = "what does" rate "of" PRODUCT "bring"
    compare  = "compare" PRODUCT ("and" | ",") PRODUCT … "on" ground ["for" TARGET]
    measure  = "measure" amount ["of" PRODUCT]
    cup      = "cup" amount ("weighs" | "holds") amount ["at" number ("C" | "F")]
    convert  = rate ("in" | "as" | "=") [number] rate-unit | amount ("in" | "as" | "to" | "=") unit
    grounds  = ground {("and" | ",") ground}
    ground   = [share "of"] AREA | number area-unit
    share    = number "%" | "half" | "a third" | "a quarter" | fraction
    kept, earlier = a kept mix, what went down on a day, see `core.reckon.earlier`
    rate     = a label phrase, see `core.label.phrase`
    PRODUCT, AREA, MACHINE = a name of the account's, in any case; a beginning that fits one name alone will do

A question mark at the end is ignored. A number before the unit of a conversion compares: how many times it is. What
is ambiguous is asked back with its readings as whole lines.
"""

import difflib
import re
from collections.abc import Sequence
from dataclasses import replace

from core.errors import Ambiguous, Choice, InputError, NotUnderstood
from core.label.phrase import find_label_rate
from core.label.rate import LabelRate, RateUnit
from core.reckon.asked import (
    Asked,
    BackwardsAsked,
    BringsAsked,
    CompareAsked,
    ConversionAsked,
    CupAsked,
    DoseAsked,
    EarlierAsked,
    GroundAsked,
    MeasureAsked,
    MixAsked,
    MixedAsked,
    Names,
    ReachAsked,
)
from core.reckon.earlier import KeptAsked, as_on, kept_mix
from core.units import AREA, MASS, NUMBER, VOLUME, Quantity, Unit, celsius, read_number, read_quantity, read_unit_at, tidy

MOST_CHARACTERS = 200

_REACH = re.compile(
    r"how (?:far|much (?:area|ground)) (?:does|do|will|would|can)\s+(.+?)\s+(?:go|cover|treat|reach)\s+at\s+(.+)", re.I
)
_CONVERT = re.compile(r"(.+)\s(?:in|as|to|=)\s+(?:how many\s+)?(.+)", re.IGNORECASE)
_WITH = re.compile(r"\s+(?:with|using)\s+(?:the\s+)?", re.IGNORECASE)
_PASSES = re.compile(r"\s+in\s+(\d+|one|two|three|four)\s+pass(?:es)?$", re.IGNORECASE)
_PLUS = re.compile(r"\s\+\s(?=[\d.½¼¾⅓⅔⅛]|half\b|a\b)", re.IGNORECASE)
_BARE_PERCENT = re.compile(r"^([\d./ ]*\d(?:\s*(?:-|to)\s*[\d.]+)?)\s*%\s+(?!v\b|v\s*/|by\b|solution\b)", re.IGNORECASE)
_PRODUCT_ON = re.compile(
    r"(?!(?:on|over|to|of|from|in|as|with)\s)(?:the\s+)?(.+?)\s+(?:on|over)\s+(?:the\s+)?(.+)", re.IGNORECASE
)
_ON = re.compile(r"(?:on|over|to)\s+(?:the\s+)?", re.IGNORECASE)
_OF = re.compile(r"(?:of|from)\s+(?:the\s+)?", re.IGNORECASE)
_BACKWARDS = re.compile(
    r"(?:what|which) rate (?:is|was|are|does)\s+(?:the\s+)?(.+?)(?:\s+(?:less|minus|with)\s+(.+?)(?:\s+left)?)?"
    r"\s+of\s+(?:the\s+)?(.+?)\s+(?:on|over)\s+(?:the\s+)?(.+?)(?:\s+make)?",
    re.I,
)
_BRINGS = re.compile(r"what (?:does|do|would)\s+(.+)\s+bring", re.IGNORECASE)
_COMPARE = re.compile(r"compare\s+(.+?)\s+(?:on|over)\s+(?:the\s+)?(.+?)(?:\s+(?:for|against)\s+(.+))?", re.IGNORECASE)
_MEASURE = re.compile(r"measure\s+(.+?)(?:\s+of\s+(?:the\s+)?(.+))?", re.IGNORECASE)
_CUP = re.compile(
    r"(?:a\s+)?cup\s+(?:of\s+)?(.+?)\s+(?:weighs|holds|with)\s+(.+?)(?:\s+(?:of\s+)?water)?"
    r"(?:\s+at\s+(-?[\d.]+)\s*(?:°|deg(?:rees)?)?\s*([CF]))?",
    re.I,
)
_SHARE = re.compile(
    r"(?:(?P<percent>\d+(?:\.\d+)?)\s*%|(?P<fraction>\d+\s*/\s*\d+)|(?:a\s+)?(?P<word>half|third|quarter|fifth|tenth))"
    r"\s+(?:of\s+)?(?:the\s+)?(?P<area>\S.*)",
    re.I,
)
_SHARE_WORDS = {"half": 1 / 2, "third": 1 / 3, "quarter": 1 / 4, "fifth": 1 / 5, "tenth": 1 / 10}
_AND = re.compile(r"\s*(?:,|\band\b|\+)\s*(?:the\s+)?", re.IGNORECASE)
MOST_GROUNDS = 20
_PASS_WORDS = {"one": 1, "two": 2, "three": 3, "four": 4}


def read_line(text: str, names: Names) -> Asked:
    """What the line asks.

    Raises:
        NotUnderstood: what was not understood, or a name the account does not have, with names that are close.
        Ambiguous: a word with two readings, each given as a whole line to pick.
        InputError: numbers that measure nothing.
    """
    clean = tidy(text).rstrip(" ?.!")
    if not clean:
        raise NotUnderstood("line", text, "The line is empty.", "Type a rate and an area, or a conversion.")
    if len(clean) > MOST_CHARACTERS:
        raise NotUnderstood("line", clean[:40] + "…", "That is too long for one line.", "One rate, one area, one machine.")
    try:
        return _read(clean, text, names)
    except InputError as problem:
        raise _with_whole_lines(problem, clean) from None


def _with_whole_lines(problem: InputError, clean: str) -> InputError:
    """The same fault, with names to pick from turned into whole lines."""
    if problem.field not in ("area", "product", "machine") or not problem.choices:
        return problem
    said = re.escape(str(problem.value))
    lines = [Choice(re.sub(said, c.text, clean, count=1, flags=re.IGNORECASE), c.meaning) for c in problem.choices]
    return type(problem)(problem.field, problem.value, problem.problem, problem.remedy, lines)


def _read(clean: str, text: str, names: Names) -> Asked:
    if kept := kept_mix(clean, names.mixes):
        return _kept(kept, names)
    if earlier := as_on(clean):
        return EarlierAsked(earlier.day, find_name(earlier.area, names.areas, "area") if earlier.area else None)
    if match := _REACH.fullmatch(clean):
        return _reach(match[1], match[2], names)
    if match := _BACKWARDS.fullmatch(clean):
        had = read_quantity(match[1], "line")
        left = read_quantity(match[2], "line", had.unit.dimension) if match[2] else None
        return BackwardsAsked(had, left, find_name(match[3], names.products, "product"), _grounds(match[4], names))
    if match := _BRINGS.fullmatch(clean):
        return _brings(match[1], names)
    if match := _COMPARE.fullmatch(clean):
        products = tuple(find_name(p, names.products, "product") for p in _AND.split(match[1]) if p)
        if len(products) < 2:
            raise NotUnderstood("line", text, "There is one product to compare.", "Name two or more: “compare A and B on …”.")
        return CompareAsked(products, _ground(match[2], names), (match[3] or "").strip())
    if match := _MEASURE.fullmatch(clean):
        product = find_name(match[2], names.products, "product") if match[2] else None
        return MeasureAsked(read_quantity(match[1], "line", VOLUME, MASS), product)
    if match := _CUP.fullmatch(clean):
        value = float(match[3]) if match[3] else 20.0
        warm = celsius("line", value, "degF" if (match[4] or "C").upper() == "F" else "degC")
        return CupAsked(read_quantity(match[1], "line", VOLUME), read_quantity(match[2], "line", MASS), warm)
    if clean.lower().startswith("how "):
        raise NotUnderstood("line", text, "That question was not understood.", "Ask “how far does 30 lb go at 4 lb/acre”.")
    return _dose_or_conversion(clean, names)


def _kept(asked: KeptAsked, names: Names) -> MixAsked:
    rest, passes, machine = _done_with(asked.rest, names)
    match = _ON.match(rest)
    if rest and not match:
        raise NotUnderstood("line", rest, f"“{rest}” was not understood.", "Go on with “on” and an area.")
    return MixAsked(asked.mix, _grounds(rest[match.end() :].strip(), names) if match else (), machine, passes)


def _reach(amount: str, rate: str, names: Names) -> ReachAsked:
    product = None
    if match := re.match(r"(.+?)\s+of\s+(?:the\s+)?(.+)", amount, re.IGNORECASE):
        amount, product = match[1], find_name(match[2], names.products, "product")
    found, rest = find_label_rate(rate, "rate")
    if rest:
        raise NotUnderstood("line", rest, f"“{rest}” was not understood.", "End the line with the rate.")
    dimension = found.unit.amount.dimension
    return ReachAsked(read_quantity(amount, "amount", dimension), product, found)


def _dose_or_conversion(clean: str, names: Names) -> Asked:
    *before, last = _PLUS.split(clean)
    if before:
        return _mix([_mixed(one, names) for one in before], _of_spray(last), names)
    try:
        rate, rest = find_label_rate(clean, "line")
    except InputError as problem:
        if (match := _CONVERT.fullmatch(clean)) and (amount := _amount(match[1], match[2])):
            return ConversionAsked(amount, _unit(match[2], amount.unit.dimension))
        raise problem
    if match := re.match(r"(?:in|as|=)\s+(?:how many\s+)?(?!.*\bpass)", rest, re.IGNORECASE):
        return _rate_conversion(rest[match.end() :], rate)
    return _dose(rate, rest, names, clean)


def _mix(before: Sequence[MixedAsked], last: str, names: Names) -> DoseAsked:
    """Several products in one tank; what the last of them goes on with is said of all."""
    found = _dose(*find_label_rate(last, "line"), names, last)
    if found.product is None:
        raise NotUnderstood("line", last, "The line does not say of what.", "Name every product of the mix.")
    first, *others = before
    mine = MixedAsked(found.rate, found.product, found.said_product)
    return replace(found, rate=first.rate, product=first.product, said_product=first.said_product, others=(*others, mine))


def _mixed(text: str, names: Names) -> MixedAsked:
    """0.25% Coot · 0.4 fl oz/M of Heronsedge"""
    rate, rest = find_label_rate(_of_spray(text), "line")
    said = _OF.sub("", rest, count=1) if _OF.match(rest) else rest
    if not said:
        raise NotUnderstood("line", text, "The line does not say of what.", "Name every product of the mix.")
    return MixedAsked(rate, find_name(said, names.products, "product"), _counted(text))


def _of_spray(text: str) -> str:
    """In a mix a bare per cent is of the spray, by volume."""
    return _BARE_PERCENT.sub(r"\1 % v/v ", text)


def _counted(text: str) -> bool:
    return bool(re.search(r"\bproduct\b", text, re.IGNORECASE))


def _dose(rate: LabelRate, rest: str, names: Names, clean: str) -> DoseAsked:
    product = None
    rest, passes, machine = _done_with(rest, names)
    if match := _OF.match(rest):
        rest = rest[match.end() :]
        split = re.split(r"\s+(?:on|over)\s+(?:the\s+)?", rest, maxsplit=1, flags=re.IGNORECASE)
        product = find_name(split[0], names.products, "product")
        rest = f"on {split[1]}" if len(split) == 2 else ""
    elif match := _PRODUCT_ON.match(rest):
        product, rest = find_name(match[1], names.products, "product"), f"on {match[2]}"
    match = _ON.match(rest)
    if not match:
        said = f"“{rest}” was not understood." if rest else "The line does not say on what ground."
        raise NotUnderstood("line", rest, said, "Go on with “on” and an area, or “in” and a unit.")
    ground = rest[match.end() :].strip()
    return DoseAsked(rate, product, _grounds(ground, names), machine, passes, _counted(clean))


def _done_with(rest: str, names: Names) -> tuple[str, int | None, str | None]:
    """What is left of a line besides its passes and its machine at the end, and those."""
    passes = machine = None
    if match := _PASSES.search(rest):
        word = match[1].lower()
        passes, rest = _PASS_WORDS.get(word) or int(word), rest[: match.start()]
    parts = _WITH.split(f" {rest}", maxsplit=1)
    if len(parts) == 2:
        rest, machine = parts[0].strip(), find_name(parts[1], names.machines, "machine")
    return rest, passes, machine


def _brings(text: str, names: Names) -> BringsAsked:
    rate, rest = find_label_rate(text, "line")
    match = _OF.match(rest)
    if not match:
        raise NotUnderstood("line", rest, "The line does not say of what.", "Go on with “of” and a product.")
    return BringsAsked(rate, find_name(rest[match.end() :], names.products, "product"))


def _grounds(text: str, names: Names) -> tuple[GroundAsked, ...]:
    """One ground or several; a name that holds an “and” of its own is found first."""
    try:
        return (_ground(text, names),)
    except InputError:
        parts = [p for p in _AND.split(text) if p.strip()]
        if not 2 <= len(parts) <= MOST_GROUNDS:
            raise
    return tuple(_ground(p, names) for p in parts)


def _ground(text: str, names: Names) -> GroundAsked:
    if match := _SHARE.fullmatch(text.strip()):
        whole = match["area"]
        if match["percent"]:
            share = float(match["percent"]) / 100
        elif match["fraction"]:
            share = read_number(match["fraction"], "line")
        else:
            share = _SHARE_WORDS[match["word"].lower()]
        if not 0 < share <= 1:
            raise InputError("line", text, f"{text} is not a part of it.", "Give a share between 0 and 100 %.")
        return GroundAsked(_one_ground(whole, names), share)
    return GroundAsked(_one_ground(text, names))


def _one_ground(text: str, names: Names) -> str | Quantity:
    if re.match(r"[\d.½¼¾⅓⅔⅛]", text):
        try:
            return read_quantity(text, "area", AREA)
        except InputError:
            if not any(name.lower().startswith(text.lower()) for name in names.areas):
                raise
    return find_name(text, names.areas, "area")


def _amount(text: str, target: str) -> Quantity | None:
    """The amount before a conversion; its `oz` is settled by what it is turned into."""
    try:
        return read_quantity(text, "line")
    except Ambiguous:
        return read_quantity(text, "line", _unit(target).dimension)
    except NotUnderstood:
        return None


def _unit(text: str, *dimensions: str) -> Unit:
    clean = tidy(text)
    found, end = read_unit_at(clean, 0, "line", *dimensions)
    if clean[end:].strip():
        raise NotUnderstood("line", clean, f"“{clean[end:].strip()}” was not understood.", "End with one unit.")
    return found


def _rate_conversion(text: str, rate: LabelRate) -> ConversionAsked:
    """What to turn a rate into. What it must measure is known, so that `oz` needs no question here."""
    clean = tidy(text)
    number = re.match(NUMBER + r"\s*(?=[A-Za-z])", clean)
    against, start = (read_number(number[0].strip(), "line"), number.end()) if number else (None, 0)
    amount, end = read_unit_at(clean, start, "line", rate.unit.amount.dimension)
    match = re.match(r"\s*(?:/|per\b)\s*", clean[end:], re.IGNORECASE)
    if not match or rate.unit.per is None:
        raise NotUnderstood("line", text, f"“{clean}” is no rate.", "Say per what, like “fl oz per M” or “kg/ha”.")
    foot = re.sub(r"^(1,?000|100)\s+(?=[a-z])", lambda m: f"{m[1].replace(',', '')} ", clean[end + match.end() :])
    foot = re.sub(r"^1000 (?:sq ft|square feet|ft2|sqft)$", "1000 ft2", foot, flags=re.IGNORECASE)
    foot = re.sub(r"^100 (?:sq m|square metres|square meters|m2)$", "100 m2", foot, flags=re.IGNORECASE)
    per, end = read_unit_at(foot, 0, "line", rate.unit.per.dimension)
    if foot[end:].strip():
        raise NotUnderstood("line", text, f"“{foot[end:].strip()}” was not understood.", "End with the unit.")
    return ConversionAsked(rate, RateUnit(amount, per, rate.basis), against)


def find_name(text: str, names: Sequence[str], what: str) -> str:
    """The one name that `text` is, or begins.

    Raises:
        Ambiguous: it begins several.
        NotUnderstood: it begins none; the closest names are offered.
    """
    wanted = " ".join(text.lower().split())
    by_lower = {name.lower(): name for name in names}
    if wanted in by_lower:
        return by_lower[wanted]
    fitting = [name for name in names if name.lower().startswith(wanted)] if wanted else []
    fitting = fitting or [name for name in names if wanted and all(w in name.lower().split() for w in wanted.split())]
    if len(fitting) == 1:
        return fitting[0]
    if fitting:
        raise Ambiguous(
            what, text, f"“{text}” could be {' or '.join(fitting[:4])}.", "Say which.", [Choice(n, what) for n in fitting]
        )
    close = difflib.get_close_matches(wanted, list(by_lower), n=3, cutoff=0.5)
    raise NotUnderstood(
        what,
        text,
        f"No {what} here is called “{text}”.",
        "Pick one of the names, or add it first." if names else f"This account has no {what} yet.",
        [Choice(by_lower[name], what) for name in close],
    )
