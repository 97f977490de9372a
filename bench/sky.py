"""Today with two hundred areas and ten years of weather: how it grows with either, in one process with a database of its own.

python -m bench.sky
"""

import os
import subprocess
import sys
import tempfile
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bench.timing import best

ROOT = Path(__file__).resolve().parent.parent
NOW = datetime(2026, 8, 12, 10, tzinfo=UTC)


def run() -> None:
    """Measure in a process of its own, for Django is set up once."""
    with tempfile.TemporaryDirectory() as var:
        env = {
            **os.environ,
            "GREENMEASURE_VAR": var,
            "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
            "GREENMEASURE_CLOCK": NOW.isoformat(),
        }
        subprocess.run([sys.executable, "manage.py", "bring_up_to_date"], cwd=ROOT, env=env, check=True)
        subprocess.run([sys.executable, "-m", "bench.sky"], cwd=ROOT, env=env, check=True)


def measure() -> None:
    """Print the ratios."""
    import django

    django.setup()
    from greenmeasure.accounts.models import Account
    from greenmeasure.today.queries import today

    accounts = {(areas, years): _account(areas, years) for areas, years in ((50, 10), (200, 10), (200, 2), (200, 0))}

    def again(key: tuple[int, int]) -> None:
        today(Account.objects.get(pk=accounts[key]))

    def afresh(key: tuple[int, int]) -> None:
        """As after new hours have come in."""
        account = Account.objects.get(pk=accounts[key])
        for station in account.stations.all():
            station.renew()
        today(account)

    warm = {key: best(lambda key=key: again(key)) for key in accounts}  # type: ignore[misc]
    cold = {key: best(lambda key=key: afresh(key)) for key in accounts}  # type: ignore[misc]
    big = (200, 10)
    print(f"Today, 200 areas and 10 years / 200 areas without weather  {warm[big] / warm[200, 0]:.1f}x")
    print(f"Today, 200 areas / 50 areas                                {warm[big] / warm[50, 10]:.1f}x  (linear is 4x)")
    print(f"Today, 10 years / 2 years                                  {warm[big] / warm[200, 2]:.1f}x  (linear is 5x)")
    print(f"Today after new hours came in / before                     {cold[big] / warm[big]:.1f}x")
    print(f"after new hours, 10 years / 2 years                        {cold[big] / cold[200, 2]:.1f}x  (linear is 5x)")


def _account(areas: int, years: int) -> int:
    """An account with so many greens and so many years of made-up weather, and the demo's products."""
    import json

    import numpy as np

    from core.weather.hours import Hour
    from greenmeasure.accounts.models import Account, Site
    from greenmeasure.ground.models import Area
    from greenmeasure.shelf.actions import save_product
    from greenmeasure.shelf.schemas import ProductIn
    from greenmeasure.sky.keeping import keep_forecast
    from greenmeasure.sky.models import Reading, Station
    from sims import climate

    account = Account.objects.create(name=f"{areas} {years}", slug=f"c-{areas}-{years}")
    site = Site.objects.create(account=account, name="Site", time_zone="America/New_York")
    for i in range(areas):
        Area.objects.create(
            account=account,
            site=site,
            name=f"Green {i}",
            size_value=5000,
            size_unit="ft2",
            grass="creeping_bentgrass",
            use="green",
            height_value=0.2,
            height_unit="in",
        )
    for given in json.loads((ROOT / "demo" / "products.json").read_text(encoding="utf-8")):
        save_product(account, ProductIn(**given))
    if years:
        station = Station.objects.create(account=account, site=site, name="Mast", latitude=41.2, longitude=-72.6)
        end = np.datetime64(NOW.replace(tzinfo=None), "h")
        times = np.arange(end - np.timedelta64(years * 8766, "h"), end)
        made = climate.weather(times)
        begin = NOW - timedelta(hours=len(times))
        Reading.objects.bulk_create(
            [
                Reading(station=station, at=begin + timedelta(hours=i), source="csv", **{n: float(v[i]) for n, v in made.items()})
                for i in range(len(times))
            ],
            2000,
        )
        ahead, foretold = climate.forecast(end)
        told = [{n: float(v[i]) for n, v in foretold.items()} for i in range(len(ahead))]
        keep_forecast(station, NOW, [Hour(NOW + timedelta(hours=i), **v, forecast=True) for i, v in enumerate(told)])
    return account.pk


if __name__ == "__main__":
    measure()
