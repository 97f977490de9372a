"""The last months of a station, read by themselves, are those of its years: hour for hour, day for day."""

from dataclasses import fields
from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from core.weather.days import Days
from core.weather.hours import FIELDS, Hour, Hours
from greenmeasure.sky.keeping import keep_forecast
from greenmeasure.sky.models import HandReading, Reading, Station
from greenmeasure.sky.weather import RECENT, near, recent, whole
from greenmeasure.tests.base import ApiTest
from sims import climate

END = datetime(2026, 5, 20, 13, tzinfo=UTC)
"""A hundred and twenty days before it, the clocks had not yet been put forward."""


NEAR = timedelta(hours=96)
"""How far what is read around an hour is held against all there is."""


class Recent(ApiTest):
    def station(self, days: int) -> Station:
        """A station with so many days of made-up hours, some of them missing, and what was read by hand."""
        made = Station.objects.create(account=self.account, site=self.area.site, name="Mast", latitude=41.0, longitude=-72.0)
        begin = END - timedelta(hours=24 * days)
        times = np.datetime64(begin.replace(tzinfo=None), "h") + np.arange(24 * days).astype("timedelta64[h]")
        values = climate.weather(times)
        edge = 24 * (days - RECENT)  # gaps lie about the hour at which the last months begin
        gaps = {i for a in (edge - 22, edge - 13, edge + 7, 24 * days - 60) for i in (a, a + 1)}
        rows = [
            Reading(station=made, at=begin + timedelta(hours=i), source="csv", **{n: float(v[i]) for n, v in values.items()})
            for i in range(24 * days)
            if i not in gaps
        ]
        Reading.objects.bulk_create(rows)
        for ago, kind, value in (
            (130, "rain", 30.0),
            (119.5, "rain", 22.0),
            (40, "rain", 9.0),
            (119.8, "soil", 3.5),
            (3, "wet", 1.0),
        ):
            HandReading.objects.create(station=made, at=END - timedelta(days=ago), kind=kind, value=value, by="M")
        keep_forecast(made, END, [Hour(END + timedelta(hours=i), air=15.0, humidity=80.0, forecast=True) for i in range(72)])
        return Station.objects.get(pk=made.pk)

    def same(self, mine: Any, theirs: Any, begin: int, what: str) -> None:
        np.testing.assert_array_equal(mine, theirs[begin:], what)

    def test_they_are_the_end_of_all_of_them(self) -> None:
        station = self.station(RECENT + 40)
        lately, every = recent(station), whole(station)
        assert lately and every
        hours = len(every.hours) - len(lately.hours)
        days = (lately.weather.days.first - every.weather.days.first).days
        self.assertGreater(days, 30)
        self.assertEqual(lately.hours.start, every.hours.times[hours])
        for name in (*FIELDS, "forecast"):
            self.same(getattr(lately.hours, name), getattr(every.hours, name), hours, name)
        self.same(lately.weather.number + days, every.weather.number, hours, "day of the hour")
        self.same(lately.weather.clock, every.weather.clock, hours, "hour of the clock")
        for f in fields(Days):
            if f.name != "first":
                self.same(getattr(lately.weather.days, f.name), getattr(every.weather.days, f.name), days, f.name)
        self.assertEqual((lately.issued, lately.last), (every.issued, every.last))
        self.assertGreater(np.isfinite(lately.hours.rain).sum(), 2000)

    def test_of_a_young_station_they_are_all_of_them(self) -> None:
        station = self.station(RECENT - 10)
        lately, every = recent(station), whole(station)
        assert lately and every
        self.assertEqual(len(lately.hours), len(every.hours))
        self.assertIsInstance(lately.hours, Hours)

    def test_around_an_hour_it_is_the_same(self) -> None:
        """Before the first hour, at its gaps, over what was read by hand, where the forecast begins, and past its end."""
        station = self.station(RECENT)
        every = whole(station)
        assert every
        for ago in (24 * RECENT + 300, 24 * RECENT + 50, 24 * 119, 24 * 40, 60, 2, -70, -100, -400):
            hour = END - timedelta(hours=ago)
            found, begin = near(station, hour), every.hours.place(hour - NEAR)
            for i in range(begin, begin + 193):
                at = every.hours.start + np.timedelta64(i, "h")
                here = None if found is None else int((at - found.hours.start) / np.timedelta64(1, "h"))
                known = found is not None and here is not None and 0 <= here < len(found.hours)
                self.assertEqual(known, 0 <= i < len(every.hours), (ago, i))
                for name in (*FIELDS, "forecast") if known else ():
                    assert found and here is not None
                    np.testing.assert_array_equal(
                        getattr(found.hours, name)[here], getattr(every.hours, name)[i], f"{name} {ago} {i}"
                    )

    def test_around_an_hour_few_rows_are_read(self) -> None:
        station = self.station(RECENT)
        found = near(station, END)
        assert found
        self.assertLess(len(found.hours), 24 * 15)
