"""A mix sheet as a document: what a round was begun with, kept so that a later change to the card does not rewrite it.

A document is JSON with a `version`. It is read into a `Sheet` whatever its version, whatever it lacks: what is not there is
left empty, what cannot be read is told in `problem`, and neither takes anything else with it. Quantities are `{value, unit}`;
of documents of version 1, which held them as they were shown, `{text}` where the text cannot be read back.
"""

from collections.abc import Callable, Mapping, Sequence, Set
from dataclasses import asdict, dataclass, fields
from typing import Any, TypeVar

from core.errors import InputError
from core.readable import joined
from core.units import UNITS, Quantity, read_quantity

VERSION = 3
T = TypeVar("T")
Ticks = Set[tuple[int, str]]
"""What has been ticked: load and act; load 0 is what is worn."""


@dataclass(frozen=True)
class Amount:
    """A quantity of a sheet: a value in a unit (its key), or text alone where that is all there is."""

    value: float | None = None
    unit: str = ""
    text: str = ""

    @property
    def quantity(self) -> Quantity | None:
        return None if self.value is None or self.unit not in UNITS else Quantity(self.value, UNITS[self.unit])

    def __str__(self) -> str:
        found = self.quantity
        return self.text if found is None else str(found)


NOTHING = Amount()


@dataclass(frozen=True)
class SheetText:
    """Something that the sheet says, by its key; of how the machine is set up the key is its name; of what is worn, `when`.

    Of a finding, its `act` and the part it is of; of a label's rule, in `part`, the product whose it is.
    """

    key: str = ""
    text: str = ""
    when: str = ""
    act: str = ""
    part: str = ""


@dataclass(frozen=True)
class SheetAct:
    """One act of filling; `level` is the share of the machine's capacity that it holds after it."""

    key: str = ""
    text: str = ""
    pours: str = ""
    level: float = 0.0


@dataclass(frozen=True)
class SheetMeasure:
    """How a load's product is measured: a vessel as it is drawn, its fills and its mark, and the two errors as text."""

    vessel: Mapping[str, Any] | None = None
    fills: int = 0
    mark: float = 0.0
    mark_text: str = ""
    instruction: str = ""
    exact: str = ""
    rounding: str = ""
    reading: str = ""
    coarse: bool = False
    note: str = ""


@dataclass(frozen=True)
class SheetComponent:
    """One product of the mix: what of it goes down in all, nothing to taste, what it is for, and what it costs."""

    product: str = ""
    role: str = ""
    target: str = ""
    amount: Amount = NOTHING
    cost: str = ""


@dataclass(frozen=True)
class SheetDose:
    """The rate of one component on one ground and the label's range, in words; neither to taste."""

    rate: str = ""
    label: str = ""


@dataclass(frozen=True)
class SheetPart:
    """One ground of the sheet: what of it is treated, the rate of each component, a spreader's setting."""

    name: str = ""
    treated: Amount = NOTHING
    doses: tuple[SheetDose, ...] = ()
    setting: str = ""


@dataclass(frozen=True)
class SheetPour:
    """What of one component goes into a load, and how it is measured; nothing to taste."""

    product: str = ""
    amount: Amount = NOTHING
    measure: SheetMeasure = SheetMeasure()


@dataclass(frozen=True)
class SheetLoad:
    """One load: its number and its pass, what goes in, what it holds and covers, and its acts in their order.

    `parts` are the places of the grounds that it is for; none where a sheet of before does not say.
    """

    number: int = 0
    name: str = ""
    pass_number: int = 0
    odd: bool = False
    where: str = ""
    parts: tuple[int, ...] = ()
    pours: tuple[SheetPour, ...] = ()
    volume: Amount = NOTHING
    water: Amount = NOTHING
    covers: str = ""
    dial: str = ""
    spray: str = ""
    time: str = ""
    share: float = 0.0
    acts: tuple[SheetAct, ...] = ()


@dataclass(frozen=True)
class Sheet:
    """A mix sheet. `problem` says what of it could not be read; empty where all of it could."""

    headline: str = ""
    mix: tuple[SheetComponent, ...] = ()
    where: str = ""
    machine: str = ""
    passes: int = 1
    capacity: str = ""
    spray: Amount = NOTHING
    cost: str = ""
    vessel: str = ""
    setup: tuple[SheetText, ...] = ()
    parts: tuple[SheetPart, ...] = ()
    loads: tuple[SheetLoad, ...] = ()
    wear: tuple[SheetText, ...] = ()
    cautions: tuple[SheetText, ...] = ()
    rules: tuple[SheetText, ...] = ()
    findings: tuple[SheetText, ...] = ()
    label_first: str = ""
    problem: str = ""

    @property
    def product(self) -> str:
        """What is mixed, by name."""
        return joined([c.product for c in self.mix if c.product])

    def document(self) -> dict[str, Any]:
        """The sheet as it is stored."""
        found = asdict(self)
        found.pop("problem")
        return {"version": VERSION, **found}

    # --- what may be ticked, and what comes next

    def holds(self, load: int, act: str) -> bool:
        """Whether the sheet has an act; load 0 is what is worn."""
        if load == 0:
            return any(w.key == act for w in self.wear)
        return any(x.number == load and any(a.key == act for a in x.acts) for x in self.loads)

    def worn(self, ticks: Ticks) -> bool:
        """Whether everything worn for mixing is ticked."""
        return all((0, w.key) in ticks for w in self.wear if w.when == "mixing")

    def loads_done(self, ticks: Ticks) -> int:
        """How many loads have every act ticked."""
        return sum(all((x.number, a.key) in ticks for a in x.acts) for x in self.loads)

    def next_act(self, ticks: Ticks) -> tuple[SheetLoad, SheetAct] | None:
        """The first act that is not ticked; None when all loads are out."""
        return next(((x, a) for x in self.loads for a in x.acts if (x.number, a.key) not in ticks), None)


# --- reading ----------------------------------------------------------------------------------------------------


def read_sheet(document: Any) -> Sheet:
    """A stored document of any version as a sheet; what cannot be read of it is told in `problem`."""
    if not isinstance(document, dict):
        return Sheet(problem="This round's sheet cannot be read.")
    version = document.get("version", 1)
    if version == 1:
        return _whole(_from_2(_from_1(document)))
    if version == 2:
        return _whole(_from_2(document))
    if version == VERSION:
        return _whole(document)
    return Sheet(problem="This round's sheet was made by a newer Green Measure. Bring this one up to date to read it.")


def _whole(document: Mapping[str, Any]) -> Sheet:
    missing = [
        f.name for f in fields(Sheet) if f.name in ("headline", "mix", "loads", "wear", "parts") and f.name not in document
    ]
    problem = f"Of this round's sheet {' and '.join(missing)} cannot be read." if missing else ""
    return Sheet(
        **_plain(Sheet, document),
        mix=_each(document.get("mix"), _component),
        spray=_amount(document.get("spray")),
        parts=_each(document.get("parts"), _part),
        loads=_each(document.get("loads"), _load),
        setup=_each(document.get("setup"), _text),
        wear=_each(document.get("wear"), _text),
        cautions=_each(document.get("cautions"), _text),
        rules=_each(document.get("rules"), _text),
        findings=_each(document.get("findings"), _text),
        problem=problem,
    )


def _plain(kind: type[Any], given: Mapping[str, Any]) -> dict[str, Any]:
    """The plain fields of a dataclass that a document has, each of the type that its default is of."""
    kinds: dict[Any, tuple[type, ...]] = {str: (str,), int: (int,), float: (int, float), bool: (bool,)}
    return {
        f.name: given[f.name]
        for f in fields(kind)
        if f.type in kinds and f.name in given and isinstance(given[f.name], kinds[f.type]) and f.name != "problem"
    }


def _each(given: Any, read: Callable[[Mapping[str, Any]], T]) -> tuple[T, ...]:
    return tuple(read(x) for x in given if isinstance(x, dict)) if isinstance(given, list | tuple) else ()


def _list(given: Any) -> Sequence[Any]:
    return given if isinstance(given, list | tuple) else ()


def _amount(given: Any) -> Amount:
    if not isinstance(given, dict):
        return NOTHING
    value, unit = given.get("value"), given.get("unit")
    if isinstance(value, int | float) and unit in UNITS:
        return Amount(float(value), str(unit))
    return Amount(text=str(given.get("text") or ""))


def _text(given: Mapping[str, Any]) -> SheetText:
    return SheetText(**_plain(SheetText, given))


def _component(given: Mapping[str, Any]) -> SheetComponent:
    return SheetComponent(**_plain(SheetComponent, given), amount=_amount(given.get("amount")))


def _part(given: Mapping[str, Any]) -> SheetPart:
    doses = _each(given.get("doses"), lambda d: SheetDose(**_plain(SheetDose, d)))
    return SheetPart(**_plain(SheetPart, given), treated=_amount(given.get("treated")), doses=doses)


def _pour(given: Mapping[str, Any]) -> SheetPour:
    held = given.get("measure")
    measure = held if isinstance(held, dict) else {}
    vessel = measure.get("vessel")
    found = SheetMeasure(**_plain(SheetMeasure, measure), vessel=vessel if isinstance(vessel, dict) else None)
    return SheetPour(**_plain(SheetPour, given), amount=_amount(given.get("amount")), measure=found)


def _load(given: Mapping[str, Any]) -> SheetLoad:
    return SheetLoad(
        **_plain(SheetLoad, given),
        parts=tuple(x for x in _list(given.get("parts")) if isinstance(x, int)),
        pours=_each(given.get("pours"), _pour),
        volume=_amount(given.get("volume")),
        water=_amount(given.get("water")),
        acts=_each(given.get("acts"), lambda a: SheetAct(**_plain(SheetAct, a))),
    )


# --- version 2: one product a sheet -----------------------------------------------------------------------------


def _from_2(old: Mapping[str, Any]) -> dict[str, Any]:
    """A document of version 2, of one product, as a mix of one."""
    name = old.get("product") if isinstance(old.get("product"), str) else ""
    new = dict(old)
    if "product" in old or "amount" in old:
        new["mix"] = [{"product": name, "target": old.get("target"), "amount": old.get("amount"), "cost": old.get("cost")}]
    for key, turned in (("parts", _part_from_2), ("loads", lambda x: _load_from_2(x, str(name)))):
        if isinstance(old.get(key), list | tuple):
            new[key] = [turned(x) for x in old[key] if isinstance(x, dict)]
    return new


def _part_from_2(old: Mapping[str, Any]) -> dict[str, Any]:
    return {**old, "doses": [{"rate": old.get("rate"), "label": old.get("label")}]}


def _load_from_2(old: Mapping[str, Any], name: str) -> dict[str, Any]:
    return {**old, "pours": [{"product": name, "amount": old.get("product"), "measure": old.get("measure")}]}


# --- version 1: the answer that the API gave at the start -------------------------------------------------------


def _from_1(old: Mapping[str, Any]) -> dict[str, Any]:
    """A document of version 1 in the terms of version 2."""
    new = dict(old)
    new["spray"] = _shown(old.get("spray"))
    cost = old.get("cost")
    new["cost"] = str(cost.get("total") or "") if isinstance(cost, dict) else ""
    new["rules"] = old.get("label_rules")
    new["loads"] = [_load_from_1(x) for x in old.get("loads") or () if isinstance(x, dict)]
    new["parts"] = [_part_from_1(x) for x in old.get("parts") or () if isinstance(x, dict)]
    new["findings"] = [
        *(_finding_from_1(f, "") for f in old.get("machine_findings") or ()),
        *(
            _finding_from_1(f, str(p.get("name") or ""))
            for p in old.get("parts") or ()
            if isinstance(p, dict)
            for f in p.get("findings") or ()
        ),
    ]
    for name in ("loads", "parts"):
        if name not in old:
            new.pop(name)
    return new


def _load_from_1(old: Mapping[str, Any]) -> dict[str, Any]:
    return {**old, **{name: _shown(old.get(name)) for name in ("product", "volume", "water")}}


def _part_from_1(old: Mapping[str, Any]) -> dict[str, Any]:
    rate = old.get("rate")
    return {**old, "rate": str(rate.get("text") or "") if isinstance(rate, dict) else ""}


def _finding_from_1(old: Any, part: str) -> dict[str, Any]:
    held = old if isinstance(old, dict) else {}
    return {"key": held.get("key"), "act": held.get("act"), "text": held.get("sentence"), "part": part}


def _shown(text: Any) -> dict[str, Any]:
    """A quantity as it was shown, read back; its text where it cannot be."""
    if not isinstance(text, str) or not text:
        return {}
    try:
        found = read_quantity(text, "sheet")
    except InputError:
        return {"text": text}
    return {"value": found.value, "unit": found.unit.key}
