"""What a label says that its product is: name, type, formulation, group, registration."""

import re
from collections.abc import Iterator, Sequence

from core.errors import InputError
from core.label.groups import CLASS, FRAC, HRAC, IRAC, Group, group_of, read_codes
from core.label.pasted.pieces import Found, Statement
from core.label.product import FORMULATIONS, Kind
from core.label.rate import NUTRIENTS, Basis


def _any_case(pattern: str) -> re.Pattern[str]:
    return re.compile(pattern, re.IGNORECASE)


_KINDS = tuple(
    (_any_case(pattern), kind)
    for pattern, kind in (
        (r"\bfungicides?\b", Kind.FUNGICIDE),
        (r"\b(?:plant )?growth regulators?\b|\bPGR\b", Kind.GROWTH_REGULATOR),
        (r"\b(?:herbicides?|weed ?killers?|crabgrass preventer|weed (?:and|&) feed)\b", Kind.HERBICIDE),
        (r"\binsecticides?\b|\bgrub (?:control|killer)\b", Kind.INSECTICIDE),
        (r"\bbiostimulants?\b|\bsea ?weed extract\b|\bkelp extract\b", Kind.BIOSTIMULANT),
        (r"\bwater conditioners?\b|\bconditioning agent\b|\bacidifier\b", Kind.CONDITIONER),
        (r"\b(?:spray )?(?:pattern|marker) (?:indicator|dye)\b|\bcolou?rants?\b|\bmarker dye\b", Kind.COLOURANT),
        (r"\bwetting agents?\b|\bsurfactants?\b|\badjuvants?\b|\bspreader[ -]sticker\b", Kind.ADJUVANT),
        (r"\b(?:soil amendments?|gypsum|lime(?:stone)?|calcium sul(?:f|ph)ate)\b", Kind.AMENDMENT),
        (r"\b(?:fertili[sz]ers?|guaranteed analysis|plant food|weed (?:and|&) feed)\b", Kind.FERTILISER),
    )
)
_FOR_USE = _any_case(r"\b(?:with|mix(?:ed|ing|es|tures?)?|tank|other|do not|compatib\w*|add(?:ed|ing)?|if|when|before|after)\b")
"""Words of sentences that speak of other products too."""
_BY_SCHEME = {FRAC: Kind.FUNGICIDE, HRAC: Kind.HERBICIDE, IRAC: Kind.INSECTICIDE, CLASS: Kind.GROWTH_REGULATOR}

_MADE = tuple(
    (_any_case(pattern), code)
    for pattern, code in (
        (r"\bwettable powder\b", "WP"),
        (r"\b(?:water[- ])?dispersible granul(?:e|es|ar)\b|\bdry flowable\b", "WG"),
        (r"\bsuspension concentrate\b|\b(?:liquid )?flowable\b", "SC"),
        (r"\bsuspo-?emulsion\b", "SE"),
        (r"\bemulsifiable concentrate\b", "EC"),
        (r"\bmicro-?emulsion\b|\bmicroemulsifiable\b", "ME"),
        (r"\bemulsion in water\b|\boil[- ]in[- ]water emulsion\b", "EW"),
        (r"\bsoluble powder\b", "SP"),
        (r"\b(?:water[- ])?soluble granul(?:e|es|ar)\b|\bsoluble crystals?\b", "SG"),
        (r"\bsoluble (?:liquid|concentrate)\b|\bliquid (?:fertili[sz]er|iron|concentrate|plant food)\b", "SL"),
        (r"\bgranul(?:es?|ar)\b|\bbroadcast spreader\b|\brotary spreader\b|\bdrop spreader\b|\bprill(?:ed|s)?\b", "GR"),
    )
)
_IN_NAME = {"WDG": "WG", "DF": "WG", "WSP": "WP", "MEC": "ME", "G": "GR"} | {code: code for code in FORMULATIONS}
"""The letters that stand behind names, and the code they are."""

_GROUP = _any_case(
    r"\bgroups?\b[\s|:]*(?P<codes>[A-Z]?\d{1,2}[A-Z]?(?:\s*(?:\+|,|&|and|/)\s*[A-Z]?\d{1,2}[A-Z]?)*)[\s|]*"
    r"(?P<what>fungicide|herbicide|insecticide)s?\b"
)
_SCHEME = _any_case(
    r"\b(?P<scheme>FRAC|HRAC|IRAC)\b\s*(?:groups?|codes?|MOA|mode of action)?\s*:?\s*"
    r"(?P<codes>[A-Z]?\d{1,2}[A-Z]?(?:\s*(?:\+|,|&|and|/)\s*[A-Z]?\d{1,2}[A-Z]?)*)\b"
)
_CLASS = _any_case(
    r"\bclass\s+(?P<codes>[A-F])\b(?=.*\b(?:growth regulator|PGR)\b)|\b(?:growth regulator|PGR)\b.*\bclass\s+(?P<other>[A-F])\b"
)
_SCHEME_OF = {"fungicide": FRAC, "herbicide": HRAC, "insecticide": IRAC}
_REGISTRATION = _any_case(
    r"\b(?:EPA\s+)?Reg(?:istration)?\.?\s*(?:No|Number|#)\s*[:.]?\s*(?P<number>[A-Z]{0,4}\s?\d[\dA-Z-]{2,20})"
)
_NO_NAME = _any_case(
    r"\b(?:active ingredients?|guaranteed analysis|net (?:contents|weight|wt)|keep out of reach|caution|warning|danger|group|EPA"
    r"|reg|directions?|apply|do not|for use|label|total)\b|:|^\d"
)


def name(said: Sequence[Statement]) -> Iterator[Found]:
    """The name: the first short line that says nothing else, or one with a grade in it."""
    for i, s in enumerate(said[:6]):
        text = re.sub(r"[®™©]|\((?:R|TM)\)", "", s.text).strip(" .,")
        if 2 < len(text) <= 60 and re.search(r"[A-Za-z]{3}", text) and not _NO_NAME.search(text) and (i == 0 or "%" not in text):
            yield s.found("name", " ".join(text.split()))
            return


def kinds(said: Sequence[Statement], groups: Sequence[tuple[Statement, Group]], contents: Sequence[Found]) -> Iterator[Found]:
    """What it is, and what it is also: by what the label calls it, else by the group of its active, else by what it holds."""
    named: dict[Kind, Statement] = {}
    for s in said:
        if _FOR_USE.search(s.text):
            continue
        for pattern, kind in _KINDS:
            if kind not in named and pattern.search(s.text):
                named[kind] = s
    for s, group in groups:
        named.setdefault(_BY_SCHEME[group.scheme], s)
    fed = [c for c in contents if _basis(c) in NUTRIENTS]
    if fed and not named:
        named[Kind.FERTILISER] = Statement(fed[0].source, fed[0].line)
    binding = [k for k in Kind if k in named and k.label_binds]
    if binding and Kind.FERTILISER in named:  # weed and feed
        every = [Kind.FERTILISER, *binding]
    else:
        every = binding or sorted(named, key=lambda k: named[k].line)[:1]
    for i, kind in enumerate(every):
        micro = kind is Kind.FERTILISER and fed and not any(_basis(c) in (Basis.N, Basis.P2O5, Basis.K2O) for c in fed)
        yield named[kind].found("also" if i else "kind", (Kind.IRON if micro else kind).value)


def _basis(content: Found) -> Basis:
    return Basis(content.row["basis"])


def formulation(said: Sequence[Statement], found_name: str) -> Iterator[Found]:
    """How it is made up: by the letters behind its name, else by the words of the label."""
    letters = re.findall(r"\b[A-Z]{1,3}\b", found_name)
    code = next((_IN_NAME[x] for x in reversed(letters) if x in _IN_NAME), "")
    if code:
        yield Found("formulation", code, found_name, next((s.line for s in said if found_name[:12] in s.text), 1))
        return
    for pattern, made in _MADE:
        s = next((s for s in said if pattern.search(s.text) and not re.search(r"\btank\b|\bmix", s.text, re.IGNORECASE)), None)
        if s:
            yield s.found("formulation", made)
            return


def codes(said: Sequence[Statement], contents: Sequence[Found]) -> Iterator[Found]:
    """The group codes as a card writes them: as printed, else by what actives are in it."""
    for s in said:
        text = s.tidy
        match = _GROUP.search(text) or _SCHEME.search(text)
        scheme = ""
        if match:
            scheme = _SCHEME_OF[match["what"].lower()] if "what" in match.groupdict() else match["scheme"].upper()
        elif match := _CLASS.search(text):
            scheme = CLASS
        if not match:
            continue
        printed = match.groupdict().get("codes") or match.groupdict().get("other") or ""
        try:
            found = read_codes(printed.upper().replace("AND", "+"), "group_code", scheme)
        except InputError:
            continue
        yield s.found("group_code", " + ".join(found))
        return
    known = dict.fromkeys(g.text for c in contents if (g := group_of(c.row["name"])))
    if known:
        first = next(c for c in contents if group_of(c.row["name"]))
        yield Found("group_code", " + ".join(known), first.source, first.line)


def registration(said: Sequence[Statement]) -> Iterator[Found]:
    """The registration number as printed."""
    for s in said:
        if match := _REGISTRATION.search(s.text):
            yield s.found("registration", match["number"].strip())
            return
