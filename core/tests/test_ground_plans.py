"""Plans on the ground: what lies near, dark stripes, coarse maps, positions, and how soils drink."""

import math
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from pyproj import Geod
from shapely.geometry import Polygon, box

from core.areas.plan import Outline, Plan
from core.errors import InputError
from core.machines.pattern import pattern
from core.passes.geo import Anchor, check_anchor, positions
from core.passes.landing import coarse, dark_stripes, even_profile, land, profile_of
from core.passes.near import How, Place, outline_of, shape_of, sides_of
from core.passes.plan import walk
from core.soil.ph_tables import TEXTURES
from core.water.intake import INTAKE, intake_of, pond_of

SQUARE = Plan((Outline(((0, 0), (30, 0), (30, 20), (0, 20))),))
WGS84 = Geod(ellps="WGS84")


class Near(unittest.TestCase):
    def test_outlines_that_overlap_count_once_and_holes_are_cut_out(self) -> None:
        """30 × 20 and 20 × 20 that share 10 × 20, less a hole of 5 × 4: 600 + 400 − 200 − 20 m² (arithmetic)."""
        more = Outline(((20, 0), (40, 0), (40, 20), (20, 20)))
        plan = Plan((*SQUARE.outlines, more, Outline(((2, 2), (7, 2), (7, 6), (2, 6)), hole=True)))
        self.assertAlmostEqual(outline_of(plan).area, 780)

    def test_a_spot_a_box_and_a_side(self) -> None:
        # π r², and the sides of a rectangle of 30 by 20.
        ground = outline_of(SQUARE)
        self.assertAlmostEqual(shape_of(Place(How.SPOT, 5, 5, across=2), ground).area, math.pi, delta=0.02)
        self.assertEqual(shape_of(Place(How.BOX, 5, 5, 3, 4), ground).bounds, (5, 5, 8, 9))
        sides = sides_of(ground)
        self.assertEqual(len(sides), 4)
        lengths = sorted(shape_of(Place(How.SIDE, side=n), ground).length for n in range(1, 5))
        self.assertEqual(lengths, [20, 20, 30, 30])

    def test_what_has_no_size_or_is_no_side(self) -> None:
        for place, field in (
            (Place(How.SPOT, 5, 5), "across"),
            (Place(How.BOX, 5, 5, 3), "along"),
            (Place(How.SIDE, side=5), "side"),
            (Place(How.SIDE), "side"),
        ):
            with self.assertRaises(InputError) as caught:
                shape_of(place, outline_of(SQUARE))
            self.assertEqual(caught.exception.field, field)


class Dark(unittest.TestCase):
    ground = Polygon([(0, 0), (40, 0), (40, 24), (0, 24)])

    def test_overlapping_passes_show_a_stripe_between_each_pair(self) -> None:
        """Swaths of 6 m walked 4 m apart lie twice on 2 m between neighbours: 5 stripes between 6 passes (arithmetic)."""
        walked = walk(self.ground, 4, 0)
        landed = land([walked], self.ground, even_profile(6), 10)
        found = dark_stripes(landed, 0, 0.4)
        self.assertEqual(len(walked.passes), 6)
        self.assertEqual([round(s.across) for s in found], [4, 8, 12, 16, 20])
        self.assertTrue(all(abs(s.share - 4 / 3) < 0.02 for s in found))

    def test_an_even_lay_shows_none(self) -> None:
        # A property: even is even.
        landed = land([walk(self.ground, 4, 0)], self.ground, even_profile(4), 10)
        self.assertEqual(dark_stripes(landed, 0, 0.4), [])

    def test_a_skewed_pattern_walked_there_and_back_pairs_its_heavy_sides(self) -> None:
        """Passes at 2, 6, 10 … m; the heavy side is the right: it meets itself at 8 and 16 m, not at 4, 12 and 20 m."""
        profile = profile_of(pattern([1, 2, 3, 4, 6, 9, 4], 1.0, 3))
        landed = land([walk(self.ground, 4, 0)], self.ground, profile, 10)
        stripes = dark_stripes(landed, 0, 0.4)
        self.assertEqual([round(s.across) for s in stripes if s.share > 2], [8, 16])
        self.assertFalse([s for s in stripes if round(s.across) in (4, 12, 20)])


class Coarse(unittest.TestCase):
    @given(st.integers(1, 90), st.integers(1, 90), st.integers(5, 40))
    def test_blocks_keep_the_mass(self, rows: int, columns: int, most: int) -> None:
        cells = np.random.default_rng(rows * 91 + columns).random((rows, columns))
        blocks, step = coarse(cells, most)
        self.assertLessEqual(max(blocks.shape), most)
        self.assertAlmostEqual(float(blocks.sum()) * step**2, float(cells.sum()), places=6)


class OnTheEarth(unittest.TestCase):
    """Checked against pyproj's own geodesics (C. F. F. Karney, 2013, J Geodesy 87:43-55)."""

    @given(st.floats(-70, 70), st.floats(-179, 179), st.floats(-300, 300), st.floats(-300, 300), st.floats(0, 359))
    def test_distances_from_the_anchor_are_the_plans(self, lat: float, lon: float, x: float, y: float, bearing: float) -> None:
        (east, north), (at_lon, at_lat) = positions([(x, y), (10.0, 20.0)], Anchor(lat, lon, (10.0, 20.0), bearing))
        self.assertAlmostEqual(at_lat, lat, places=6)
        _, _, metres = WGS84.inv(lon, lat, east, north)
        self.assertAlmostEqual(metres, math.hypot(x - 10, y - 20), delta=0.02)
        self.assertAlmostEqual((at_lon - lon + 180) % 360 - 180, 0, places=6)

    def test_up_points_along_the_bearing(self) -> None:
        for bearing in (0.0, 33.0, 180.0, 270.0):
            ((east, north),) = positions([(0.0, 100.0)], Anchor(41.2, -71.6, bearing=bearing))
            azimuth, _, _ = WGS84.inv(-71.6, 41.2, east, north)
            self.assertAlmostEqual(azimuth % 360, bearing, delta=0.05)

    def test_an_anchor_off_the_earth(self) -> None:
        for anchor in (Anchor(95, 10), Anchor(41, 190)):
            with self.assertRaises(InputError):
                check_anchor(anchor)


class Drinking(unittest.TestCase):
    def test_every_texture_has_its_rate_and_clay_drinks_least(self) -> None:
        """Ranges of FAO Irrigation Water Management Training Manual 5 (from memory)."""
        self.assertEqual(set(INTAKE), set(TEXTURES))
        spans = {"sandy_loam": (20, 30), "loam": (10, 20), "clay_loam": (5, 10), "clay": (1, 5)}
        for texture, (low, high) in spans.items():
            self.assertTrue(low <= intake_of(texture) <= high, texture)
        self.assertEqual(min(INTAKE, key=INTAKE.__getitem__), "clay")

    def test_less_stands_on_a_slope(self) -> None:
        self.assertTrue(pond_of(None) == pond_of(0.01) > pond_of(0.04) > pond_of(0.1) > 0)


class Corners(unittest.TestCase):
    def test_a_ring_never_comes_nearer_to_the_edge_than_it_should(self) -> None:
        # Half a swath of 4 m is 2 m.
        ground = box(0, 0, 30, 20)
        ring = walk(ground, 4, 0, edges=1).passes[0]
        nearest = min(min(x, y, 30 - x, 20 - y) for x, y in ring.line)
        self.assertAlmostEqual(nearest, 2.0, places=6)
