"""What each area is watched for, by which model and threshold, and what already protects it."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from core.disease.hosts import diseases_of
from core.disease.model import Model, Series
from core.disease.registry import MODELS, of_disease
from core.disease.threshold import Care, Threshold, threshold_of
from core.label.product import Kind
from core.label.rules import Row
from core.label.targets import DISEASE
from core.ledger.history import Applied
from core.season.cover import Cover, at_risk, cover_of, protects, reaches
from core.season.due import Outlook
from core.season.expected import Spell
from greenmeasure.accounts.models import Account
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.scouting.queries import standing
from greenmeasure.shelf.queries import Card, cards
from greenmeasure.sky.models import Station, Watch
from greenmeasure.sky.weather import Known, recent, stations_of, whole

Floats = NDArray[np.float64]
SEEN_FOR = timedelta(days=730)


@dataclass(frozen=True)
class Watched:
    """A disease that an area is watched for."""

    area: Area
    disease: str
    model: Model
    threshold: Threshold
    care: Care


@kept()
def series_of(station: Station) -> dict[str, Series]:
    """Every model's series over a station's recent weather, by its key; empty without weather."""
    known = recent(station)
    return {key: model.run(known.weather) for key, model in MODELS.items()} if known else {}


@kept("sky", "ground", "scouting")
def all_watched(account: Account) -> dict[int, list[Watched]]:
    """What each kept area is watched for, by its id."""
    kept_areas = [a for a in areas(account).values() if a.archived_at is None]
    rows: dict[int, dict[str, Watch]] = {}
    for watch in Watch.objects.filter(area__account=account):
        rows.setdefault(watch.area_id, {})[watch.disease] = watch
    seen = seen_lately(account)
    return {a.pk: list(_watched(a, rows.get(a.pk, {}), seen)) for a in kept_areas}


def _watched(area: Area, rows: dict[str, Watch], seen: dict[tuple[int, str], date]) -> Iterable[Watched]:
    usual = diseases_of(area.sward)
    for disease in dict.fromkeys([*usual, *rows]):
        row = rows.get(disease)
        if (row and not row.on) or (row is None and disease not in usual):
            continue
        known = of_disease(disease)
        model = next((m for m in known if row and m.key == row.model), known[0] if known else None)
        if model is None:
            continue
        care = row.care if row else Care(history=(area.pk, disease) in seen)
        yield Watched(area, disease, model, threshold_of(model, care), care)


def watched(area: Area) -> list[Watched]:
    """What an area is watched for; nothing once it is put away."""
    return all_watched(area.account).get(area.pk, [])


@kept("scouting", "ground")
def seen_lately(account: Account) -> dict[tuple[int, str], date]:
    """When a disease was last seen on an area within two years, by area and disease."""
    found: dict[tuple[int, str], date] = {}
    for s in standing(account):
        if s.seen and s.kind == DISEASE:
            found.setdefault((s.area_id, s.what), s.on)
    return found


@kept("shelf")
def fungicides(account: Account) -> dict[int, Card]:
    """The cards of fungicides by their ids, those put away too."""
    return {pk: c for pk, c in cards(account).items() if c.core.is_a(Kind.FUNGICIDE)}


def rows_of(account: Account, applied: Applied) -> list[Row]:
    """The rows of the label that an application was of."""
    every = fungicides(account)
    if applied.product_id is not None:
        return list(every[applied.product_id].label_rows) if applied.product_id in every else []
    return [row for c in every.values() if applied.is_of(c.core) for row in c.label_rows]


def reaching(history: Iterable[Applied], day: date) -> list[Applied]:
    """The fungicides of a history that may cover a day or one after it."""
    return [a for a in history if a.is_a(Kind.FUNGICIDE) and reaches(a, day)]


def covers_of(account: Account, history: Iterable[Applied], disease: str, outlook: Outlook) -> list[Cover]:
    """The covers of a ground's fungicides against a disease that reach into the outlook, oldest first."""
    against = [a for a in reaching(history, outlook.first) if protects(a, rows_of(account, a), disease)]
    found = [c for a in against if (c := cover_of(a, outlook.first, outlook.pressure))]
    return sorted(found, key=lambda c: c.on)


def outlook_of(w: Watched, known: Known, today: date) -> Outlook:
    """A disease's recent values with the forecast in them, against the threshold of an area."""
    return _outlook(known.station, w.model.key, w.threshold.value, today)


@kept()
def _outlook(station: Station, model: str, threshold: float, today: date) -> Outlook:
    """Areas of one model and one threshold share theirs, by its own unit."""
    known, series = recent(station), series_of(station)[model]
    assert known
    return Outlook(known.weather.days.first, series.values, threshold, known.day_at(today), series.outside)


def value_text(model: Model, value: float) -> str:
    """A model's value in words."""
    if np.isnan(value):
        return "—"
    if model.yes_or_no:
        return "yes" if value >= 1 else "no"
    return f"{value * 100:.0f} %" if model.share else f"{value:.{model.digits}f}"


def limit_text(model: Model, threshold: float) -> str:
    """A threshold of a model with its unit."""
    return model.unit if model.yes_or_no else f"{value_text(model, threshold)} {model.unit}"


def threshold_text(w: Watched) -> str:
    """The threshold of an area with its unit."""
    return limit_text(w.model, w.threshold.value)


@kept("sky", "ground", "scouting")
def spells_of(account: Account, site_id: int) -> dict[tuple[str, float], Spell]:
    """Each model's risk days of all that is known of a site, by model and threshold; empty where nothing is."""
    of_site = [w for ws in all_watched(account).values() for w in ws if w.area.site_id == site_id]
    station = stations_of(account).get(of_site[0].area.site_id) if of_site else None
    known = whole(station) if station else None
    if station is None or known is None:
        return {}
    found = {}
    for w in of_site:
        key = (w.model.key, w.threshold.value)
        if key not in found:
            values = _values(station, w.model.key)
            risky = np.where(np.isnan(values), np.nan, at_risk(values, w.threshold.value).astype(float))
            found[key] = Spell(known.weather.days.first, risky)
    return found


@kept()
def _values(station: Station, model: str) -> Floats:
    """A model's values over all that is known of a station [its own unit]."""
    known = whole(station)
    assert known
    return MODELS[model].run(known.weather).values
