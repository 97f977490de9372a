"""What is read of rounds."""

from typing import cast

from core.job import readable
from core.units import show_percent
from greenmeasure.accounts.models import Club
from greenmeasure.book.models import Entry
from greenmeasure.common.schemas import quantity_out, rule_out
from greenmeasure.reckon.queries import judgement_out
from greenmeasure.reckon.schemas import JobOut
from greenmeasure.rounds.actions import Actual, worn
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import ActualOut, RoundLineOut, RoundOut, StatusName, TickOut


def round_out(found: Round) -> RoundOut:
    ticks = list(found.ticks.select_related("by"))
    entry = Entry.objects.filter(round=found).first()
    spray = readable(found.spray, found.club.us) if found.spray else None
    return RoundOut(
        id=found.pk, status=cast(StatusName, found.status), use=found.use, sheet=JobOut(**found.sheet),
        ticks=[TickOut(load=t.load, act=t.act, by=str(t.by), at=t.at) for t in ticks], loads_done=loads_done(found),
        worn=worn(found), next=next_act(found), planned=quantity_out(found.amount),
        planned_area=quantity_out(found.area.size), planned_spray=quantity_out(spray) if spray else None,
        started_by=str(found.started_by), started_at=found.started_at, entry_id=entry.pk if entry else None,
    )  # fmt: skip


def _ticked(found: Round) -> set[tuple[int, str]]:
    return {(t.load, t.act) for t in found.ticks.all()}


def loads_done(found: Round) -> int:
    """How many loads have every act ticked."""
    ticked = _ticked(found)
    return sum(all((x["number"], a["key"]) in ticked for a in x["acts"]) for x in found.sheet["loads"])


def next_act(found: Round) -> str:
    """What to do now, in one sentence."""
    if found.status == Round.Status.DONE:
        return "This round is done and in the book."
    if found.status == Round.Status.GIVEN_UP:
        return "This round was given up; nothing went in the book."
    if not worn(found):
        return "Put on what the label asks for mixing, and tick it; then the loads open."
    ticked = _ticked(found)
    for load in found.sheet["loads"]:
        for act in load["acts"]:
            if (load["number"], act["key"]) not in ticked:
                return f"{load['name']}: {act['text']}"
    return "All loads are out. Enter what was really used, and put it in the book."


def rounds(club: Club, status: str | None = None) -> list[RoundLineOut]:
    found = Round.objects.filter(club=club).select_related("product", "area", "started_by").prefetch_related("ticks")
    if status:
        found = found.filter(status=status)
    return [
        RoundLineOut(
            id=r.pk,
            status=cast(StatusName, r.status),
            title=f"{r.sheet['product']} on {r.sheet['area']}",
            headline=r.sheet["headline"],
            loads=len(r.sheet["loads"]),
            loads_done=loads_done(r),
            started_by=str(r.started_by),
            started_at=r.started_at,
        )
        for r in found[:50]
    ]


def actual_out(found: Round, actual: Actual) -> ActualOut:
    high = found.label.highest
    here = actual.rate.to(high.unit).value
    planned = found.rate.to(high.unit).value
    off = here / planned - 1
    against = "just as planned" if abs(off) < 0.0005 else f"{show_percent(off, 3, sign=True)} against the plan of {found.rate}"
    return ActualOut(
        rate=str(actual.rate), judgement=judgement_out(actual.judgement), against_plan=against,
        rule=rule_out(found.label, here, found.product.core().kind.label_binds),
    )  # fmt: skip
