"""Hours fit to work, and the degree-day clock of regulators."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from core.errors import InputError
from core.ground import Stress
from core.growth.clock import TARGETS, Stage, growth_shape, run, target_of
from core.growth.standing import calendar, cautions, target_for, turfs_of
from core.label.product import Kind
from core.label.rules import Leaf, Rules
from core.tests.things import GREEN, LAWN
from core.tests.weather import START
from core.units import read_quantity
from core.weather.hours import Hour, Hours, table
from core.weather.windows import (
    Conditions,
    Fit,
    Judged,
    Needs,
    Shut,
    holds,
    judge_hours,
    limiting,
    needs_of,
    shut_by,
    together,
    verdict,
    windows,
)

FIRST = date(2031, 5, 1)


def hours(count: int = 48, forecast_from: int = 10_000, **columns: list[float] | float) -> Hours:
    """So many hours of good weather, with columns set by the hour."""

    def at(name: str, i: int, plain: float) -> float:
        value = columns.get(name, plain)
        return value[i] if isinstance(value, list) else value

    return table(
        Hour(
            START + timedelta(hours=i),
            air=at("air", i, 20),
            humidity=at("humidity", i, 60),
            rain=at("rain", i, 0),
            wind=at("wind", i, 2),
            forecast=i >= forecast_from,
        )
        for i in range(count)
    )


def judged(found: Hours, needs: Needs, now: int = 0, wet: float = 0.0, **more: object) -> Judged:
    return judge_hours(found, needs, now=now, wet=np.full(len(found), wet), **more)


class LaidOver(unittest.TestCase):
    def test_what_shuts_hours_may_be_laid_over_them_afterwards(self) -> None:
        rain = [0.0] * 48
        rain[20] = 2.0
        found = hours(rain=rain, wind=[3.0 if i % 5 else 6.0 for i in range(48)])
        needs = Needs(dry_before=3, wind=(None, 4.0), why={"wind": "A", "dry_before": "A"})
        flags = np.zeros(48, dtype=bool)
        flags[[4, 10, 21, 22, 30]] = True
        shut = (Shut("kept-apart", flags, Fit.BAD, "Apart."), Shut("walk", ~flags, Fit.MIND, "Wet."))
        for now in (0, 7):
            at_once = judged(found, needs, now, around=Conditions(shut=shut))
            after = shut_by(judged(found, needs, now), shut, now)
            self.assertEqual(at_once.reasons, after.reasons)
            np.testing.assert_array_equal(at_once.fits, after.fits)
        self.assertGreater(len({len(r) for r in at_once.reasons}), 2)


class Rain(unittest.TestCase):
    def test_before_and_after_are_two_rules(self) -> None:
        """Rain in hour 10: 3 dry hours before rule out 10 to 13, 4 dry hours after rule out 6 to 10."""
        rain = [0.0] * 48
        rain[10] = 2.0
        before = judged(hours(rain=rain), Needs(dry_before=3))
        after = judged(hours(rain=rain), Needs(dry_after=4))
        self.assertEqual([i for i in range(40) if before.fits[i] == Fit.BAD], [10, 11, 12, 13])
        self.assertEqual([i for i in range(40) if after.fits[i] == Fit.BAD], [6, 7, 8, 9, 10])

    def test_beyond_the_forecast_it_is_not_known(self) -> None:
        found = judged(hours(24), Needs(dry_after=6))
        self.assertEqual((found.fits[17], found.fits[18]), (Fit.GOOD, Fit.UNKNOWN))

    def test_a_gap_in_rain_is_not_dry(self) -> None:
        found = hours(24)
        found.rain[5] = np.nan
        self.assertEqual(judged(found, Needs(dry_before=2)).fits[6], Fit.UNKNOWN)


class Limits(unittest.TestCase):
    def test_wind_and_air_between_their_limits(self) -> None:
        needs = Needs(air=(10, 27), wind=(1.0, 4.5), why={"air": "A", "wind": "B"})
        for column, value, key in (("air", 9.0, "air"), ("air", 28.0, "air"), ("wind", 0.5, "wind"), ("wind", 5.0, "wind")):
            found = judged(hours(4, **{column: value}), needs)
            self.assertEqual((found.fits[0], found.reasons[0][0].key), (Fit.BAD, key), (column, value))
        self.assertEqual(judged(hours(4), needs).fits[0], Fit.GOOD)

    def test_a_forecast_must_hold_with_its_error_against_it(self) -> None:
        """4.2 m/s now is within 4.5; foretold two days ahead it may be 0.3 + 48 × 0.012 = 0.9 m/s more."""
        needs = Needs(wind=(None, 4.5))
        self.assertEqual(judged(hours(60, wind=4.2), needs).fits[48], Fit.GOOD)
        self.assertEqual(judged(hours(60, forecast_from=1, wind=4.2), needs).fits[48], Fit.MIND)
        self.assertEqual(judged(hours(60, forecast_from=1, wind=4.2), needs).fits[1], Fit.MIND)
        self.assertEqual(judged(hours(60, forecast_from=1, wind=3.5), needs).fits[1], Fit.GOOD)

    def test_an_old_forecast_is_less_sure(self) -> None:
        found = hours(6, forecast_from=1, wind=3.9)
        fresh, old = (judged(found, Needs(wind=(None, 4.5)), age=a).fits[2] for a in (0.0, 48.0))
        self.assertEqual((fresh, old), (Fit.GOOD, Fit.MIND))

    @given(st.floats(0, 8), st.floats(0, 8))
    def test_a_narrower_limit_never_makes_an_hour_better(self, wind: float, most: float) -> None:
        found = hours(2, wind=wind)
        loose, tight = (judged(found, Needs(wind=(None, limit))).fits[0] for limit in (most + 1, most))
        self.assertGreaterEqual(tight, loose)

    def test_what_is_not_known_is_never_good(self) -> None:
        # 4.5 m/s is only a limit to compare with.
        found = hours(3)
        found.wind[1] = np.nan
        self.assertEqual(judged(found, Needs(wind=(None, 4.5))).fits[1], Fit.UNKNOWN)


class LeafLightAndDrops(unittest.TestCase):
    def test_the_leaf(self) -> None:
        for leaf, wet, fit in (
            (Leaf.DRY, 1.0, Fit.BAD),
            (Leaf.DRY, 0.0, Fit.GOOD),
            (Leaf.WET, 0.0, Fit.BAD),
            (Leaf.EITHER, 1.0, Fit.GOOD),
        ):
            self.assertEqual(judged(hours(3), Needs(leaf=leaf), wet=wet).fits[0], fit)
        self.assertEqual(judged(hours(3), Needs(leaf=Leaf.DRY), wet=np.nan).fits[0], Fit.UNKNOWN)

    def test_dark_and_quiet_hours(self) -> None:
        light = np.array([True, False, True])
        found = judged(hours(3), Needs(), around=Conditions(light=light, quiet=np.array([False, False, True])))
        self.assertEqual(list(found.fits), [Fit.GOOD, Fit.BAD, Fit.BAD])

    def test_slow_and_fast_drying_are_minded_for_spray_alone(self) -> None:
        for air, humidity in ((14.0, 92.0), (36.0, 25.0)):
            found = hours(2, air=air, humidity=humidity)
            self.assertEqual(judged(found, Needs(droplets=True)).fits[0], Fit.MIND)
            self.assertEqual(judged(found, Needs()).fits[0], Fit.GOOD)

    def test_still_air_near_dawn_is_minded(self) -> None:
        light = np.array([False] * 4 + [True] * 8)
        found = judged(hours(12, wind=0.5), Needs(droplets=True), around=Conditions(light=light))
        self.assertIn("layers", [r.key for r in found.reasons[4]])
        self.assertNotIn("layers", [r.key for r in found.reasons[10]])


class MowerHoseAndSleep(unittest.TestCase):
    def flags(self, *on: int) -> np.ndarray:
        return np.isin(np.arange(48), on)

    def test_the_mower_before_and_after_are_two_rules(self) -> None:
        around = Conditions(mown=self.flags(20))
        before = judged(hours(), Needs(mow_before=4), around=around)
        after = judged(hours(), Needs(mow_after=3), around=around)
        self.assertEqual([i for i in range(48) if before.fits[i] == Fit.BAD], [21, 22, 23, 24])
        self.assertEqual([i for i in range(48) if after.fits[i] == Fit.BAD], [17, 18, 19, 20])

    def test_the_hose_counts_as_rain_after_and_wets_the_leaf(self) -> None:
        around = Conditions(watered=self.flags(10))
        self.assertEqual(judged(hours(), Needs(dry_after=2), around=around).fits[8:12].tolist(), [3, 3, 3, 0])
        self.assertIn("Shift the watering", judged(hours(), Needs(dry_after=2), around=around).reasons[9][0].text)
        self.assertEqual(judged(hours(), Needs(leaf=Leaf.DRY), around=around).fits[9:12].tolist(), [0, 3, 0])

    def test_turf_that_sleeps_is_minded_by_what_works_on_growth(self) -> None:
        around = Conditions(dormant=np.ones(48, dtype=bool))
        growing = needs_of(Rules(), "Regulator", True, Kind.GROWTH_REGULATOR)
        self.assertEqual(
            (judged(hours(), growing, around=around).fits[0], judged(hours(), Needs(), around=around).fits[0]), (1, 0)
        )

    def test_a_wet_leaf_says_when_it_dries_and_words_are_of_the_account(self) -> None:
        wet = np.array([1.0] * 3 + [0.0] * 45)
        found = judge_hours(hours(wind=6.0), Needs(leaf=Leaf.DRY, wind=(None, 4.0)), now=0, wet=wet, us=True)
        said = " ".join(r.text for r in found.reasons[0])
        self.assertIn("dries in about 3 h", said)
        self.assertIn("Wind of 13 mph is above 9 mph", said)
        self.assertNotIn("m/s", said)


class Tank(unittest.TestCase):
    one = needs_of(Rules(temperature=(5.0, 27.0), wind=(None, 4.5), leaf=Leaf.DRY, rain_after=6), "One", True)
    other = needs_of(Rules(temperature=(10.0, 30.0), wind=(None, 3.6), rain_after=2), "Other", True)

    def test_the_strictest_of_all(self) -> None:
        # The higher of the lows, the lower of the highs, the longest of the waits.
        found = together([self.one, self.other])
        needs = found.needs
        self.assertEqual((needs.air, needs.wind, needs.leaf, needs.dry_after), ((10, 27), (None, 3.6), Leaf.DRY, 6))
        self.assertEqual((needs.why["wind"], needs.why["dry_after"], found.contradictions), ("Other", "One", ()))

    def test_rain_wanted_and_rain_forbidden(self) -> None:
        watered = needs_of(Rules(water_in_delay=4, water_in_depth=5), "Root", True)
        self.assertIn(
            "Root must be watered in within 4 h; One must stay dry for 6 h", together([self.one, watered]).contradictions[0]
        )
        self.assertEqual(together([self.other, watered]).contradictions, ())

    def test_leaf_and_limits_that_leave_nothing(self) -> None:
        wet = needs_of(Rules(leaf=Leaf.WET, temperature=(28.0, None)), "Wet", False)
        self.assertEqual(len(together([self.one, wet]).contradictions), 2)

    @given(st.permutations(range(3)))
    def test_order_does_not_matter(self, order: list[int]) -> None:
        # The higher of the lows, the lower of the highs.
        every = [self.one, self.other, needs_of(Rules(wind=(1.0, 4.0)), "Third", True)]
        self.assertEqual(together([every[i] for i in order]).needs.wind, (1.0, 3.6))


class Windows(unittest.TestCase):
    def test_runs_long_enough_good_ones_first(self) -> None:
        fits = np.array([3, 1, 1, 1, 3, 0, 0, 3, 0])
        found = windows(Judged(fits, ((),) * 9), 2)
        self.assertEqual([(w.start, w.hours, w.all_good) for w in found], [(5, 2, True), (1, 3, False)])
        self.assertEqual(windows(Judged(np.full(5, 3), ((),) * 5)), [])

    def test_a_run_with_good_hours_in_it_is_told_by_them(self) -> None:
        fits = np.array([1, 1, 0, 0, 0, 1, 3, 1, 1])
        self.assertEqual([(w.start, w.hours, w.mind) for w in windows(Judged(fits, ((),) * 9), 2)], [(2, 3, 0), (7, 2, 2)])
        self.assertEqual((holds(Judged(fits, ((),) * 9)), verdict(Judged(fits, ((),) * 9), 2)), (6, Fit.MIND))

    def test_what_would_have_to_change(self) -> None:
        found = judged(hours(12, wind=6.0), Needs(wind=(None, 4.5)))
        self.assertEqual(limiting(found), "wind")
        self.assertEqual(limiting(judged(hours(12), Needs())), "")

    def test_go_wait_or_no(self) -> None:
        def of(*fits: int, needed: int = 2) -> Fit:
            return verdict(Judged(np.array(fits), ((),) * len(fits)), needed)

        self.assertEqual((of(0, 0, 3), of(0, 1, 3), of(3, 0, 0), of(0, 3, 0)), (Fit.GOOD, Fit.MIND, Fit.UNKNOWN, Fit.BAD))


class Clocks(unittest.TestCase):
    target = target_of("trinexapac-ethyl", "green")

    def days(self, count: int, mean: float) -> tuple[np.ndarray, np.ndarray]:
        return np.full(count, mean + 5.0), np.full(count, mean - 5.0)

    def test_counted_from_the_day_after(self) -> None:
        """At a mean of 20 °C on base 0 it is 20 a day: 200 after ten days, on the tenth after the application."""
        assert self.target
        high, low = self.days(30, 20)
        found = run(FIRST, high, low, FIRST, FIRST + timedelta(days=5), self.target)
        self.assertEqual((found.sum, found.stage, found.due), (100, Stage.HOLDS, FIRST + timedelta(days=10)))

    def test_stages_to_the_rebound_and_beyond(self) -> None:
        """At 20 a day: due from 180, ended from 230, rebound from 300 (Kreuser and Soldat 2011), over from 600."""
        assert self.target
        high, low = self.days(40, 20)
        said = {d: run(FIRST, high, low, FIRST, FIRST + timedelta(days=d), self.target).stage for d in (8, 10, 12, 15, 31)}
        self.assertEqual(list(said.values()), [Stage.HOLDS, Stage.DUE, Stage.ENDED, Stage.REBOUND, Stage.GONE])

    def test_the_forecast_gives_a_span(self) -> None:
        assert self.target
        high, low = self.days(40, 20)
        foretold = np.array([0.0] * 5 + [1.0] * 35)
        found = run(FIRST, high, low, FIRST, FIRST + timedelta(days=4), self.target, foretold=foretold)
        assert found.earliest and found.due and found.latest
        self.assertTrue(found.earliest <= found.due <= found.latest)
        self.assertLess(found.earliest, found.latest)

    def test_days_that_could_not_be_counted_are_told(self) -> None:
        assert self.target
        high, low = self.days(20, 20)
        high[3] = np.nan
        found = run(FIRST, high, low, FIRST, FIRST + timedelta(days=8), self.target)
        self.assertEqual((found.sum, found.missing), (140, 1))
        self.assertIn("1 day could not be counted", found.told(us=False))
        self.assertIn("base 0 °C", found.told(us=False))
        self.assertIn("base 0 °C (32 °F)", found.told(us=True))

    def test_an_application_ahead_or_before_the_weather(self) -> None:
        assert self.target
        high, low = self.days(20, 20)
        for since in (FIRST + timedelta(days=12), FIRST - timedelta(days=9)):
            with self.assertRaises(InputError):
                run(FIRST, high, low, since, FIRST + timedelta(days=10), self.target)

    def test_a_constant_climate_takes_the_same_from_any_day(self) -> None:
        assert self.target
        high, low = self.days(60, 17.3)
        gaps = {
            (found.due - found.since).days
            for d in range(20)
            if (found := run(FIRST, high, low, FIRST + timedelta(days=d), FIRST + timedelta(days=40), self.target)).due
        }
        self.assertEqual(len(gaps), 1)

    def test_targets_name_their_base_and_the_shape_turns_at_the_hold(self) -> None:
        # 10 °C for warm grasses is common practice, no source; the shape is fixed at its turns, from memory.
        self.assertEqual({t.base.celsius for t in TARGETS if t.turf == "warm"}, {10.0})
        self.assertIsNone(target_of("an unknown active", "green"))
        shape = growth_shape(np.array([0.0, 0.75, 1.5, 2.25, 3.0, 5.0]))
        self.assertTrue(shape[0] == 1 and shape[1] < 1 and abs(shape[2] - 1) < 1e-9 and shape[3] > 1 and shape[5] == 1)


class Regulators(unittest.TestCase):
    def test_which_target_a_turf_goes_by(self) -> None:
        # 200 growing degree days, base 0 °C: Kreuser and Soldat 2011.
        taller = replace(GREEN, height=read_quantity("0.6 in"))
        warm = replace(LAWN, grass="zoysiagrass")
        self.assertEqual([turfs_of(g) for g in (GREEN, taller, LAWN, warm)], [("green",), ("lawn",), ("lawn",), ("warm",)])
        target = target_for(["something else", "trinexapac-ethyl"], GREEN)
        self.assertEqual((target.sum, target.base.celsius) if target else None, (200.0, 0.0))
        self.assertIsNone(target_for(["fludioxonil"], GREEN))

    def test_the_calendar_beside_it(self) -> None:
        found = calendar(FIRST, (21, 28))
        self.assertEqual((found.first, found.last), (FIRST + timedelta(days=21), FIRST + timedelta(days=28)))
        self.assertEqual(calendar(FIRST, (None, None)).first, None)

    def test_what_to_mind(self) -> None:
        target = target_for(["trinexapac-ethyl"], LAWN)
        stressed = replace(LAWN, stress=Stress.DROUGHT)
        said = " ".join(cautions(stressed, target, FIRST, FIRST + timedelta(days=5), earlier=1))
        for words in ("rule of thumb", "lawn height", "first of the season", "pale tinge is usual now", "suffers from drought"):
            self.assertIn(words, said)
        green = target_for(["trinexapac-ethyl"], GREEN)
        self.assertEqual(cautions(GREEN, green, FIRST, FIRST + timedelta(days=20), earlier=3), [])
        self.assertIn("label's days must do", cautions(GREEN, None, FIRST, FIRST + timedelta(days=20), earlier=3)[0])
