"""The walking plan: rectangles by hand, any outline by its invariants, what is kept off, where loads run out."""

import math
import unittest

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely import affinity
from shapely.geometry import LineString, Point, Polygon, box

from core.errors import InputError
from core.passes.plan import NUDGE, SHORTEST, KeepOff, PassKind, _cuts, _sides, best_direction, refills, walk

FIELD = box(0, 0, 40, 24)
ELL = Polygon([(0, 0), (30, 0), (30, 10), (12, 10), (12, 34), (0, 34)])


class Rectangle(unittest.TestCase):
    def test_six_stripes_of_forty_metres(self) -> None:
        """24 m at 4 m are 6 passes of 40 m: 240 m, which at 4 m cover the 960 m² (arithmetic)."""
        found = walk(FIELD, 4, 0)
        self.assertEqual(len(found.passes), 6)
        self.assertAlmostEqual(found.on, 240)
        self.assertAlmostEqual(found.covered, FIELD.area)
        self.assertAlmostEqual(found.between, 5 * 4)
        self.assertAlmostEqual(found.seconds(1.25, turn=6), 260 / 1.25 + 5 * 6)
        self.assertEqual([p.line[0][1] for p in found.passes], [2, 6, 10, 14, 18, 22])

    def test_each_pass_starts_where_the_last_one_ended(self) -> None:
        found = walk(FIELD, 4, 0)
        for one, other in zip(found.passes, found.passes[1:], strict=False):
            self.assertAlmostEqual(one.line[-1][0], other.line[0][0])

    def test_a_half_shift_lies_between_the_first_rounds_tracks(self) -> None:
        # Tracks at 2, 6, 10 …, moved by half a swath of 4; the last is kept on the ground.
        self.assertEqual([p.line[0][1] for p in walk(FIELD, 4, 0, shift=0.5).passes], [4, 8, 12, 16, 20, 22])

    def test_an_odd_strip_is_walked_inside_the_edge(self) -> None:
        found = walk(box(0, 0, 40, 25), 4, 0)
        self.assertEqual([p.line[0][1] for p in found.passes], [2, 6, 10, 14, 18, 22, 23])

    @given(st.integers(0, 10_000), st.floats(0, 180), st.sampled_from([1.5, 3.0, 5.0]), st.sampled_from([0.0, 0.3]))
    def test_stripes_are_where_lines_cross_the_ground(self, seed: int, angle: float, spacing: float, shift: float) -> None:
        """Against lines cut with the ground by shapely, one by one; a ground of many corners with a hole in it."""
        random = np.random.default_rng(seed)
        turns = np.sort(random.uniform(0, 2 * np.pi, 12))
        reach = random.uniform(10, 40, 12)
        ground = (
            Polygon(np.column_stack([reach * np.cos(turns), reach * np.sin(turns)])).buffer(0).difference(Point(3, 2).buffer(3))
        )
        assume(ground.area > 100)
        level = affinity.rotate(ground, -angle, origin=(0, 0))
        left, bottom, right, top = level.bounds
        first, expected = bottom + (0.5 + shift) * spacing, []
        for n in range(max(1, math.ceil((top - bottom) / spacing - shift - 1e-9))):
            y = min(first + n * spacing, max(first, top - spacing / 2))
            cut = level.intersection(LineString([(left - 1, y + NUDGE), (right + 1, y + NUDGE)]))
            pieces = [p for p in getattr(cut, "geoms", [cut]) if p.geom_type == "LineString" and p.length >= SHORTEST * spacing]
            expected += [(y, p.bounds[0], p.bounds[2]) for p in sorted(pieces, key=lambda p: p.bounds[0])]
        found = _cuts(_sides(ground), spacing, angle, shift)
        rows = sorted(zip(found.v, np.minimum(found.begin, found.end), np.maximum(found.begin, found.end), strict=True))
        self.assertEqual(len(rows), len(expected))
        np.testing.assert_allclose(rows, expected, atol=1e-6)

    def test_the_best_direction_is_along_the_long_side_however_it_lies(self) -> None:
        # A property: the field is turned by what is found.
        for turn in (0, 17.3, 60, 133):
            found = best_direction(affinity.rotate(FIELD, turn, origin=(0, 0)), 4)
            self.assertAlmostEqual((found - turn) % 180 % 179.999, 0, delta=0.01)

    def test_ground_one_swath_wide_is_one_pass(self) -> None:
        for width in (4, 4.2):
            found = walk(box(0, 0, 40, width), 4.0, 0)
            self.assertEqual(found.passes[0].line[0][1], 2)
        self.assertEqual(len(walk(box(0, 0, 40, 4), 4, 0).passes), 1)

    def test_rings_first_or_last_and_stripes_inside_them(self) -> None:
        """One ring 2 m inside 40 × 24 is 2 × (36 + 20) = 112 m, less 8 − 2π for four corners of 1 m radius; 16 m are left, 4
        stripes of 32 m (arithmetic).
        """
        found = walk(FIELD, 4, 0, edges=1)
        self.assertIs(found.passes[0].kind, PassKind.EDGE)
        self.assertAlmostEqual(found.passes[0].length, 112 - (8 - 2 * math.pi), delta=0.01)
        self.assertEqual([round(p.length) for p in found.passes[1:]], [32] * 4)
        self.assertIs(walk(FIELD, 4, 0, edges=1, edges_last=True).passes[-1].kind, PassKind.EDGE)

    def test_every_third_stripe_is_a_guide(self) -> None:
        self.assertEqual([p.guide for p in walk(FIELD, 4, 0, guides=3).passes], [False, False, True] * 2)


class AnyOutline(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(-500, 500), st.floats(-500, 500), st.floats(0, 179), st.floats(1.0, 5.0))
    def test_where_it_lies_and_how_it_is_turned_changes_nothing(self, dx: float, dy: float, turn: float, spacing: float) -> None:
        plain = walk(ELL, spacing, 0)
        moved = walk(affinity.translate(affinity.rotate(ELL, turn, origin=(0, 0)), dx, dy), spacing, turn)
        self.assertEqual(len(plain.passes), len(moved.passes))
        self.assertAlmostEqual(plain.on / moved.on, 1, places=6)

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0, 179), st.integers(0, 2))
    def test_stripes_stay_on_the_ground_and_cover_it(self, direction: float, edges: int) -> None:
        # A property.
        found = walk(ELL, 2, direction, edges=edges)
        grown = ELL.buffer(1e-6)
        for one in found.passes:
            self.assertTrue(grown.covers(LineString(one.line)))
        self.assertAlmostEqual(found.covered / ELL.area, 1, delta=0.15)

    def test_nothing_is_walked_within_the_buffer(self) -> None:
        # The buffers are those asked for, to 5 cm of a rounded corner.
        drain, pond = Point(20, 12), box(34, 0, 40, 8)
        found = walk(FIELD, 2, 0, edges=1, keep_off=[KeepOff(drain, 3), KeepOff(pond, 5)])
        for one in found.passes:
            line = LineString(one.line)
            self.assertGreaterEqual(line.distance(drain), 3 - 0.05)
            self.assertGreaterEqual(line.distance(pond), 5 - 0.05)
        self.assertTrue(any(p.kind is PassKind.STRIPE for p in found.passes))
        cut = [p for p in walk(FIELD, 2, 0, keep_off=[KeepOff(drain, 3)]).passes if abs(p.line[0][1] - 13) < 1e-6]
        self.assertEqual(len(cut), 2)

    def test_a_bed_within_is_walked_around(self) -> None:
        ring = Polygon(FIELD.exterior.coords, [box(15, 8, 25, 16).exterior.coords])
        found = walk(ring, 4, 0, edges=1)
        self.assertEqual(sum(p.kind is PassKind.EDGE for p in found.passes), 2)

    def test_refused(self) -> None:
        bow = Polygon([(0, 0), (10, 10), (10, 0), (0, 10)])
        for outline, spacing, field in (
            (bow, 2, "outline"),
            (FIELD, 0, "spacing"),
            (box(0, 0, 40, 3), 4, "spacing"),
            (box(0, 0, 500, 500), 0.2, "spacing"),
        ):
            with self.assertRaises(InputError) as refused:
                walk(outline, spacing, 0)
            self.assertEqual(refused.exception.field, field)
        with self.assertRaises(InputError):
            walk(FIELD, 4, 0, keep_off=[KeepOff(FIELD, 1)])

    def test_a_stripe_right_along_an_edge_is_left_out_however_the_ground_lies(self) -> None:
        """With 4 m between stripes the third runs along the inner edge of the ell, at 10 m."""
        for turn in (0, 6, 33.3, 90, 151):
            turned = affinity.rotate(ELL, turn, origin=(0, 0))
            self.assertEqual([round(p.length) for p in walk(turned, 4, turn).passes], [30, 30, 12, 12, 12, 12, 12, 12, 12])


class Refills(unittest.TestCase):
    def test_where_three_loads_run_out(self) -> None:
        """240 m at 4 m: loads of 400, 400 and 160 m² last 100, 100 and 40 m (arithmetic)."""
        places = refills(walk(FIELD, 4, 0), [400, 400, 160])
        self.assertEqual([(p.load, p.number) for p in places], [(1, 2), (2, 4)])
        self.assertAlmostEqual(places[0].along, 20)
        self.assertAlmostEqual(places[1].along, 40)
        self.assertEqual(places[0].at, (20, 10))

    @given(st.lists(st.floats(20, 300), min_size=1, max_size=8))
    def test_what_was_walked_until_a_refill_is_what_the_loads_cover(self, areas: list[float]) -> None:
        found = walk(ELL, 2, 0)
        for place in refills(found, areas):
            walked = math.fsum(p.length for p in found.passes[: place.number]) + place.along
            self.assertAlmostEqual(walked * 2 / math.fsum(areas[: place.load]), 1, places=6)

    def test_one_load_needs_none(self) -> None:
        self.assertEqual(refills(walk(FIELD, 4, 0), [960]), [])
