"""A big account: 200 areas, 300 products, ten years of hours, 5,000 entries, 2,000 rounds, 2,000 photographs.

It is the demo account, multiplied: what is copied is real in every field.
"""

from dataclasses import dataclass
from datetime import timedelta
from typing import Any

import numpy as np

SLUG = "alder-quay"


@dataclass(frozen=True)
class Size:
    """How much of everything an account has."""

    areas: int = 200
    products: int = 300
    years: int = 10
    entries: int = 5000
    rounds: int = 2000
    photos: int = 2000


def copied(row: Any, **other: Any) -> Any:
    """A copy of a row that is saved nowhere yet, with other values."""
    made = type(row)(**{f.attname: getattr(row, f.attname) for f in row._meta.concrete_fields})
    made.pk = None
    for name, value in other.items():
        setattr(made, name, value)
    return made


def book(entries: int) -> None:
    """Fill the book with copies of its applications, on each area and of each product in turn, further and further back."""
    from greenmeasure.accounts.models import Account
    from greenmeasure.book.models import Application, Entry

    account = Account.objects.get(slug=SLUG)
    found = list(Application.objects.filter(account=account).prefetch_related("entries"))
    areas = list(account.areas.filter(archived_at=None, parent=None))
    products = list(account.products.filter(archived_at=None))
    made, held = 0, sum(len(a.entries.all()) for a in found)
    while held < entries:
        a, area = found[made % len(found)], areas[made % len(areas)]
        ago = timedelta(days=37 * (1 + made * 3650 // (37 * entries)) + made % 37)
        other = {"round_id": None, "position": None, "area_id": area.pk, "area_name": area.name}
        more = copied(a, **other, applied_on=a.applied_on - ago, finished_at=a.finished_at - ago)
        more.save()
        mine = [copied(e, application_id=more.pk, product_id=_alike(e, products, made)) for e in a.entries.all()]
        Entry.objects.bulk_create(mine)
        held, made = held + len(mine), made + 1
    Account.objects.get(slug=SLUG).touch()


def _alike(entry: Any, products: list[Any], turn: int) -> Any:
    """A product of the same kind as that of an entry."""
    alike = [p.pk for p in products if entry.product and p.kind == entry.product.kind]
    return alike[turn % len(alike)] if alike else entry.product_id


def make(size: Size) -> None:
    """Multiply the demo account that is loaded."""
    from greenmeasure.accounts.models import Account

    account = Account.objects.get(slug=SLUG)
    _areas(account, size.areas)
    _products(account, size.products)
    _hours(account, size.years)
    book(size.entries)
    _rounds(account, size.rounds)
    _photos(account, size.photos)
    account.touch()


def _photos(account: Any, count: int) -> None:
    """Photographs, and a scout report for every fourth of them, back in time over all areas; the files are those of the demo."""
    from greenmeasure.scouting.models import Photo, Scouting

    areas = list(account.areas.filter(archived_at=None, parent=None).values_list("pk", flat=True))
    shots, reports = list(account.photos.all()), list(Scouting.objects.filter(area__account=account))
    more = range(count - len(shots))
    back = [timedelta(days=1 + n * 3650 // max(1, count)) for n in more]
    here = [areas[n % len(areas)] for n in more]
    of = [shots[n % len(shots)] for n in more]
    rows = [copied(p, area_id=a, spot_id=None, taken_at=p.taken_at - b) for p, a, b in zip(of, here, back, strict=True)]
    Photo.objects.bulk_create(rows, 2000)
    every = [reports[n % len(reports)] for n in more]
    seen = [copied(s, area_id=a, spot_id=None, on=s.on - b) for s, a, b in zip(every, here, back, strict=True)]
    Scouting.objects.bulk_create(seen[::4], 2000)


def _areas(account: Any, count: int) -> None:
    every = [a for a in account.areas.filter(archived_at=None, parent=None) if a.size_value]
    for i in range(count - account.areas.count()):
        copied(every[i % len(every)], name=f"{every[i % len(every)].name} {i}").save()


def _products(account: Any, count: int) -> None:
    every = list(account.products.filter(archived_at=None).prefetch_related("contents", "rates", "packages", "lots"))
    for i in range(count - len(every)):
        source = every[i % len(every)]
        made = copied(source, name=f"{source.name} {i}")
        made.save()
        for kind in ("contents", "rates", "packages", "lots"):
            rows = list(getattr(source, kind).all())
            if rows:
                type(rows[0]).objects.bulk_create([copied(r, product_id=made.pk) for r in rows])


def _hours(account: Any, years: int) -> None:
    from greenmeasure.sky.models import Reading
    from sims import climate

    station = account.stations.order_by("pk").first()
    first = station.readings.order_by("at").first().at
    end = np.datetime64(first.replace(tzinfo=None), "h")
    span = np.arange(years * 8766 - station.readings.count(), 0, -1).astype("timedelta64[h]")
    times = np.array([end], dtype="datetime64[h]") - span
    made = climate.weather(times)
    begin = first - timedelta(hours=len(times))
    rows = [
        Reading(station=station, at=begin + timedelta(hours=i), source="csv", **{n: float(v[i]) for n, v in made.items()})
        for i in range(len(times))
    ]
    Reading.objects.bulk_create(rows, 2000)
    station.renew()


def _rounds(account: Any, count: int) -> None:
    from uuid import uuid4

    from greenmeasure.rounds.models import Round, RoundComponent, RoundDose, Tick

    found = list(Round.objects.filter(account=account, status="done").prefetch_related("mix", "parts__doses", "ticks"))
    for i in range(count - len(found)):
        source = found[i % len(found)]
        made = copied(source, key=uuid4(), at=source.at - timedelta(days=1 + i))
        made.save()
        mix = {c.pk: copied(c, round_id=made.pk) for c in source.mix.all()}
        RoundComponent.objects.bulk_create(mix.values())
        for part in source.parts.all():
            own = copied(part, round_id=made.pk)
            own.save()
            RoundDose.objects.bulk_create(
                [copied(d, part_id=own.pk, component_id=mix[d.component_id].pk) for d in part.doses.all()]
            )
        Tick.objects.bulk_create([copied(t, round_id=made.pk) for t in source.ticks.all()])
