"""Sprayers, nozzles, spreaders and patterns against identities of exact units, published series and reference libraries."""

import math
import unittest
from functools import partial

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.interpolate import interp1d
from scipy.ndimage import convolve1d
from scipy.stats import linregress, variation

from core.errors import InputError
from core.label.rules import DROPLETS
from core.machines.nozzle import (
    REFERENCE,
    SIZES,
    TipState,
    check_tips,
    droplets_for,
    flow_at,
    nearest_size,
    of_solution,
    pressure_for,
    water_for,
)
from core.machines.pattern import Way, is_skewed, overlapped, pattern, spacings, widest
from core.machines.runs import Trust, odd_one, summarise
from core.machines.sprayer import (
    COURSES,
    beat,
    by_catch,
    by_dial,
    by_emptying,
    by_flow,
    by_strip,
    check_pace,
    drift,
    pace_for,
    time_for,
)
from core.machines.spreader import Point, caught, curve, midway, put_down, rate_at, setting_for
from core.units import UNITS

GAL, ACRE, KFT2, FT, INCH = (UNITS[k].size for k in ("gal", "acre", "kft2", "ft", "in"))
MPH, KMH, FL_OZ, LB = (UNITS[k].size for k in ("mph", "kmh", "fl_oz", "lb"))
HA = 10_000.0
SYMMETRIC = [2, 6, 10, 12, 12, 13, 12, 12, 10, 6, 2]
SKEW = [1, 3, 6, 10, 14, 15, 12, 8, 5, 2, 1]


class Repeats(unittest.TestCase):
    def test_agreeing_minding_and_differing(self) -> None:
        for values, trust in (
            ([10, 10.2, 9.9], Trust.AGREE),
            ([10, 10.8, 9.6], Trust.MIND),
            ([10, 13, 9], Trust.DIFFER),
            ([10], Trust.ONE),
        ):
            self.assertIs(summarise(values).trust, trust, values)

    def test_the_spread_is_the_samples(self) -> None:
        values = [0.91, 0.97, 0.88, 0.93]
        self.assertAlmostEqual(summarise(values).cv or 0, float(variation(values, ddof=1)), places=12)

    def test_a_run_twice_another_is_named(self) -> None:
        # 8.3 ÷ 4.0 = 2.1.
        found = summarise([4.1, 8.3, 4.0])
        self.assertEqual(found.odd, 1)
        self.assertIn("Run 2 is 2.1 times run 3", found.sentence)
        self.assertIn("Run 2 stands alone", found.sentence)

    def test_of_two_runs_none_is_the_odd_one(self) -> None:
        self.assertIsNone(odd_one([4.0, 8.0]))
        self.assertIsNone(summarise([4.0, 6.0, 8.0]).odd)

    def test_refused_with_the_run_named(self) -> None:
        for values, field in (([], "runs"), ([3.0, 0.0], "runs.1"), ([1.0] * 51, "runs"), ([math.nan], "runs.0")):
            with self.assertRaises(InputError) as caught_:
                summarise(values)
            self.assertEqual(caught_.exception.field, field)


class Outputs(unittest.TestCase):
    def test_5940_and_600_come_out_of_exact_units(self) -> None:
        """43,560 ft²/acre × 60 min/h × 12 in/ft ÷ 5,280 ft/mi = 5,940; 10,000 m²/ha × 60 ÷ 1,000 m/km = 600."""
        one = by_flow([GAL], [60.0], MPH, INCH).output
        self.assertAlmostEqual(one / (GAL / ACRE), 5940, places=8)
        self.assertAlmostEqual(by_flow([1.0], [60.0], KMH, 1.0).output * HA, 600, places=9)

    def test_worked_values(self) -> None:
        """0.4 gal/min, 3 mph, 20 in: 39.6 gal/acre, 0.9091 gal/1000 ft², 370.4 L/ha; 1.2 L/min, 6 km/h, 0.5 m: 240 L/ha."""
        found = by_flow([0.4 * GAL], [60.0], 3 * MPH, 20 * INCH).output
        self.assertAlmostEqual(found * ACRE / GAL, 39.6, places=9)
        self.assertAlmostEqual(found * KFT2 / GAL, 0.9091, places=4)
        self.assertAlmostEqual(found * HA, 370.42, places=2)
        self.assertAlmostEqual(by_flow([1.2], [60.0], 6 * KMH, 0.5).output * HA, 240, places=9)

    def test_what_is_caught_on_a_course_reads_as_the_output(self) -> None:
        """A gallon is 128 fl oz (exact), so on 1/128 acre ounces are gallons an acre; 340.3125 ft², 204.1875 ft at 20 in."""
        course = COURSES["acre_128"]
        self.assertAlmostEqual(course.area / FT**2, 340.3125, places=9)
        self.assertAlmostEqual(course.distance(20 * INCH) / FT, 204.1875, places=9)
        self.assertAlmostEqual(by_catch("acre_128", [43 * FL_OZ]).output * ACRE / GAL, 43, places=9)
        self.assertAlmostEqual(by_catch("kft2_128", [1.7 * FL_OZ]).output * KFT2 / GAL, 1.7, places=9)
        self.assertAlmostEqual(by_catch("ten_m2", [0.4]).output * HA, 400, places=9)

    @settings(max_examples=80, deadline=None)
    @given(st.floats(0.005, 0.5), st.floats(0.5, 3.0), st.floats(0.2, 6.0), st.floats(50, 5000))
    def test_all_ways_agree_and_output_times_area_is_volume(self, flow: float, pace: float, width: float, area: float) -> None:
        # Identities: output × area = flow × time.
        output = by_flow([flow * 30], [30.0], pace, width).output
        seconds = time_for(area, pace, width)
        self.assertAlmostEqual(output * area / (flow * seconds), 1, places=9)
        self.assertAlmostEqual(by_strip(area, [flow * seconds]).output / output, 1, places=9)
        self.assertAlmostEqual(by_emptying(flow * 40, [40.0], pace, width).output / output, 1, places=9)
        self.assertAlmostEqual(pace_for(output, flow, width) / pace, 1, places=9)

    def test_a_flow_is_never_taken_for_an_output(self) -> None:
        for field, pace, width in (("pace", None, 0.5), ("width", 1.0, None)):
            with self.assertRaises(InputError) as refused:
                by_flow([1.0], [60.0], pace, width)
            self.assertEqual(refused.exception.field, field)
            self.assertIn("a flow is no rate on ground", refused.exception.problem)

    def test_a_hose_end_dial(self) -> None:
        """1 oz/gal at 2 gal/min for 4 min over 1,000 ft² is 8 fl oz/1000 ft² (arithmetic)."""
        found = by_dial(1 / 128, 2 * GAL / 60, 240, KFT2)
        self.assertAlmostEqual(found * KFT2 / FL_OZ, 8, places=9)

    def test_refused_by_field(self) -> None:
        for act, field in (
            (partial(by_strip, 0.0, [1.0]), "area"),
            (partial(by_strip, 100.0, [1.0, 0.0]), "runs.1"),
            (partial(by_flow, [1.0], [0.0], 1.0, 0.5), "seconds.0"),
            (partial(by_flow, [1.0, 1.1], [60.0], 1.0, 0.5), "seconds"),
            (partial(by_flow, [1.0], [60.0], 30.0, 0.5), "pace"),
            (partial(by_catch, "mile", [1.0]), "course"),
            (partial(by_emptying, 4.0, [0.0], 1.0, 0.5), "seconds.0"),
            (partial(by_dial, 2.0, 0.1, 60.0, 90.0), "dial"),
            (partial(time_for, 100.0, 1.0, 0.0), "width"),
            (partial(check_pace, 0.0), "pace"),
        ):
            with self.assertRaises(InputError) as refused:
                act()
            self.assertEqual(refused.exception.field, field)


class Pace(unittest.TestCase):
    def test_a_hundred_feet(self) -> None:
        """100 ft in 22.7 s is 3.004 mph; mph is feet ÷ (88 × minutes), since 5,280 ÷ 60 is 88."""
        self.assertAlmostEqual(100 * FT / 22.7 / MPH, 3.004, places=3)
        self.assertAlmostEqual(beat(3 * MPH, 100 * FT), 100 / 88 / 3 * 60, places=9)

    def test_fatigue_is_the_line_through_the_stretches(self) -> None:
        """Against scipy's linear regression."""
        times = [20.1, 20.4, 20.2, 21.0, 21.3, 21.8]
        line = linregress(range(len(times)), times)
        self.assertAlmostEqual(drift(times), line.slope * 5 / line.intercept, places=9)
        self.assertAlmostEqual(drift([20.0, 20.0, 20.0]), 0, places=12)
        self.assertRaises(InputError, drift, [20.0, 21.0])


class Nozzles(unittest.TestCase):
    def test_the_size_series(self) -> None:
        """ISO 10625: the number is the flow in tenths of a US gallon a minute at 40 psi, 0.4 L/min each at 3 bar."""
        for key, size in SIZES.items():
            tenths = float(f"{key[:2]}.{key[2:] or 0}")
            self.assertAlmostEqual(size.flow * 60, 0.4 * tenths, places=9, msg=key)
            at_40_psi = flow_at(size.flow, REFERENCE, 40 * 6.894757) * 60 / GAL
            self.assertAlmostEqual(at_40_psi / (tenths / 10), 1, delta=0.02, msg=key)

    def test_the_square_root_law(self) -> None:
        """0.4 gal/min at 40 psi is 0.3464 at 30 and 0.4899 at 60; twice the flow takes four times the pressure."""
        self.assertAlmostEqual(flow_at(0.4, 40, 30), 0.3464, places=4)
        self.assertAlmostEqual(flow_at(0.4, 40, 60), 0.4899, places=4)
        self.assertAlmostEqual(pressure_for(1.0, 200, 2.0), 800)

    @given(st.floats(0.01, 3), st.floats(100, 600), st.floats(100, 600))
    def test_there_and_back(self, flow: float, one: float, other: float) -> None:
        self.assertAlmostEqual(flow_at(flow_at(flow, one, other), other, one) / flow, 1, places=9)
        self.assertAlmostEqual(pressure_for(flow, one, flow_at(flow, one, other)) / other, 1, places=9)

    def test_a_heavy_solution_runs_slower(self) -> None:
        """Water 0.50 gal/min, specific gravity 1.28: 0.4419 of solution."""
        self.assertAlmostEqual(of_solution(0.5, 1.28), 0.4419, places=4)
        self.assertAlmostEqual(water_for(of_solution(0.5, 1.28), 1.28), 0.5, places=12)
        self.assertRaises(InputError, of_solution, 0.5, 12.8)

    def test_the_nearest_size(self) -> None:
        # ISO 10625: size 03 gives 1.2 L/min at 300 kPa; at 150 kPa √½ of its own flow, so 04 comes nearer.
        self.assertEqual(nearest_size(1.2 / 60, 300).key, "03")
        self.assertEqual(nearest_size(1.2 / 60, 150).key, "04")

    def test_a_worn_a_blocked_and_a_foreign_tip(self) -> None:
        found = check_tips([20.0, 20.3, 19.8, 16.0, 20.1, 23.0], new=19.5)
        states = [t.state for t in found.tips]
        self.assertEqual(states, [TipState.GOOD] * 3 + [TipState.CLEAN, TipState.GOOD, TipState.CHANGE])
        self.assertIn("Worn", found.tips[5].sentence)
        self.assertEqual([t.number for t in found.bad], [4, 6])

    def test_a_whole_boom_that_is_worn_alike_shows_only_against_a_new_tip(self) -> None:
        # 22 ÷ 19.5 is 13 % over; 10 % is where a tip is changed (common practice, no source).
        worn = [22.0, 22.1, 21.9, 22.0]
        self.assertEqual(check_tips(worn).bad, ())
        self.assertEqual(len(check_tips(worn, new=19.5).bad), 4)

    def test_the_limits_belong_to_good(self) -> None:
        # 20 is just 10 % over 20 ÷ 1.1.
        self.assertEqual(check_tips([20.0, 20.0, 20.0], new=20.0 / 1.1).bad, ())

    def test_tips_refused(self) -> None:
        for catches, new, field in (
            ([20.0], None, "tips"),
            ([20.0, -1.0], None, "tips.1"),
            ([0.0, 0.0], None, "tips"),
            ([20.0, 20.0], 0.0, "new"),
        ):
            with self.assertRaises(InputError) as refused:
                check_tips(catches, new)
            self.assertEqual(refused.exception.field, field)

    def test_droplets_for_a_purpose(self) -> None:
        self.assertEqual(droplets_for(on_leaf=True, systemic=False, drift=False).text, "medium")
        self.assertEqual(droplets_for(on_leaf=True, systemic=True, drift=False).text, "medium to coarse")
        for leaf in (True, False):
            for systemic in (True, False):
                found = droplets_for(on_leaf=leaf, systemic=systemic, drift=True)
                self.assertGreaterEqual(found.finest, DROPLETS.index("coarse"))
                self.assertLessEqual(found.finest, found.coarsest)


class Patterns(unittest.TestCase):
    def test_a_symmetric_pattern_by_hand(self) -> None:
        """Sums of the shifted pattern, written out; CV by n - 1 and by n."""
        found = pattern(SYMMETRIC, FT)
        for pans, swath, cv, population in (
            (6, [13, 14, 18, 20, 18, 14], 17.677, 16.137),
            (7, [13, 12, 14, 16, 16, 14, 12], 12.096, 11.199),
            (8, [13, 12, 12, 12, 12, 12, 12, 12], 2.916, 2.728),
            (9, [13, 12, 12, 10, 8, 8, 10, 12, 12], 17.220, 16.235),
        ):
            here = next(s for s in spacings(found, Way.ROUND) if s.pans == pans)
            self.assertEqual(here.swath, tuple(swath))
            self.assertAlmostEqual(here.cv * 100, cv, places=3)
            self.assertAlmostEqual(here.cv_population * 100, population, places=3)

    def test_a_skewed_pattern_by_both_ways(self) -> None:
        # By hand: SKEW laid over itself 7 pans on; CV by n − 1 and by n of the seven sums.
        found = pattern(SKEW, FT)
        around = next(s for s in spacings(found, Way.ROUND) if s.pans == 7)
        self.assertEqual(around.swath, (15, 12, 9, 8, 8, 11, 14))
        self.assertAlmostEqual(around.cv * 100, 25.713, places=3)
        there = next(s for s in spacings(found, Way.BACK_AND_FORTH) if s.pans == 7)
        self.assertAlmostEqual(there.cv * 100, 25.214, places=3)
        self.assertAlmostEqual(there.cv_population * 100, 24.296, places=3)

    def test_every_spacing_is_tried_for_the_cv_does_not_fall_once(self) -> None:
        found = pattern(SYMMETRIC, FT)
        cvs = [s.cv for s in spacings(found, Way.ROUND) if 6 <= s.pans <= 9]
        self.assertTrue(cvs[0] > cvs[1] > cvs[2] < cvs[3])
        best = widest(found, Way.ROUND)
        assert best is not None
        self.assertEqual((best.pans, best.verdict), (8, "very good"))
        self.assertIsNone(widest(pattern([0, 0, 0, 30, 0, 0, 0], FT), Way.ROUND, limit=0.0))

    @settings(max_examples=80, deadline=None)
    @given(st.lists(st.floats(0, 50), min_size=5, max_size=25), st.integers(1, 25), st.sampled_from(Way))
    def test_overlap_keeps_the_mass(self, inner: list[float], pans: int, way: Way) -> None:
        found = pattern([0.0, *inner, 60.0, *reversed(inner), 0.0], 0.3)
        swath = overlapped(found, min(pans, len(found.catches)), way)
        passes = 2 if way is Way.BACK_AND_FORTH else 1
        self.assertAlmostEqual(float(swath.sum()) / (passes * float(found.array.sum())), 1, places=9)

    def test_many_passes_laid_down_one_by_one_make_the_same_swath(self) -> None:
        """Against scipy's convolution of the pattern with a comb of tracks."""
        found = pattern(SKEW, FT)
        comb = np.zeros(700)
        comb[::7] = 1
        laid = convolve1d(comb, found.array, mode="constant", origin=0)[350:357]
        np.testing.assert_allclose(laid, overlapped(found, 7, Way.ROUND), atol=1e-9)

    def test_a_mirrored_pattern_is_skewed_the_other_way(self) -> None:
        found, mirrored = pattern(SKEW, FT), pattern(SKEW[::-1], FT)
        self.assertAlmostEqual(found.middle, -mirrored.middle)
        self.assertAlmostEqual(found.left_share + mirrored.left_share, 1)
        self.assertTrue(is_skewed(pattern([0, 2, 9, 14, 12, 6, 3, 1, 0], FT)))
        self.assertFalse(is_skewed(pattern(SYMMETRIC, FT)))
        for s, m in zip(spacings(found, Way.BACK_AND_FORTH), spacings(mirrored, Way.BACK_AND_FORTH), strict=True):
            self.assertAlmostEqual(s.cv, m.cv, places=9)

    def test_half_rate_width(self) -> None:
        """With one-foot pans 6.5 is reached an eighth of a pan past the second and the tenth: 7.75 ft."""
        self.assertAlmostEqual(pattern(SYMMETRIC, FT).half_rate_width / FT, 7.75, places=9)

    def test_refused(self) -> None:
        for catches, apart, track, field in (
            ([1, 2, 1], FT, None, "pans"),
            ([3], FT, None, "pans"),
            ([0, 1, 2, -1, 0], FT, None, "pans.3"),
            ([0] * 7, FT, None, "pans"),
            (SYMMETRIC, 0.0, None, "apart"),
            (SYMMETRIC, FT, 11, "track"),
            ([12, 10, 6, 2, 2, 6, 10, 12, 13], FT, None, "pans"),
        ):
            with self.assertRaises(InputError) as refused:
                pattern(catches, apart, track)
            self.assertEqual(refused.exception.field, field)
        self.assertRaises(InputError, overlapped, pattern(SYMMETRIC, FT), 12, Way.ROUND)


class Spreaders(unittest.TestCase):
    CURVE = curve("Feed", [Point(8, 5.1), Point(4, 2.1), Point(6, 3.3)])

    def test_area_and_weight(self) -> None:
        """4.6 lb over 150 ft × 9 ft is 3.4074 lb/1000 ft² (arithmetic)."""
        self.assertAlmostEqual(put_down(4.6 * LB, 150 * 9 * FT**2) * KFT2 / LB, 3.4074, places=4)
        self.assertAlmostEqual(caught(100.0, 10.0, 0.5), 20.0)

    def test_between_tests_and_never_beyond(self) -> None:
        """4.0 from (4: 2.1, 6: 3.3, 8: 5.1) is setting 6.778 (arithmetic)."""
        self.assertAlmostEqual(setting_for(self.CURVE, 4.0), 6.778, places=3)
        for act in (
            partial(setting_for, self.CURVE, 5.2),
            partial(setting_for, self.CURVE, 1.0),
            partial(rate_at, self.CURVE, 9),
        ):
            self.assertRaises(InputError, act)

    @given(st.floats(4, 8))
    def test_there_and_back_and_as_scipy_has_it(self, setting: float) -> None:
        # scipy's `interp1d` is the reference.
        rate = rate_at(self.CURVE, setting)
        self.assertAlmostEqual(setting_for(self.CURVE, rate), setting, places=9)
        self.assertAlmostEqual(rate, float(interp1d([4, 6, 8], [2.1, 3.3, 5.1])(setting)), places=9)

    def test_tests_of_one_setting_are_averaged_and_one_test_speaks_for_itself(self) -> None:
        # (2.0 + 2.4) ÷ 2.
        found = curve("Feed", [Point(5, 2.0), Point(5, 2.4)])
        self.assertAlmostEqual(rate_at(found, 5), 2.2)
        self.assertAlmostEqual(setting_for(found, 2.2), 5)

    def test_a_wider_gate_that_puts_down_less_is_a_misread_test(self) -> None:
        with self.assertRaises(InputError) as refused:
            curve("Feed", [Point(4, 3.0), Point(6, 2.0)])
        self.assertIn("Setting 6 put down no more than setting 4", refused.exception.problem)
        self.assertRaises(InputError, curve, "Feed", [])

    def test_half_way(self) -> None:
        """40 lb for all, half done: 20 should be left. With 14 left 26 are used: 30 % too much, and it runs out."""
        good = midway(40 * LB, 0.5, 20 * LB)
        self.assertAlmostEqual(good.off, 0)
        self.assertIn("go on", good.sentence)
        over = midway(40 * LB, 0.5, 14 * LB)
        self.assertAlmostEqual(over.off, 0.3)
        self.assertAlmostEqual(over.ends_with / LB, -12)
        self.assertAlmostEqual(over.factor, 14 / 26)
        self.assertIn("runs out", over.sentence)
        under = midway(40 * LB, 0.5, 25 * LB, reserve=2 * LB)
        self.assertAlmostEqual(under.expected / LB, 21)
        self.assertIn("open the gate", under.sentence)

    @given(st.floats(0.1, 0.9), st.floats(0.2, 1.8))
    def test_the_corrected_rest_ends_with_the_reserve(self, done: float, factor: float) -> None:
        loaded, reserve = 30_000.0, 1_000.0
        used = min((loaded - reserve) * done * factor, loaded - reserve - 1)
        found = midway(loaded, done, loaded - used, reserve)
        rest = used / done * (1 - done) * found.factor
        self.assertAlmostEqual((loaded - used - rest) / loaded, reserve / loaded, places=9)

    def test_midway_refused(self) -> None:
        for done, left, field in ((0.0, 5.0, "done"), (1.0, 5.0, "done"), (0.5, 40.0, "left"), (0.5, -1.0, "left")):
            with self.assertRaises(InputError) as refused:
                midway(40.0, done, left)
            self.assertEqual(refused.exception.field, field)
