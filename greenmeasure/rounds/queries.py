"""What is read of rounds."""

from typing import cast

from core.machines.standing import DRIFTED
from core.readable import handy, readable
from core.units import show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import quantity_out, rule_out
from greenmeasure.reckon.outs import judgement_out
from greenmeasure.reckon.schemas import JobOut
from greenmeasure.rounds.actions import Actual, ActualPart, worn
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import (
    ActualOut,
    ActualPartOut,
    PlannedPartOut,
    RoundLineOut,
    RoundOut,
    StatusName,
    TaughtOut,
    TickOut,
)


def round_out(found: Round) -> RoundOut:
    ticks = list(found.ticks.select_related("by"))
    spray = readable(found.spray, found.account.us) if found.spray else None
    return RoundOut(
        id=found.pk,
        status=cast(StatusName, found.status),
        product_id=found.product_id,
        sheet=JobOut(**found.sheet),
        ticks=[TickOut(load=t.load, act=t.act, by=str(t.by), at=t.at) for t in ticks],
        loads_done=loads_done(found),
        worn=worn(found),
        next=next_act(found),
        planned=quantity_out(handy(found.amount)),
        parts=[
            PlannedPartOut(name=str(p), use=p.use, rate=str(p.rate), treated=quantity_out(p.treated)) for p in found.parts.all()
        ],
        planned_spray=quantity_out(spray) if spray else None,
        started_by=str(found.started_by),
        started_at=found.started_at,
        entry_ids=list(found.entries.order_by("pk").values_list("pk", flat=True)),
    )


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


def rounds(account: Account, status: str | None = None) -> list[RoundLineOut]:
    found = Round.objects.of(account).select_related("product", "started_by").prefetch_related("ticks")
    if status:
        found = found.filter(status=status)
    return [
        RoundLineOut(
            id=r.pk,
            status=cast(StatusName, r.status),
            title=f"{r.sheet['product']} on {r.sheet['where']}",
            headline=r.sheet["headline"],
            loads=len(r.sheet["loads"]),
            loads_done=loads_done(r),
            started_by=str(r.started_by),
            started_at=r.started_at,
        )
        for r in found[:50]
    ]


def actual_out(found: Round, actual: Actual) -> ActualOut:
    binds = found.product.core().kind.label_binds
    told = actual.taught
    taught = None
    if told:
        far = told.off is not None and abs(told.off) > DRIFTED
        taught = TaughtOut(sentence=told.sentence, sprayer=told.setting is None, far=far)
    return ActualOut(parts=[_actual_part(part, binds) for part in actual.parts], taught=taught)


def _actual_part(actual: ActualPart, binds: bool) -> ActualPartOut:
    part = actual.part
    high = part.label.highest
    here, planned = actual.rate.to(high.unit).value, part.rate.to(high.unit).value
    off = here / planned - 1
    against = "just as planned" if abs(off) < 0.0005 else f"{show_percent(off, 3, sign=True)} against the plan of {part.rate}"
    return ActualPartOut(
        name=str(part),
        used=str(actual.used),
        rate=str(actual.rate),
        judgement=judgement_out(actual.judgement),
        against_plan=against,
        rule=rule_out(part.label, here, binds),
    )
