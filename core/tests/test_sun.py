"""Daylight and evapotranspiration against worked examples of FAO-56 and against pyet."""

import unittest
from datetime import UTC, date, datetime
from zoneinfo import ZoneInfo

import numpy as np
import pandas as pd
import pyet

from core.errors import InputError
from core.tests.weather import even, local_days, real_hours
from core.weather.reference_et import Air, hargreaves, of_days, penman_monteith
from core.weather.sun import above_the_air, light_hours, place_of, sun_of

NEW_YORK = ZoneInfo("America/New_York")


class Light(unittest.TestCase):
    def test_a_published_sunrise(self) -> None:
        """New York on 21 June 2023: 05:25 to 20:31 EDT (almanac, from memory, to the minute)."""
        rise, fall = sun_of(date(2023, 6, 21), place_of(40.7128, -74.006), NEW_YORK) or (None, None)
        assert rise and fall
        self.assertLess(abs((rise - datetime(2023, 6, 21, 9, 25, tzinfo=UTC)).total_seconds()), 120)
        self.assertLess(abs((fall - datetime(2023, 6, 22, 0, 31, tzinfo=UTC)).total_seconds()), 120)

    def test_whole_hours_of_light_and_none_at_midnight(self) -> None:
        found = even(3)
        light = light_hours(found, place_of(40.7, -74.0), NEW_YORK)
        self.assertEqual(light[:24].tolist(), [6 <= h < 20 for h in range(24)])
        self.assertEqual(light.reshape(3, 24).sum(axis=1).tolist(), [14, 14, 14])

    def test_where_the_sun_does_not_set_all_hours_count(self) -> None:
        self.assertTrue(light_hours(even(2), place_of(78.0, 16.0), ZoneInfo("Europe/Oslo")).all())

    def test_a_place_off_the_earth(self) -> None:
        with self.assertRaises(InputError) as said:
            place_of(95, 0)
        self.assertEqual(said.exception.field, "latitude")


class Drinking(unittest.TestCase):
    """FAO-56, Allen et al. 1998: examples 8, 18 and 20."""

    def test_example_8_radiation_above_the_air(self) -> None:
        self.assertAlmostEqual(float(above_the_air(246, -20)), 32.2, places=1)

    def test_example_20_hargreaves_and_penman_with_little_known(self) -> None:
        above = above_the_air(196, 45.72)
        self.assertAlmostEqual(float(hargreaves(26.6, 14.8, above)), 5.0, delta=0.06)

    def test_against_pyet_over_a_real_year(self) -> None:
        """Day by day; `pyet` lets the latent heat go with the temperature in Hargreaves, FAO-56 holds it at 1/0.408 MJ/kg."""
        days = local_days(real_hours(), NEW_YORK)
        stamps = pd.DatetimeIndex([pd.Timestamp(days.day(i)) for i in range(len(days))])
        at = np.radians(40.64)

        def column(values: np.ndarray) -> pd.Series:
            return pd.Series(values, index=stamps)

        mean, high, low = (column(v) for v in ((days.high + days.low) / 2, days.high, days.low))
        theirs = pyet.hargreaves(mean, high, low, lat=at).to_numpy()
        numbers = np.array([s.dayofyear for s in stamps], dtype=float)
        above = above_the_air(numbers, 40.64)
        known = ~np.isnan(days.high)
        self.assertGreater(known.sum(), 350)
        np.testing.assert_allclose(
            hargreaves(days.high, days.low, above)[known],
            theirs[known] * (2.501 - 0.002361 * mean.to_numpy()[known]) * 0.408,
            rtol=0.002,
        )
        sun = np.minimum(0.16 * np.sqrt(days.high - days.low), 0.75) * above
        theirs = pyet.pm_fao56(
            mean, column(days.wind), rs=column(sun), elevation=0, lat=at, tmax=high, tmin=low, rh=column(days.humidity)
        ).to_numpy()
        ours = penman_monteith(Air(days.high, days.low, days.humidity, days.wind), above)
        clear = sun / (0.75 * above) >= 0.3  # below that pyet holds the share of clear sky at 0.3
        known = ~np.isnan(ours) & ~np.isnan(theirs) & (ours > 0) & clear
        self.assertGreater(known.sum(), 330)
        np.testing.assert_allclose(ours[known], theirs[known], rtol=1e-6)

    def test_where_wind_is_not_known_the_range_of_the_day_speaks(self) -> None:
        days = local_days(real_hours(), NEW_YORK)
        found = of_days(days, 40.64)
        self.assertEqual(np.isnan(found).tolist(), np.isnan(days.high).tolist())
        self.assertGreater(float(np.nanmean(found[180:210])), 2 * float(np.nanmean(found[:31])))
