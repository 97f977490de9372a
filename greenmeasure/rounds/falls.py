"""Where the fillings of a round fall, ground by ground, and what of a mix is left over once ground was left out."""

from collections.abc import Collection, Iterable, Sequence
from typing import Any

from core.job.sheet import Sheet, SheetLoad, Ticks
from core.tank.falls import Fall, falls
from core.units import Quantity
from greenmeasure.rounds.models import Round, RoundPart
from greenmeasure.rounds.words import lasts_text, left_over_text, spare_text, through_text


def left_out(jobs: Iterable[Any]) -> dict[int, str]:
    """The areas that the outing of a round leaves out, and why; `jobs` are the round's in outings."""
    return {s.area_id: s.why for j in jobs for s in j.stops.all() if s.state == "skipped"}


def falls_of(found: Round, sheet: Sheet, ticks: Ticks, out: Collection[int]) -> list[str]:
    """Of each load of a round in words: where it runs out, or what of it is needed, without the areas that are left out; empty
    where there is nothing to say.
    """
    parts = list(found.parts.all())
    told = dict.fromkeys((x.number for x in sheet.loads), "")
    if found.spots or len(parts) != len(sheet.parts):
        return list(told.values())
    for group in _groups(sheet):
        here = [parts[i] for i in group[0].parts]
        held = [_held(x) for x in group]
        whole = sum(p.treated.base for p in here)
        if not here or not whole or not all(held):
            continue
        takes = [0.0 if p.area_id in out else sum(held) * p.treated.base / whole for p in here]
        gone = [p.area.called for p in here if p.area_id in out]
        several = sheet.passes > 1 and not group[0].pass_number
        for x, fall in zip(group, falls(held, takes), strict=True):
            begun = any(number == x.number for number, _ in ticks)
            said = (_spare(x, fall.needed, gone, begun), _where(fall, here, takes, several))
            told[x.number] = " ".join(t for t in said if t)
    return list(told.values())


def every_fall(found: Round) -> list[str]:
    """The same, of the loads of which there is something to say, by their names where there are several."""
    sheet, ticks = found.read_sheet(), {(t.load, t.act) for t in found.ticks.all()}
    told = zip(sheet.loads, falls_of(found, sheet, ticks, left_out(found.in_outings.all())), strict=True)
    return [f"{x.name}: {text}" if len(sheet.loads) > 1 else text for x, text in told if text]


def _groups(sheet: Sheet) -> list[list[SheetLoad]]:
    """The loads that are put down one after the other on the same grounds in the same pass."""
    found: dict[tuple[tuple[int, ...], int], list[SheetLoad]] = {}
    for x in sheet.loads:
        found.setdefault((x.parts, x.pass_number), []).append(x)
    return list(found.values())


def _held(x: SheetLoad) -> float:
    """What a load holds: its spray [L], or what is weighed out [g]; 0 where its sheet does not tell."""
    if spray := x.volume.quantity:
        return spray.base
    return sum(amount.base for p in x.pours if (amount := p.amount.quantity))


def _spare(x: SheetLoad, needed: float, out: Sequence[str], begun: bool) -> str:
    """What of a load is needed no more, the ground that it was for being left out; empty where all of it is needed."""
    if needed == 1 or not out:
        return ""
    left, rest = _amounts(x, 1 - needed)[0], _amounts(x, needed) if needed else []
    return left_over_text(left, out) if begun else spare_text(rest, left, out)


def _where(fall: Fall, here: Sequence[RoundPart], takes: Sequence[float], several: bool) -> str:
    """Where a load runs out, in words; empty where the job ends with it, or is all on one ground, of which a load covers so much.
    With `several` passes its share is told.
    """
    if fall.ground is None or len(here) == 1:
        return ""
    on = here[fall.ground]
    if fall.done < 1:
        return through_text(on.area.called, None if several else on.treated, fall.done)
    return lasts_text(on.area.called) if any(takes[fall.ground + 1 :]) else ""


def _amounts(x: SheetLoad, share: float) -> list[str]:
    """So much of a load: its spray and each product of it, or its products alone where it is weighed out."""
    every = [(x.volume.quantity, ""), *((p.amount.quantity, f" of {p.product}") for p in x.pours)]
    return [f"{Quantity(q.value * share, q.unit)}{of}" for q, of in every if q]
