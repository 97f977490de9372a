"""What is looked for and scored, and what pictures say of colour.

Colour indices: Karcher & Richardson 2003 (Crop Sci 43:943-951) and 2005 (45:1536-1539), Woebbecke et al. 1995 (Trans ASAE
38:259-269), worked by hand from their formulas; hue, saturation and brightness against Python's own `colorsys`.
"""

import colorsys
import unittest
from datetime import datetime

import numpy as np

from core.errors import InputError
from core.label.targets import TARGETS
from core.scouting.colour import Doubt, colours, dark_green, excess_green, hue_saturation_brightness, turf
from core.scouting.kinds import LOOKS, check_score, check_share, check_what, look_of, shown_score
from core.scouting.likeness import Light, Mown, Shot, doubts

WORKED = (
    ((60, 110, 40), 102.857, 0.6364, 0.4314, 0.5488, 0.5714),
    ((40, 90, 45), 126.0, 0.5556, 0.3529, 0.7305, 0.5429),
    ((150, 160, 80), 67.5, 0.5, 0.6275, 0.3325, 0.2308),
    ((180, 170, 120), 50.0, 0.3333, 0.7059, 0.2647, 0.0851),
)
"""Pixels with their hue, saturation, brightness, dark green index and excess green, by the published formulas."""


class Indices(unittest.TestCase):
    def test_pixels_worked_by_the_published_formulas(self) -> None:
        """Karcher & Richardson 2003 and Woebbecke et al. 1995, by hand."""
        for rgb, *told in WORKED:
            with self.subTest(rgb):
                pixel = np.array(rgb, dtype=float)
                h, s, b = hue_saturation_brightness(pixel)
                found = [float(x) for x in (h, s, b, dark_green(h, s, b), excess_green(pixel))]
                for a, e in zip(found, told, strict=True):
                    self.assertAlmostEqual(a, e, delta=0.0006)

    def test_hues_are_those_of_colorsys(self) -> None:
        """Python's `colorsys`, on pixels of every hue."""
        rgb = np.random.default_rng(7).integers(0, 256, (4000, 3)).astype(float)
        rgb = rgb[rgb.max(axis=1) > rgb.min(axis=1)]
        h, s, b = hue_saturation_brightness(rgb)
        told = np.array([colorsys.rgb_to_hsv(*p) for p in rgb / 255])
        np.testing.assert_allclose(np.stack([h / 360, s, b], axis=1), told, atol=1e-12)

    def test_grey_has_no_hue_and_black_no_excess_green(self) -> None:
        h, _, _ = hue_saturation_brightness(np.array([128.0, 128.0, 128.0]))
        self.assertTrue(np.isnan(h))
        self.assertTrue(np.isnan(excess_green(np.zeros(3))))

    def test_the_index_is_the_mean_of_the_pixels_and_not_of_the_mean_colour(self) -> None:
        """Two pixels of the table: 0.5315 as the mean of their indices by hand; both are taken in range by their hue here."""
        pair = np.array([WORKED[1][0], WORKED[2][0]], dtype=float)
        h, s, b = hue_saturation_brightness(pair)
        self.assertAlmostEqual(float(dark_green(h, s, b).mean()), 0.5315, places=4)
        self.assertAlmostEqual(float(dark_green(*hue_saturation_brightness(pair.mean(axis=0)))), 0.4966, places=4)

    def test_light_moves_the_index_more_than_a_treatment(self) -> None:
        """A pixel a fifth brighter, and one with another white balance: 0.5201 and 0.4968 in place of 0.5488, by hand."""
        first = np.array(WORKED[0][0], dtype=float)
        for changed, told in ((first * 1.2, 0.5201), (first * [1.1, 1.0, 0.9], 0.4968)):
            self.assertAlmostEqual(float(dark_green(*hue_saturation_brightness(changed))), told, delta=0.0003)

    def test_a_picture_of_turf_straw_and_soil(self) -> None:
        """A quarter turf, a quarter straw (it passes for turf), half soil without green, in pixels laid out by hand."""
        picture = np.zeros((10, 20, 3))
        picture[:, :5], picture[:, 5:10], picture[:, 10:] = WORKED[0][0], WORKED[3][0], (120, 80, 60)
        self.assertEqual([bool(x) for x in turf(picture)[0, [0, 5, 10]]], [True, True, False])
        found = colours(picture)
        assert found.index is not None
        self.assertAlmostEqual(found.cover, 100 / 200)
        self.assertAlmostEqual(found.outside, 50 / 100)
        self.assertAlmostEqual(found.index, WORKED[0][4], delta=0.0006)
        self.assertEqual(found.doubts, (Doubt.STRAW,))

    def test_a_picture_of_nothing_says_so(self) -> None:
        dark = colours(np.zeros((4, 4, 3)))
        self.assertEqual((dark.cover, dark.index, dark.excess), (0, None, None))
        self.assertEqual(dark.doubts, (Doubt.LITTLE, Doubt.SHADOW))
        bright = colours(np.full((4, 4, 3), 255.0))
        self.assertIn(Doubt.BRIGHT, bright.doubts)
        self.assertTrue(all(d.sentence.endswith(".") for d in Doubt))


class Kinds(unittest.TestCase):
    def test_what_is_seen_is_one_of_its_kind(self) -> None:
        self.assertEqual(check_what(look_of("disease"), "dollar_spot"), "dollar_spot")
        self.assertEqual(check_what(look_of("damage"), " tyre marks "), "tyre marks")
        for kind, what in (("disease", "white_grubs"), ("insect", "dollar_spot"), ("weed", ""), ("disease", "measles")):
            with self.subTest(f"{kind} {what}"), self.assertRaises(InputError) as refused:
                check_what(look_of(kind), what)
            self.assertEqual(refused.exception.field, "what")
        for look in LOOKS.values():
            self.assertTrue(not look.of or any(t.kind == look.of for t in TARGETS.values()), look.key)
        with self.assertRaises(InputError):
            look_of("ghosts")

    def test_scores_stay_on_their_scale(self) -> None:
        """1 to 9 of the national trials' guidelines (from memory)."""
        quality = look_of("quality")
        self.assertEqual(check_score(quality, 6.5, True), 6.5)
        self.assertIsNone(check_score(quality, None, True))
        for kind, score in (("quality", 0), ("quality", 9.5), ("compaction", 5), ("damage", 1), ("insect", -1)):
            with self.subTest(kind), self.assertRaises(InputError) as refused:
                check_score(look_of(kind), score, True)
            self.assertEqual(refused.exception.field, "score")
        self.assertEqual(shown_score(quality, 6.5, True), "6.5 of 9")
        self.assertEqual(shown_score(look_of("drought"), 4, True), "wilting 4 of 9")
        self.assertEqual(shown_score(look_of("compaction"), 3, True), "a probe goes in with force")

    def test_grubs_are_counted_on_a_square_foot_or_a_square_metre(self) -> None:
        """A square foot is 0.09290304 m² (international foot): 8 in it are 86.1 in a square metre."""
        grubs = look_of("insect")
        kept = check_score(grubs, 8, True)
        assert kept is not None
        self.assertAlmostEqual(kept, 8 / 0.09290304)
        self.assertEqual(shown_score(grubs, kept, True), "8 in a square foot")
        self.assertEqual(shown_score(grubs, kept, False), "86 in a square metre")

    def test_shares(self) -> None:
        """A share of the turf lies between none and all of it, by hand."""
        self.assertEqual(check_share(12.5, True), 12.5)
        self.assertEqual(check_share(0, False), 0)
        for share, seen in ((101, True), (-1, True), (3, False)):
            with self.assertRaises(InputError):
                check_share(share, seen)


class Likeness(unittest.TestCase):
    def test_two_pictures_alike_raise_no_doubt(self) -> None:
        a = Shot(datetime(2026, 5, 1, 10), 1, Light.SUN, Mown.FRESH)
        self.assertEqual(doubts(a, Shot(datetime(2026, 5, 8, 11, 30), 1, Light.SUN, Mown.FRESH)), [])

    def test_each_difference_is_told(self) -> None:
        a = Shot(datetime(2026, 5, 1, 10), 1, Light.SUN, Mown.FRESH)
        found = doubts(a, Shot(datetime(2026, 5, 8, 18), 2, Light.CLOUD, Mown.GROWN))
        self.assertEqual([s.split()[0] for s in found], ["They", "Sun", "Mown", "Taken"])
        self.assertEqual(len(doubts(Shot(datetime(2026, 5, 1, 10)), a)), 3)

    def test_the_hours_go_round_midnight(self) -> None:
        a, b = (
            Shot(datetime(2026, 5, 1, 23, 30), 1, Light.SUN, Mown.FRESH),
            Shot(datetime(2026, 5, 3, 0, 30), 1, Light.SUN, Mown.FRESH),
        )
        self.assertEqual(doubts(a, b), [])
