"""Ground: shapes, tapes, offsets, radii and rings against hand calculation, published rules and pyproj."""

import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st
from pyproj import Geod, Transformer
from scipy.integrate import simpson as scipy_simpson
from shapely.geometry import Polygon

from core.areas.compare import Agreement, difference
from core.areas.measure import METHODS, Sketch, in_trade, measure, parts_left
from core.areas.offsets import by_offsets, simpson, trapezoid
from core.areas.plan import Measured, shoelace
from core.areas.radii import chords, mean_radius, mean_square
from core.areas.rings import by_rings, geodesic_area, read_geometry, read_ring, to_geometry
from core.areas.shapes import composed, shape
from core.areas.taped import taped
from core.errors import InputError, NotUnderstood
from core.units import UNITS, read_quantity

FT, M = UNITS["ft"], UNITS["m"]
FT2 = UNITS["ft2"].size
OFFSETS = [0, 14, 22, 27, 31, 30, 26, 17, 0]
RADII = [42, 45, 50, 54, 51, 47, 44, 40, 38, 41, 43, 44]


def ft2(found: Measured) -> float:
    return found.size / FT2


class Shapes(unittest.TestCase):
    def test_each_shape_by_plane_geometry(self) -> None:
        """Euclid: a 3-4-5 triangle is half of 3 × 4, a circle π r², a trapezoid its mean side × distance."""
        cases = {
            "rectangle": ({"length": 120, "width": 80}, 9600),
            "triangle": ({"a": 30, "b": 40, "c": 50}, 600),
            "triangle_height": ({"base": 30, "height": 40}, 600),
            "circle": ({"radius": 21}, math.pi * 441),
            "ellipse": ({"length": 42, "width": 42}, math.pi * 441),
            "trapezoid": ({"side": 60, "opposite": 40, "across": 22}, 1100),
        }
        for key, (values, expected) in cases.items():
            self.assertAlmostEqual(ft2(shape(key, values, FT)), expected, places=8, msg=key)

    def test_the_drawing_is_the_size(self) -> None:
        for key, values in {
            "rectangle": {"length": 12, "width": 8},
            "trapezoid": {"side": 9, "opposite": 5, "across": 4},
            "triangle": {"a": 7, "b": 8, "c": 9},
            "ellipse": {"length": 9, "width": 4},
        }.items():
            found = shape(key, values, M)
            self.assertAlmostEqual(shoelace(found.plan.outlines[0].ring) / found.size, 1, places=2, msg=key)

    def test_parts_add_and_are_cut_out(self) -> None:
        """A 100 × 60 lawn with a half-disc end less a 10 × 12 bed: 6000 + π·30²/2 - 120 (arithmetic)."""
        half_disc = {"length": 60 * math.sqrt(0.5), "width": 60 * math.sqrt(0.5)}
        found = composed(
            [
                (1, "rectangle", {"length": 100, "width": 60}),
                (1, "ellipse", half_disc),
                (-1, "rectangle", {"length": 10, "width": 12}),
            ],
            FT,
        )
        self.assertAlmostEqual(ft2(found), 6000 + math.pi * 450 - 120, places=6)
        self.assertEqual([o.hole for o in found.plan.outlines], [False, False, True])
        boxes = [min(x for x, _ in o.ring) for o in found.plan.outlines]
        self.assertEqual(boxes, sorted(boxes))

    def test_refused_with_the_figure_named(self) -> None:
        for values, field in (
            ({"length": 10}, "values.width"),
            ({"length": 10, "width": 0}, "values.width"),
            ({"length": -1, "width": 4}, "values.length"),
            ({"length": 1e9, "width": 4}, "values.length"),
        ):
            with self.assertRaises(InputError) as said:
                shape("rectangle", values, FT)
            self.assertEqual(said.exception.field, field)
        with self.assertRaisesRegex(InputError, "close no triangle"):
            shape("triangle", {"a": 3, "b": 4, "c": 8}, FT)
        with self.assertRaisesRegex(InputError, "More is cut out"):
            composed([(1, "circle", {"radius": 3}), (-1, "circle", {"radius": 3})], FT)
        with self.assertRaisesRegex(InputError, "not a shape"):
            shape("star", {}, FT)


class Taped(unittest.TestCase):
    def test_a_quadrilateral_of_known_corners(self) -> None:
        """Corners (0,0) (120,10) (135,95) (20,110) enclose 11,500 by the shoelace formula (exact)."""
        c = [(0, 0), (120, 10), (135, 95), (20, 110)]
        sides = [math.dist(c[i], c[(i + 1) % 4]) for i in range(4)]
        found = taped(sides, [math.dist(c[0], c[2])], FT, check=math.dist(c[1], c[3]))
        self.assertAlmostEqual(ft2(found), 11_500, places=6)
        self.assertIn("agree", found.notes[-1])

    def test_a_misread_check_tape_is_said(self) -> None:
        found = taped([30, 40, 30, 40], [50], FT, check=56)
        self.assertIn("misread", found.notes[-1])

    @settings(deadline=None, max_examples=60)
    @given(st.integers(4, 9), st.floats(5, 60), st.floats(0.6, 1.0))
    def test_any_polygon_seen_from_its_first_corner(self, n: int, radius: float, squash: float) -> None:
        ring = [(radius * math.cos(2 * math.pi * i / n), squash * radius * math.sin(2 * math.pi * i / n)) for i in range(n)]
        sides = [math.dist(ring[i], ring[(i + 1) % n]) for i in range(n)]
        diagonals = [math.dist(ring[0], ring[i]) for i in range(2, n - 1)]
        found = taped(sides, diagonals, M)
        self.assertAlmostEqual(found.size / shoelace(ring), 1, places=9)
        self.assertAlmostEqual(shoelace(found.plan.outlines[0].ring) / found.size, 1, places=9)

    def test_refused(self) -> None:
        for sides, diagonals, words in (
            ([30, 40], [], "2 sides"),
            ([30, 40, 30, 40], [], "need 1 diagonals"),
            ([30, 40, 30, 40], [90], "close no triangle"),
            ([30, 0, 30, 40], [50], "Zero"),
        ):
            with self.assertRaisesRegex(InputError, words):
                taped(sides, diagonals, FT)


class Offsets(unittest.TestCase):
    def test_both_rules_on_a_worked_example(self) -> None:
        """Spacing 10: trapezoid 1670, Simpson 1700 (worked by hand; scipy agrees)."""
        self.assertAlmostEqual(trapezoid(OFFSETS, 10), 1670)
        self.assertAlmostEqual(simpson(OFFSETS, 10), 1700)
        self.assertAlmostEqual(simpson(OFFSETS, 10), float(scipy_simpson(OFFSETS, dx=10)))

    def test_which_rule_is_stated_with_the_other(self) -> None:
        found = by_offsets(OFFSETS, 10, FT, "simpson")
        self.assertAlmostEqual(ft2(found), 1700)
        self.assertRegex(found.notes[0], r"Trapezoid rule 1,670 ft², Simpson's 1,700 ft².*Taken: Simpson")

    def test_the_trapezoid_rule_is_the_drawn_outline(self) -> None:
        found = by_offsets([5, 8, 9, 4], 7, M)
        self.assertAlmostEqual(shoelace(found.plan.outlines[0].ring), found.size)

    def test_simpson_is_exact_on_a_parabola_and_asks_for_an_even_count(self) -> None:
        """Simpson's rule is exact for cubics (textbook): the arch y = x(8 - x) over 0..8 holds 256/3."""
        self.assertAlmostEqual(simpson([x * (8 - x) for x in range(9)], 1), 256 / 3)
        with self.assertRaisesRegex(InputError, "even number of intervals"):
            by_offsets([1, 2, 3, 4], 5, FT, "simpson")

    def test_refused(self) -> None:
        for given_, words in (([3], "1 offsets"), ([0, 0, 0], "All offsets are zero"), ([3, -1, 2], "below zero")):
            with self.assertRaisesRegex(InputError, words):
                by_offsets(given_, 5, FT)


class Radii(unittest.TestCase):
    def test_three_rules_on_a_worked_example(self) -> None:
        """Twelve radii: mean-radius 6338.2, mean-square 6403.9, chords 6100.0 (worked by hand)."""
        self.assertAlmostEqual(mean_radius(RADII), 6338.2, places=1)
        self.assertAlmostEqual(mean_square(RADII), 6403.9, places=1)
        self.assertAlmostEqual(chords(RADII), 6100.0, places=1)

    def test_a_shifted_circle_is_whole_by_the_mean_square(self) -> None:
        """From a pin off its centre a circle's r(θ) integrates to π R² (the polar area integral)."""
        pin = 0.3
        radii = [math.sqrt(1 - (pin * math.sin(t)) ** 2) - pin * math.cos(t) for t in (2 * math.pi * i / 16 for i in range(16))]
        self.assertAlmostEqual(mean_square(radii), math.pi, places=9)
        self.assertLess(mean_radius(radii), math.pi)
        self.assertLess(chords(radii), math.pi)

    @given(st.lists(st.floats(1, 100), min_size=3, max_size=30))
    def test_any_starting_point_gives_the_same(self, radii: list[float]) -> None:
        # A property; the mean never exceeds the quadratic mean.
        turned = radii[1:] + radii[:1]
        for rule in (mean_square, mean_radius, chords):
            self.assertAlmostEqual(rule(radii) / rule(turned), 1, places=9)
        self.assertLessEqual(mean_radius(radii), mean_square(radii) * (1 + 1e-12))

    def test_all_rules_are_told_and_few_radii_are_said(self) -> None:
        found = measure(Sketch("radii", FT, series={"radii": [40, 44, 50, 47]}))
        self.assertIn("mean radius, squared", found.notes[0])
        self.assertIn("Fewer than eight", found.notes[1])


class Rings(unittest.TestCase):
    RING = [(41.2050, -71.6030), (41.2050, -71.6010), (41.2063, -71.6012), (41.2061, -71.6031)]

    def test_geodesic_area_against_pyproj_and_an_equal_area_projection(self) -> None:
        """pyproj's geodesic of the same ring, and shapely on an Albers plane with standard parallels around it."""
        polygon = Polygon([(lon, lat) for lat, lon in self.RING])
        geod, _ = Geod(ellps="WGS84").geometry_area_perimeter(polygon)
        self.assertAlmostEqual(geodesic_area(self.RING) / abs(geod), 1, places=12)
        albers = "+proj=aea +lat_1=41.204 +lat_2=41.207 +lat_0=41.2055 +lon_0=-71.602 +datum=WGS84"
        flat = Transformer.from_crs("EPSG:4326", albers, always_xy=True)
        xs, ys = flat.transform([p[1] for p in self.RING], [p[0] for p in self.RING])
        self.assertAlmostEqual(Polygon(zip(xs, ys, strict=True)).area / geodesic_area(self.RING), 1, places=5)

    def test_web_map_metres_would_overstate(self) -> None:
        """Web Mercator overstates area by about 1/cos² of the latitude (exact on a sphere)."""
        web = Transformer.from_crs("EPSG:4326", "EPSG:3857", always_xy=True)
        xs, ys = web.transform([p[1] for p in self.RING], [p[0] for p in self.RING])
        ratio = Polygon(zip(xs, ys, strict=True)).area / geodesic_area(self.RING)
        self.assertAlmostEqual(ratio, 1 / math.cos(math.radians(41.2055)) ** 2, delta=0.01)

    def test_typed_positions_in_several_spellings(self) -> None:
        want = (41.20516667, -71.60322222)
        for text in (
            "41.20516667, -71.60322222",
            "41.20516667N 71.60322222W",
            "41°12'18.6\"N 71°36'11.6\"W",
            "W71.60322222 N41.20516667",
            "41° 12.31' N, 71° 36.19333' W",
        ):
            (lat, lon), *_ = read_ring(f"{text}\n41.21 -71.60\n41.21 -71.61")
            self.assertAlmostEqual(lat, want[0], places=6, msg=text)
            self.assertAlmostEqual(lon, want[1], places=6, msg=text)

    def test_any_start_either_way_open_or_closed(self) -> None:
        whole = by_rings([[self.RING]]).size
        for ring in (self.RING[2:] + self.RING[:2], self.RING[::-1], [*self.RING, self.RING[0]]):
            given_ = {"type": "Polygon", "coordinates": [[[lon, lat] for lat, lon in ring]]}
            self.assertAlmostEqual(by_rings(read_geometry(given_)).size / whole, 1, places=12)

    def test_holes_are_taken_off_and_geojson_reads_back(self) -> None:
        hole = [(41.2053, -71.6025), (41.2056, -71.6025), (41.2056, -71.6020), (41.2053, -71.6020)]
        polygons = [[self.RING, hole]]
        self.assertAlmostEqual(by_rings(polygons).size, geodesic_area(self.RING) - geodesic_area(hole), places=6)
        back = read_geometry(to_geometry(polygons))
        self.assertAlmostEqual(by_rings(back).size / by_rings(polygons).size, 1, places=12)

    def test_refused(self) -> None:
        bow = [self.RING[0], self.RING[2], self.RING[1], self.RING[3]]
        with self.assertRaisesRegex(InputError, "crosses itself"):
            by_rings([[bow]])
        with self.assertRaisesRegex(InputError, "not on the earth"):
            read_ring("-171.6, 41.2\n-171.6, 41.3\n-171.7, 41.2")
        with self.assertRaisesRegex(NotUnderstood, "Line 2"):
            read_ring("41.2, -71.6\nsomewhere\n41.3, -71.6")
        with self.assertRaisesRegex(InputError, "enclose nothing"):
            read_ring("41.2, -71.6\n41.3, -71.6")
        with self.assertRaisesRegex(InputError, "encloses no ground"):
            read_geometry({"type": "Point", "coordinates": [1, 2]})
        with self.assertRaisesRegex(InputError, "not lists of"):
            read_geometry({"type": "Polygon", "coordinates": [["a", "b", "c"]]})


class Whole(unittest.TestCase):
    def test_every_method_is_offered_and_works(self) -> None:
        sketches = {
            "composed": Sketch("composed", FT, parts=[(1, "circle", {"radius": 9})]),
            "taped": Sketch("taped", FT, series={"sides": [3, 4, 5], "diagonals": []}),
            "offsets": Sketch("offsets", FT, {"spacing": 10}, {"offsets": OFFSETS}),
            "radii": Sketch("radii", FT, series={"radii": RADII}),
            "ring": Sketch("ring", M, rings=[[Rings.RING]]),
            **{
                k: Sketch(k, FT, {name: 5.0 for name, _ in METHODS[k].fields})
                for k in METHODS
                if METHODS[k].fields and not METHODS[k].series
            },
        }
        self.assertEqual(set(sketches), set(METHODS))
        for key, sketch in sketches.items():
            found = measure(sketch)
            self.assertGreater(found.size, 0, key)
            self.assertTrue(found.working and found.plan.outlines, key)

    @given(st.floats(0.1, 1000), st.floats(0.1, 1000))
    def test_the_unit_of_the_tape_does_not_matter(self, length: float, width: float) -> None:
        feet = measure(Sketch("rectangle", FT, {"length": length, "width": width}))
        metres = measure(Sketch("rectangle", M, {"length": length * 0.3048, "width": width * 0.3048}))
        self.assertAlmostEqual(feet.size / metres.size, 1, places=12)

    def test_parts_of_an_area(self) -> None:
        whole = read_quantity("10,000 sq ft")
        rest, said = parts_left(whole, [read_quantity("4,000 sq ft"), read_quantity("1/10 acre")])
        self.assertAlmostEqual(rest.value, 1644)
        self.assertIn("1,644 ft² is in no part", said)
        self.assertIn("add up", parts_left(whole, [read_quantity("5,000 sq ft")] * 2)[1])
        self.assertIn("more than the whole", parts_left(whole, [read_quantity("6,000 sq ft")] * 2)[1])

    def test_two_measurements_compared(self) -> None:
        """2 % and 5 % are common practice, no source; both ends belong to the better class."""
        for second, expected in ((100, "agree"), (102, "agree"), (98, "agree"), (105, "mind"), (106, "differ"), (90, "differ")):
            found = difference(100, second)
            self.assertIs(found.agreement, Agreement(expected), second)
            self.assertAlmostEqual(found.relative, second / 100 - 1)

    def test_sizes_as_people_write_them(self) -> None:
        self.assertEqual(str(in_trade(1000 * FT2, us=True)), "1,000 ft²")
        self.assertEqual(in_trade(50_000, us=True).unit.key, "acre")
        self.assertEqual(in_trade(50_000, us=False).unit.key, "m2")
