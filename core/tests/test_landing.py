"""The landing map: mass is kept, hand-made maps agree, and what a walker does shows where it should."""

import math
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity
from shapely.geometry import Polygon, box

from core.errors import InputError
from core.machines.pattern import Pattern, Way, overlapped, pattern
from core.passes.landing import Hand, Landed, even_profile, land, profile_of
from core.passes.plan import walk

FIELD = box(0, 0, 30, 24)
ELL = Polygon([(0, 0), (30, 0), (30, 10), (12, 10), (12, 34), (0, 34)])
SYMMETRIC = pattern([2, 6, 10, 12, 12, 13, 12, 12, 10, 6, 2], 0.5)
SKEW = pattern([1, 3, 6, 10, 14, 15, 12, 8, 5, 2, 1], 0.5)


def inside(laid: Landed) -> float:
    """What fell on the area [g]."""
    return float(laid.cells[laid.inside].sum() * laid.size**2)


class Mass(unittest.TestCase):
    @settings(max_examples=25, deadline=None)
    @given(
        st.floats(0, 180),
        st.integers(0, 2),
        st.sampled_from([SYMMETRIC, SKEW]),
        st.builds(
            Hand,
            line=st.sampled_from([0, 0.2]),
            pace=st.sampled_from([0, 0.1]),
            late=st.floats(0, 1),
            slow_over=st.floats(0, 2),
            slow=st.floats(0.4, 1),
            seed=st.integers(0, 9),
        ),
    )
    def test_inside_and_outside_make_what_was_applied(self, direction: float, edges: int, found: Pattern, hand: Hand) -> None:
        # Mass is kept.
        profile = profile_of(found)
        laid = land([walk(ELL, 4, direction, edges=edges)], ELL, profile, 20.0, 0.25, hand)
        self.assertAlmostEqual((inside(laid) + laid.mass_outside) / laid.applied, 1, delta=1e-9)

    def test_applied_is_length_times_spacing_times_rate(self) -> None:
        found = walk(FIELD, 4, 0, edges=1)
        laid = land([found], FIELD, even_profile(4), 20.0, 0.2)
        self.assertAlmostEqual(laid.applied / (found.on * 4 * 20), 1, places=12)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(-300, 300), st.floats(-300, 300))
    def test_where_the_ground_lies_changes_no_total(self, dx: float, dy: float) -> None:
        # A property: the same ground elsewhere, to the width of a cell.
        here = land([walk(ELL, 4, 30)], ELL, profile_of(SKEW), 20.0, 0.25)
        moved = affinity.translate(ELL, dx, dy)
        there = land([walk(moved, 4, 30)], moved, profile_of(SKEW), 20.0, 0.25)
        self.assertAlmostEqual(here.applied / there.applied, 1, places=6)
        self.assertAlmostEqual(here.mass_outside / there.mass_outside, 1, delta=0.01)
        self.assertAlmostEqual(here.cv, there.cv, delta=0.005)


class Maps(unittest.TestCase):
    def test_an_even_boom_at_its_own_width_is_even(self) -> None:
        laid = land([walk(FIELD, 4, 0)], FIELD, even_profile(4), 20.0, 0.25)
        np.testing.assert_allclose(laid.shares, 1, atol=1e-9)
        self.assertAlmostEqual(laid.mass_outside, 0, places=6)
        self.assertEqual((laid.under, laid.over), (0, 0))

    def test_the_swath_across_is_the_pan_tests_own_sum(self) -> None:
        """The middle of the map against the sums of the pan test, both ways of walking mirrored in it."""
        for found in (SYMMETRIC, SKEW):
            laid = land([walk(box(0, 0, 40, 56), 3.5, 0)], box(0, 0, 40, 56), profile_of(found), 20.0, 0.1)
            column = laid.cells[:, laid.cells.shape[1] // 2]
            middle = column[len(column) // 2 : len(column) // 2 + 70]
            swath = overlapped(found, 7, Way.BACK_AND_FORTH)
            self.assertAlmostEqual(float(middle.std() / middle.mean()), float(swath.std() / swath.mean()), delta=0.01)

    def test_against_a_plain_loop_over_cells(self) -> None:
        # The loop in this test is the reference.
        found, profile = walk(FIELD, 4, 0), profile_of(SKEW)
        laid = land([found], FIELD, profile, 20.0, 0.5)
        for row, column in ((20, 20), (33, 41), (12, 60)):
            x, y = laid.origin[0] + column * 0.5, laid.origin[1] + row * 0.5
            grams = 0.0
            for one in found.passes:
                (x0, v), (x1, _) = one.line[0], one.line[-1]
                if not min(x0, x1) + 0.5 < x < max(x0, x1) - 1:
                    continue
                side = profile.mirrored() if x1 > x0 else profile
                low, high = (float(side.up_to(np.array([at - v]))[0]) for at in (y, y + 0.5))
                grams += (high - low) / 0.5 * 20 * 4
            self.assertAlmostEqual(laid.cells[row, column] / grams, 1, delta=0.03)

    def test_two_half_passes_at_right_angles_are_evener_than_one(self) -> None:
        # A property; that two ways are evener is common practice, no source.
        one = land([walk(FIELD, 4, 0)], FIELD, profile_of(SKEW), 20.0, 0.2)
        two = land([walk(FIELD, 4, 0), walk(FIELD, 4, 90)], FIELD, profile_of(SKEW), 20.0, 0.2)
        self.assertLess(two.cv, one.cv)
        self.assertAlmostEqual(two.applied / one.applied, 1, delta=0.1)

    def test_a_turned_field_gets_what_the_straight_one_gets(self) -> None:
        # A property, to the width of a cell.
        straight = land([walk(FIELD, 4, 0)], FIELD, profile_of(SYMMETRIC), 20.0, 0.1)
        turned = affinity.rotate(FIELD, 37, origin=(0, 0))
        slanted = land([walk(turned, 4, 37)], turned, profile_of(SYMMETRIC), 20.0, 0.1)
        self.assertAlmostEqual(inside(straight) / inside(slanted), 1, delta=0.005)
        self.assertAlmostEqual(straight.cv, slanted.cv, delta=0.01)

    def test_walking_slowly_at_the_ends_overdoes_them(self) -> None:
        """At half the pace twice as much falls."""
        laid = land([walk(FIELD, 4, 0)], FIELD, even_profile(4), 20.0, 0.25, Hand(slow_over=2, slow=0.5))
        shares = np.unique(laid.shares.round(3))
        self.assertEqual(set(shares[[0, -1]]), {1.0, 2.0})
        self.assertAlmostEqual(laid.over, 4 / 30, delta=0.02)

    def test_opening_late_leaves_a_gap_and_closing_late_throws_over_the_edge(self) -> None:
        # 6 passes × 1 m × 4 m × 20 g/m² fall beyond the edge.
        laid = land([walk(FIELD, 4, 0)], FIELD, even_profile(4), 20.0, 0.25, Hand(late=1.0))
        self.assertGreater(laid.under, 0.02)
        self.assertAlmostEqual(laid.mass_outside, 6 * 1.0 * 4 * 20, delta=0.02 * laid.applied)

    def test_a_wide_throw_lands_beside_the_area_and_on_what_is_kept_off(self) -> None:
        bed = box(10, 24.2, 20, 26)
        laid = land([walk(FIELD, 4, 0)], FIELD, profile_of(SYMMETRIC), 20.0, 0.1, hazards=[bed])
        self.assertGreater(laid.mass_outside, 0)
        self.assertTrue(0 < laid.on_hazards < laid.mass_outside)

    def test_wander_is_the_same_for_the_same_seed_and_makes_it_worse(self) -> None:
        # A property: an even lay has a CV of 0.
        hand = Hand(line=0.4, pace=0.1, seed=5)
        maps = [land([walk(FIELD, 4, 0)], FIELD, even_profile(4), 20.0, 0.25, hand) for _ in range(2)]
        np.testing.assert_array_equal(maps[0].cells, maps[1].cells)
        self.assertGreater(maps[0].cv, 0.05)

    def test_a_walk_that_goes_beyond_the_area_falls_beside_it(self) -> None:
        # The walk is twice as long as the field: half of it falls beside.
        wider = box(0, 0, 60, 24)
        laid = land([walk(wider, 4, 0)], FIELD, even_profile(4), 20.0, 0.25)
        self.assertAlmostEqual(inside(laid), laid.mass_outside, delta=0.01 * laid.applied)
        np.testing.assert_allclose(laid.shares[:100], 1, atol=1e-6)

    def test_the_wander_is_as_wide_as_it_says(self) -> None:
        """Where one boom of 1 m walked a long line, its middle strays by the spread that was asked for."""
        strip = box(0, 0, 4000, 1)
        laid = land([walk(strip, 1, 0)], strip, even_profile(1), 1.0, 0.5, Hand(line=0.3, seed=3))
        rows = (np.arange(laid.cells.shape[0]) + 0.5) * laid.size + laid.origin[1]
        columns = laid.cells[:, 100:-100]
        middles = (rows[:, None] * columns).sum(axis=0) / columns.sum(axis=0)
        self.assertAlmostEqual(float(middles.std()), 0.3, delta=0.03)

    def test_the_histogram_is_the_whole_area(self) -> None:
        laid = land([walk(FIELD, 4, 0)], FIELD, profile_of(SKEW), 20.0, 0.2)
        self.assertAlmostEqual(math.fsum(laid.histogram()), 1)

    def test_refused(self) -> None:
        plan = walk(FIELD, 4, 0)
        for walks, rate, size, name in (
            ([], 20, 0.1, "walks"),
            ([plan], 0, 0.1, "rate"),
            ([plan], 20, 0.0, "size"),
            ([plan], 20, 0.005, "size"),
        ):
            with self.assertRaises(InputError) as refused:
                land(walks, FIELD, even_profile(4), rate, size)
            self.assertEqual(refused.exception.field, name)
