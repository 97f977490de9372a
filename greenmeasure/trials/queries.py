"""What is read of trials."""

from collections.abc import Iterable, Sequence
from datetime import date, timedelta
from functools import cached_property
from statistics import fmean
from typing import Any

from django.db.models import Prefetch, QuerySet

from core.areas.measure import in_trade
from core.book.results import Outcome, outcome
from core.findings import Finding, Weight
from core.readable import joined
from core.scouting.kinds import mark_of
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Application
from greenmeasure.book.queries import applications
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.findings import FindingOut, finding_out
from greenmeasure.common.schemas import FactOut
from greenmeasure.ground.measuring import plan_of, plan_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import kin, wholes
from greenmeasure.ground.schemas import PointOut
from greenmeasure.rounds.models import Round
from greenmeasure.scouting.models import Scouting
from greenmeasure.scouting.queries import photos
from greenmeasure.trials import words
from greenmeasure.trials.laying import laid
from greenmeasure.trials.models import Plot, Treatment, Trial
from greenmeasure.trials.schemas import (
    DifferenceOut,
    LayoutIn,
    LayoutOut,
    PlotOut,
    PlotShapeOut,
    ReadingDayOut,
    TreatmentOut,
    TrialDueOut,
    TrialLineOut,
    TrialMapOut,
    TrialOut,
    TrialsOut,
)
from greenmeasure.work.models import Work

YEAR = timedelta(days=365)
"""How far back unequal treatment is looked for (ours)."""
TOLD = 3
"""How many of them are told."""


def whole_trials(account: Account) -> QuerySet[Trial]:
    """The trials that are seen, each with its treatments, its plots, their spots and what was reported there."""
    reports = Prefetch("spot__reports", Scouting.objects.filter(struck_at=None).order_by("pk"))
    plots = Prefetch("plots", Plot.objects.select_related("spot").prefetch_related(reports))
    treatments = Prefetch("treatments", Treatment.objects.select_related("area", "product").prefetch_related(plots))
    return Trial.objects.of(account).kept().select_related("area__site__account", "account").prefetch_related(treatments)


def trial_of(account: Account, pk: int) -> Trial:
    """A trial that is seen, whole. Raises Missing."""
    found = whole_trials(account).filter(pk=pk).first()
    if found is None:
        raise Missing("trial")
    return found


# --- before it begins -------------------------------------------------------------------------------------------


def layout_out(account: Account, data: LayoutIn) -> LayoutOut:
    """A layout to look at. Raises Faulty as `laid`."""
    found = laid(account, data)
    plan, us = plan_of(found.area), account.us
    assert plan
    blocks, count = found.layout.blocks, len(found.names)
    findings = unequal(account, found.area, clock.today(found.area))
    if len(plan.outlines) - sum(o.hole for o in plan.outlines) > 1:
        findings.append(Finding("pieces", Weight.WARN, words.PIECES))
    if blocks < words.FEW:
        findings.append(Finding("few", Weight.NOTE, words.FEW_TEXT))
    each = [found.size(i) for i in range(count)]
    return LayoutOut(
        sentence=words.layout_sentence(found, us),
        shows=words.shows_text(found.look, blocks, count, found.scatter, us),
        facts=[FactOut(name=n, text=str(in_trade(size, us))) for n, size in zip(found.names, each, strict=True)],
        findings=[finding_out(f) for f in findings],
        plan=plan_out(plan),
        plots=[
            PlotShapeOut(
                number=p.number,
                block=p.block,
                treatment=p.treatment,
                rings=[[PointOut(x=x, y=y) for x, y in ring] for ring in p.rings],
                x=p.middle[0],
                y=p.middle[1],
            )
            for p in found.layout.plots
        ],
        blocks=blocks,
        most=found.layout.fit,
        seed=found.seed,
        names=list(found.names),
    )


def unequal(account: Account, area: Area, begin: date, besides: Iterable[int] = ()) -> list[Finding]:
    """What went down, or was done, on a part of an area alone in the year before a day."""
    parts = kin(account, area.pk) - wholes(account, area.pk) - set(besides)
    if not parts:
        return []
    since = begin - YEAR
    down = applications(account).filter(area_id__in=parts, applied_on__gte=since, applied_on__lt=begin)
    told = [(a.applied_on, words.put_down(a), a.area_name) for a in down.prefetch_related("entries")]
    done = Work.objects.filter(account=account, area_id__in=parts, done=True, struck_at=None)
    for w in done.filter(done_on__gte=since, done_on__lt=begin).select_related("area"):
        told.append((w.done_on, w.doing.name, w.area.name))
    if not told:
        return []
    told.sort(reverse=True)
    said = [words.before_text(what, where, on) for on, what, where in told[:TOLD]]
    return [Finding("unequal", Weight.WARN, words.unequal_text(said, max(0, len(told) - TOLD)))]


# --- a trial ----------------------------------------------------------------------------------------------------


class Whole:
    """A trial with its treatments, its plots in their order, and the scores that count."""

    def __init__(self, account: Account, trial: Trial) -> None:
        self.account, self.trial = account, trial
        self.treatments = list(trial.treatments.all())
        self.names = [t.name for t in self.treatments]
        self.places = {t.pk: t.position for t in self.treatments}
        self.plots = sorted((p for t in self.treatments for p in t.plots.all()), key=lambda p: p.number)

    @cached_property
    def scores(self) -> dict[tuple[int, date], Scouting]:
        """The score that counts of each plot, by its id, and of each day: the latest that is not struck."""
        asked, since = (self.trial.kind, self.trial.what), self.trial.began_on
        found = ((p.pk, s) for p in self.plots if p.spot for s in p.spot.reports.all())
        return {(plot, s.on): s for plot, s in found if not s.struck_at and (s.kind, s.what) == asked and s.on >= since}

    @cached_property
    def days(self) -> dict[date, dict[int, float]]:
        """What each plot was given on each day, by its id [marks]."""
        found: dict[date, dict[int, float]] = {}
        for (plot, on), s in self.scores.items():
            mark = mark_of(self.trial.look, s.score, s.severity, self.account.us)
            if mark is not None:
                found.setdefault(on, {})[plot] = mark
        return dict(sorted(found.items()))

    def compared(self, on: date) -> tuple[Outcome | None, int]:
        """What the blocks that were scored whole on a day show, and how many were not."""
        marks = self.days[on]
        blocks: dict[int, dict[int, float]] = {}
        for p in self.plots:
            row = blocks.setdefault(p.block, {})
            if p.pk in marks:
                row[self.places[p.treatment_id]] = marks[p.pk]
        whole = [[row[i] for i in sorted(row)] for row in blocks.values() if len(row) == len(self.places)]
        return (outcome(whole) if whole else None), len(blocks) - len(whole)

    @cached_property
    def past(self) -> dict[int, list[Application]]:
        """What went down on the plots of each treatment alone, by the treatment's id, the oldest first."""
        of = {t.area_id: t.pk for t in self.treatments if t.area_id}
        found: dict[int, list[Application]] = {t.pk: [] for t in self.treatments}
        for a in applications(self.account).filter(area_id__in=of).order_by("applied_on", "pk").prefetch_related("entries"):
            found[of[a.area_id or 0]].append(a)
        return found

    @property
    def latest(self) -> str:
        """What the latest scores show; empty where there are none."""
        if not self.days:
            return ""
        return words.reading_text(self.trial, self.compared(max(self.days))[0], self.names, self.account.us)

    @property
    def due(self) -> int | None:
        """The day whose look is due: the latest that has come and since which nothing was scored; None where none is."""
        trial, gone = self.trial, self.trial.day_of(clock.today(self.trial.area))
        come = [d for d in trial.looks_on if d <= gone]
        if trial.ended_on is not None or not come or any(trial.day_of(on) >= come[-1] for on in self.days):
            return None
        return come[-1]


def trials_out(account: Account) -> TrialsOut:
    """All trials, those under way first."""
    found = list(whole_trials(account))
    found.sort(key=lambda t: t.ended_on is not None)
    return TrialsOut(sentence=words.list_sentence(found), trials=[_line(account, t) for t in found])


def _line(account: Account, trial: Trial) -> TrialLineOut:
    return TrialLineOut(
        id=trial.pk,
        name=trial.name,
        area=trial.area.name,
        area_id=trial.area_id,
        sentence=Whole(account, trial).latest or words.NO_SCORE,
        since=words.since_text(trial),
        ended=trial.ended_on is not None,
    )


def due_trials(account: Account) -> list[TrialDueOut]:
    """The trials whose day to look has come."""
    found = []
    for trial in whole_trials(account).filter(ended_on=None):
        day = Whole(account, trial).due
        if day is not None:
            text = words.due_text(trial, day, clock.today(trial.area))
            found.append(TrialDueOut(id=trial.pk, name=trial.name, area=trial.area.name, text=text))
    return found


def trial_out(account: Account, trial: Trial) -> TrialOut:
    """A trial whole."""
    whole, us, today = Whole(account, trial), account.us, clock.today(trial.area)
    readings = [_reading(whole, on) for on in whole.days]
    plan = plan_of(trial.area)
    coming = None if trial.ended_on else next((d for d in trial.looks_on if d > trial.day_of(today)), None)
    taken = {p.spot_id: p.pk for p in reversed(photos(account)) if p.spot_id}
    due, (least, most) = whole.due, words.ends(trial.look)
    return TrialOut(
        id=trial.pk,
        version=trial.version,
        name=trial.name,
        area=trial.area.name,
        area_id=trial.area_id,
        sentence=words.state_text(trial, today, readings[-1].text if readings else ""),
        due="" if due is None else words.due_text(trial, due, today),
        next="" if coming is None else words.next_text(trial.began_on + timedelta(days=coming), coming),
        began_on=trial.began_on,
        ended=trial.ended_on is not None,
        days=", ".join(map(str, trial.looks_on)),
        note=trial.note,
        by=trial.by,
        kind=trial.kind,
        what=trial.what,
        scored=words.scored_text(trial),
        scale=words.scale_text(trial.look, us),
        least=least,
        most=most,
        per=words.unit_of(trial.look, us),
        facts=words.trial_facts(trial, len(whole.plots), len(whole.treatments), us),
        findings=_findings(whole, readings),
        plan=plan_out(plan) if plan else None,
        plots=[
            PlotOut(
                id=p.pk,
                size=str(in_trade(p.size, us)),
                spot_id=p.spot_id,
                area_id=p.treatment.area_id,
                photo_id=taken.get(p.spot_id or 0),
                **_shape(p),
            )
            for p in whole.plots
        ],
        treatments=[_treatment_out(whole, t) for t in whole.treatments],
        readings=readings,
    )


def _reading(whole: Whole, on: date) -> ReadingDayOut:
    trial, us = whole.trial, whole.account.us
    found, skipped = whole.compared(on)
    marks = whole.days[on]
    return ReadingDayOut(
        on=on,
        day=words.day_text(trial, on),
        means=list(found.means) if found else [None] * len(whole.names),
        marks=[words.marks(m) for m in found.means] if found else [""] * len(whole.names),
        scores=[words.marks(marks[p.pk]) if p.pk in marks else "" for p in whole.plots],
        differences=[
            DifferenceOut(
                treatment=i,
                mean=d.mean,
                low=d.low,
                high=d.high,
                shown=d.shown,
                text=words.difference_text(whole.names[i], whole.names[0], d, trial.look, us),
            )
            for i, d in enumerate(found.differences if found else (), start=1)
        ],
        text=words.reading_text(trial, found, whole.names, us),
        facts=words.reading_facts(found, skipped),
        by=joined(sorted({s.by for (_, day), s in whole.scores.items() if day == on})),
    )


def _findings(whole: Whole, readings: Sequence[ReadingDayOut]) -> list[FindingOut]:
    """What makes a trial say less than it seems to."""
    own = {t.area_id for t in whole.treatments if t.area_id}
    found = unequal(whole.account, whole.trial.area, whole.trial.began_on, own)
    for t in whole.treatments:
        for a in whole.past[t.pk]:
            if t.untreated:
                found.append(Finding("untreated", Weight.WARN, words.untreated_text(words.put_down(a), a.applied_on)))
            elif t.product_id and t.product_id not in [e.product_id for e in a.entries.all()]:
                found.append(Finding("stray", Weight.WARN, words.stray_text(t.name, words.put_down(a), a.applied_on)))
    first = next((r for r in readings if r.on == whole.trial.began_on), None)
    apart = next((d for d in first.differences if d.shown), None) if first else None
    if apart:
        found.append(Finding("start", Weight.WARN, words.start_text(apart.text)))
    if any(len({s.by for (_, day), s in whole.scores.items() if day == r.on}) > 1 for r in readings):
        found.append(Finding("scorers", Weight.WARN, words.SCORERS))
    return [finding_out(f) for f in found]


def _treatment_out(whole: Whole, t: Treatment) -> TreatmentOut:
    own = [p for p in whole.plots if p.treatment_id == t.pk]
    return TreatmentOut(
        id=t.pk,
        name=t.name,
        untreated=t.untreated,
        area_id=t.area_id,
        product_id=t.product_id,
        product=t.product.name if t.product else "",
        told=t.told,
        size=str(in_trade(sum(p.size for p in own), whole.account.us)),
        plots=words.plots_text([p.number for p in own]),
        past=[words.past_text(words.put_down(a), a.applied_on) for a in whole.past[t.pk]],
    )


def _shape(p: Plot) -> dict[str, Any]:
    """Where a plot lies, as `PlotShapeOut` has it."""
    rings = [[PointOut(x=x, y=y) for x, y in ring] for ring in p.rings]
    points = [at for ring in rings for at in ring]
    at = p.spot if p.spot and p.spot.x is not None and p.spot.y is not None else None
    return {
        "number": p.number,
        "block": p.block,
        "treatment": p.treatment.position,
        "rings": rings,
        "x": at.x if at else fmean(a.x for a in points),
        "y": at.y if at else fmean(a.y for a in points),
    }


# --- on a mix sheet ---------------------------------------------------------------------------------------------


def maps_of(account: Account, round_id: int) -> list[TrialMapOut]:
    """The maps of the trials whose plots a round is for. Raises Missing."""
    areas = [p.area_id for p in Round.objects.one(account, round_id).parts.all()]
    found = []
    for trial in whole_trials(account).filter(treatments__area__in=areas).distinct():
        plan, plots = plan_of(trial.area), Whole(account, trial).plots
        if plan is None:
            continue
        mine = [t for t in trial.treatments.all() if t.area_id in areas]
        numbers = [p.number for p in plots if p.treatment_id in {t.pk for t in mine}]
        found.append(
            TrialMapOut(
                trial_id=trial.pk,
                name=trial.name,
                treatment=joined([t.name for t in mine]),
                text=words.map_text([t.name for t in mine], numbers),
                plan=plan_out(plan),
                plots=[PlotShapeOut(**_shape(p)) for p in plots],
                names=[t.name for t in trial.treatments.all()],
                own=[t.position for t in mine],
            )
        )
    return found
