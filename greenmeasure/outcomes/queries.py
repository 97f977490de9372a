"""What is read of outcomes: of the book, of looks, of the weather and of plans."""

from collections import Counter
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property

import numpy as np
from django.db.models import QuerySet
from numpy.typing import NDArray

from core.book.after import WINDOW, How
from core.book.effect import Became, Use, became, effect_of
from core.book.skill import LAG, Case, Looks, best_of, looks_at, thresholds_of
from core.days import so_many
from core.disease.model import Model, Series, risk_of
from core.disease.registry import MODELS, of_disease
from core.label.targets import DISEASE, PESTS, TARGETS, find_target
from core.ledger.history import Applied
from core.season.cover import Cover, cover_of, pressures, protects
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.book.queries import entries
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas, kin, wholes
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.outcomes import words
from greenmeasure.outcomes.schemas import EffectOut, OutcomesOut, PlanKeptOut, SkillOut, TriedOut
from greenmeasure.scouting.models import Scouting
from greenmeasure.scouting.queries import standing
from greenmeasure.season.models import Planned
from greenmeasure.season.words import name_of
from greenmeasure.sky.models import Station
from greenmeasure.sky.watching import limit_text, reaching, rows_of, watched
from greenmeasure.sky.weather import Known, stations_of, whole

Floats = NDArray[np.float64]

MOST_PLANS = 60
"""Plans that one answer tells (ours)."""


@dataclass(frozen=True)
class Told:
    """A disease as it is foretold on an area: by which model, at which threshold, with the model's series over all weather."""

    model: Model
    threshold: float
    known: Known
    series: Series

    def at(self, on: date) -> tuple[float, bool]:
        """The model's value on a day and whether the weather is outside its range; NaN where nothing is known."""
        i = (on - self.known.weather.days.first).days
        if not 0 <= i < len(self.series.values):
            return float("nan"), False
        return float(self.series.values[i]), bool(self.series.outside[i])

    @cached_property
    def pressure(self) -> Floats:
        return pressures(self.series.values, self.threshold)


def told_of(area: Area, disease: str, known: Known | None) -> Told | None:
    """How a disease is foretold on an area: as it is watched for, else by the first model there is; None without weather."""
    w = next((w for w in watched(area) if w.disease == disease), None)
    model = w.model if w else next(iter(of_disease(disease)), None)
    if known is None or model is None:
        return None
    return Told(model, w.threshold.value if w else model.threshold, known, _series(known.station, model.key))


@kept()
def _series(station: Station, model: str) -> Series:
    """A model's series over all the weather that is known of a station."""
    known = whole(station)
    assert known
    return MODELS[model].run(known.weather)


def outcomes(account: Account, year: int | None, area_id: int | None) -> OutcomesOut:
    """Did it work, in one year and by all the weather that is known. Raises Missing where there is no such area."""
    today = clock.today(account)
    if area_id is not None and area_id not in areas(account):
        raise Missing("area")
    read = _Reader(account, kin(account, area_id) if area_id is not None else set(areas(account)))
    asked = year or today.year
    effects, untold, times, looked = read.effects(asked)
    plans = read.plans(asked)
    return OutcomesOut(
        sentence=words.sentence(times, looked, asked),
        year=asked,
        years=read.years(today.year),
        first=date(asked, 1, 1),
        last=min(today, date(asked, 12, 31)),
        effects=effects,
        untold=words.untold_text(untold),
        skills=read.skills(),
        plans=plans[:MOST_PLANS],
        kept=words.kept_facts(Counter(Became(p.became) for p in plans)),
    )


class _Reader:
    """An account's ground, or some of it, with what is read of it once."""

    def __init__(self, account: Account, ground: set[int]) -> None:
        self.account, self.ground = account, ground
        self.told: dict[tuple[int, str], Told | None] = {}
        self.weather: dict[int, Known | None] = {}
        whole_book(account)

    @cached_property
    def reports(self) -> dict[tuple[int, str], list[Scouting]]:
        """What was looked for, by area and target, the latest first."""
        found: dict[tuple[int, str], list[Scouting]] = {}
        for s in standing(self.account):
            if s.what in TARGETS:
                found.setdefault((s.area_id, s.what), []).append(s)
        return found

    def foretold(self, area: Area, disease: str) -> Told | None:
        """How a disease is foretold on an area, by its site's weather."""
        key = (area.pk, disease)
        if area.site_id not in self.weather:
            station = stations_of(self.account).get(area.site_id)
            self.weather[area.site_id] = whole(station) if station else None
        if key not in self.told:
            self.told[key] = told_of(area, disease, self.weather[area.site_id])
        return self.told[key]

    def years(self, now: int) -> list[int]:
        """The years that the book knows, the latest first."""
        found = {d.year for d in self._entries().dates("application__applied_on", "year")}
        return sorted({now, *found}, reverse=True)

    def _entries(self) -> QuerySet[Entry]:
        return entries(self.account).filter(application__struck_at=None, application__area_id__in=self.ground)

    # --- what came of applications

    def effects(self, year: int) -> tuple[list[EffectOut], int, int, int]:
        """What came of each product against each thing; how many do not say, how many do, and how many were looked at."""
        found: dict[tuple[str, str], list[tuple[Entry, Use, list[str]]]] = {}
        untold = 0
        of_year = self._entries().filter(application__applied_on__year=year).select_related("application__area__site")
        for e in of_year.prefetch_related("application__followups").order_by("application__applied_on", "pk"):
            target = find_target(e.target) or find_target(e.use)
            if target is None:
                untold += e.kind in AGAINST
                continue
            use, lapses = self._use(e, target.key)
            if target.kind not in PESTS and not use.answers:
                continue
            found.setdefault((e.product_name, target.key), []).append((e, use, lapses))
        out = [self._effect(name, target, rows) for (name, target), rows in sorted(found.items())]
        every = [use for rows in found.values() for _, use, _ in rows]
        return out, untold, len(every), effect_of(every).looked

    def _use(self, e: Entry, target: str) -> tuple[Use, list[str]]:
        """An entry as something against a target, and where that was seen under its cover."""
        assert e.application.area_id
        area = areas(self.account)[e.application.area_id]
        applied, told = e.applied(), self.foretold(area, target) if TARGETS[target].kind == DISEASE else None
        cover = self._cover(applied, target, told)
        until = cover.until if cover else None
        last = until or e.application.applied_on + WINDOW
        here = kin(self.account, area.pk) - wholes(self.account, area.pk) | {area.pk}
        looks = [s for pk in here for s in self.reports.get((pk, target), ()) if e.application.applied_on < s.on <= last]
        lapses = [words.lapse_text(s.on, s.area.name, (s.on - e.application.applied_on).days) for s in looks if s.seen and until]
        risk = risk_of(*told.at(e.application.applied_on), told.threshold) if told else None
        answers = [How(f.how) for f in e.application.followups.all() if f.struck_at is None and f.how in list(How)]
        treated = e.application.treated.base
        use = Use(area.pk, e.application.applied_on, treated, until, risk, e.cost, tuple(s.seen for s in looks), tuple(answers))
        return use, lapses

    def _cover(self, applied: Applied, target: str, told: Told | None) -> Cover | None:
        if TARGETS[target].kind != DISEASE or not protects(applied, rows_of(self.account, applied), target):
            return None
        first = told.known.weather.days.first if told else applied.on
        return cover_of(applied, first, told.pressure if told else np.zeros(0))

    def _effect(self, name: str, target: str, rows: list[tuple[Entry, Use, list[str]]]) -> EffectOut:
        found = effect_of([use for _, use, _ in rows])
        currency = next((e.currency for e, _, _ in rows if e.currency), self.account.currency)
        return EffectOut(
            product_id=rows[-1][0].product_id,
            product=name,
            target=name_of(target),
            times=found.times,
            areas=words.area_names([e.application.area_name for e, _, _ in rows]),
            pressure=words.pressure_text(found.pressure),
            seen=words.seen_text(found),
            answers=words.answers_text(found.answers),
            protected=so_many(found.protected) if found.protected else "",
            cost=words.money(found.cost, currency),
            per_day=words.per_day_text(found, currency, self.account.us),
            lapses=[text for _, _, told in rows for text in told],
            verdict=words.verdict_text(found),
        )

    # --- how the forecasts did

    def skills(self) -> list[SkillOut]:
        """Of each disease and site how its model did against what was seen."""
        looked: dict[tuple[int, str], list[Scouting]] = {}
        for (area_id, what), reports in self.reports.items():
            if area_id in self.ground and TARGETS[what].kind == DISEASE:
                looked.setdefault((reports[0].area.site_id, what), []).extend(reports)
        found = [self._skill(what, reports) for (_, what), reports in sorted(looked.items(), key=lambda x: x[0])]
        return [s for s in found if s]

    def _skill(self, disease: str, reports: list[Scouting]) -> SkillOut | None:
        cases: list[Case] = []
        covered = unknown = 0
        model: Model | None = None
        for s in reports:
            told = self.foretold(areas(self.account)[s.area_id], disease)
            if told is None:
                unknown += 1
                continue
            model = model or told.model
            value = self._highest(told, s.on)
            if np.isnan(value) or told.model is not model:
                unknown += 1
            elif self._held_off(s, told, disease):
                covered += 1
            else:
                cases.append(Case(value * model.threshold / told.threshold, s.seen))
        if model is None:
            return None
        tried = [(t, looks_at(cases, t)) for t in thresholds_of(model, model.threshold)]
        looks = looks_at(cases, model.threshold)
        best = best_of(tried)
        low, high = looks.found.interval
        return SkillOut(
            disease=name_of(disease),
            model=model.name,
            site=reports[0].area.site.name,
            areas=words.area_names([s.area.name for s in reports]),
            text=words.skill_text(model, looks),
            enough=looks.enough,
            found=looks.found.value,
            found_low=low,
            found_high=high,
            facts=words.skill_facts(looks),
            tried=[_tried(model, t, at, t == model.threshold, t == best) for t, at in tried] if cases else [],
            left_out=words.left_out_text(covered, unknown),
        )

    def _highest(self, told: Told, on: date) -> float:
        """The highest value of the day of a look and the week before; NaN where none is known."""
        values = [told.at(on - timedelta(days=n))[0] for n in range(LAG.days + 1)]
        known = [v for v in values if not np.isnan(v)]
        return max(known) if known else float("nan")

    def _held_off(self, s: Scouting, told: Told, disease: str) -> bool:
        """Whether a fungicide covered the ground on the day of a look or in the week before."""
        for a in reaching(history(self.account, s.area_id), s.on - LAG):
            if a.on < s.on and (cover := self._cover(a, disease, told)) and cover.until >= s.on - LAG:
                return True
        return False

    # --- what became of plans

    def plans(self, year: int) -> list[PlanKeptOut]:
        """What became of the windows that were planned for a year, the latest first."""
        planned = Planned.objects.filter(account=self.account, area_id__in=self.ground, begin__year=year)
        found = []
        for p in planned.select_related("area__site", "product").order_by("-begin", "-pk"):
            begin, end = (clock.local_day(p.area, at) for at in (p.begin, p.end))
            done = [a.on for a in history(self.account, p.area_id) if a.product_id == p.product_id]
            dropped = clock.local_day(p.area, p.dropped_at) if p.dropped_at else None
            what, on = became(begin, end, done, clock.today(p.area), dropped)
            found.append(
                PlanKeptOut(
                    id=p.pk,
                    title=words.plan_title(p.product.name, p.area.name, p.disease),
                    area_id=p.area_id,
                    window=words.window_text(begin, end),
                    became=what.value,
                    text=words.became_text(what, on, end),
                )
            )
        return found


AGAINST = {"fungicide", "herbicide", "insecticide"}
"""Kinds of products that are put down against something."""


def _tried(model: Model, threshold: float, looks: Looks, own: bool, best: bool) -> TriedOut:
    return TriedOut(
        threshold=limit_text(model, threshold),
        own=own,
        best=best,
        hits=looks.hits,
        false_alarms=looks.false_alarms,
        misses=looks.misses,
        quiet=looks.quiet,
        found=words.short(looks.found),
        false_share=words.short(looks.false_share),
        skill=words.skill_number(looks),
    )
