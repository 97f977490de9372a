"""What tests of plans share: a shelf of two fungicides that must take turns, and a station with years of made-up hours."""

from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from greenmeasure.accounts.models import Account, Site
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.sky.models import Reading, Station
from greenmeasure.tests.base import FUNGICIDE
from sims import climate

SPOT = {"use": "preventive", "target": "Dollar spot", "interval_low": 14, "interval_high": 28}
PATCH = {"use": "preventive", "target": "Brown patch", "interval_low": 14, "interval_high": 21}
SHELF: tuple[dict[str, Any], ...] = (
    FUNGICIDE
    | {
        "name": "Alpha SC",
        "group_code": "FRAC 3",
        "rates": [SPOT | {"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft"}],
        "rules": {"consecutive": 2, "applications_per_season": 4},
    },
    FUNGICIDE
    | {
        "name": "Beta SC",
        "group_code": "FRAC 7",
        "rates": [SPOT | {"phrase": "0.2 fl oz per 1,000 sq ft"}, PATCH | {"phrase": "0.3 fl oz per 1,000 sq ft"}],
        "rules": {"consecutive": 2, "applications_per_season": 3, "incompatible": [{"what": "FRAC 3", "days": 7}]},
    },
)


def make_shelf(account: Account) -> None:
    """Put the two on a shelf."""
    for card in SHELF:
        save_product(account, ProductIn(**card))


def make_station(account: Account, site: Site, until: datetime, days: int = 400) -> Station:
    """A station with so many days of made-up hours up to a time."""
    made = Station.objects.create(account=account, site=site, name="Mast", latitude=41.0, longitude=-72.0)
    end = until.astimezone(UTC).replace(minute=0, second=0, microsecond=0)
    times = np.datetime64(end.replace(tzinfo=None), "h") - np.arange(days * 24)[::-1].astype("timedelta64[h]")
    told = climate.weather(times)
    Reading.objects.bulk_create(
        Reading(
            station=made,
            at=end - timedelta(hours=len(times) - 1 - i),
            source="csv",
            **{n: round(float(told[n][i]), 2) for n in ("air", "humidity", "rain", "wind")},
        )
        for i in range(len(times))
    )
    made.renew()
    return made
