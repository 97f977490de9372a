"""Mixed swards are judged by every grass in them, ornamentals by rows that name them."""

import unittest
from dataclasses import replace
from datetime import date

import numpy as np

from core.disease.hosts import HOSTS, diseases_of
from core.errors import InputError
from core.findings import Weight
from core.grasses import GRASSES, Sward, blend_of
from core.growth.potential import of_sward, potential
from core.growth.standing import target_for, turfs_of
from core.label.match import fit
from core.rates.nutrients import LB_PER_1000, SEASON_N, season_range
from core.season.outlines import OUTLINES, fits
from core.soil.ph import PhReading, plan_ph
from core.soil.ph_tables import GRASS_PH, likes
from core.tests.test_soil import GROUND, START
from core.tests.things import FEED, GREEN, LAWN, SPRAY, Caught, checked, row

RYE, FESCUE = "perennial_ryegrass", "fine_fescue"
BLEND = blend_of([(FESCUE, 30), (RYE, 70)])
"""Seventy to thirty by seed, a usual mixture (common practice, no source)."""
MIX = Sward("mixed", BLEND)
MIXED = replace(LAWN, name="memorial", grass="mixed", blend=BLEND)
SHRUBS = replace(LAWN, name="border", grass="ornamentals", height=None, use="")


class Swards(unittest.TestCase):
    def test_the_largest_first_as_one_says_it(self) -> None:
        self.assertEqual(MIX.grasses, (RYE, FESCUE))
        self.assertEqual(MIX.name, "Perennial ryegrass and fine fescues (70:30)")
        thirds = Sward("mixed", blend_of([(RYE, 40), ("kentucky_bluegrass", 40), (FESCUE, 20)]))
        self.assertEqual(thirds.name, "Perennial ryegrass, Kentucky bluegrass and fine fescues (40:40:20)")
        self.assertEqual((Sward("mixed").name, Sward("").name), ("Mixed sward", "Unknown grass"))

    def test_what_is_no_blend_names_its_line(self) -> None:
        for given, field, said in (
            ([(RYE, 70), (FESCUE, 20)], "blend", "add up to 90 %"),
            ([(RYE, 70), (RYE, 30)], "blend.1.grass", "stands there twice"),
            ([(RYE, 110), (FESCUE, -10)], "blend.0.share", "no share"),
            ([("mixed", 50), (FESCUE, 50)], "blend.0.grass", "Which grass"),
            ([("ornamentals", 50), (FESCUE, 50)], "blend.0.grass", "Which grass"),
            ([(RYE, 100)], "blend", "two grasses"),
            ([(g, 10) for g in list(GRASSES)[:10]], "blend", "too many"),
        ):
            with self.assertRaises(InputError) as caught:
                blend_of(given)
            self.assertEqual(caught.exception.field, field)
            self.assertIn(said, caught.exception.sentence)

    def test_diseases_of_either(self) -> None:
        either = set(diseases_of(Sward(RYE))) | set(diseases_of(Sward(FESCUE)))
        self.assertEqual(set(diseases_of(MIX)), either)
        self.assertLess(either, set(HOSTS))
        self.assertEqual(diseases_of(Sward("ornamentals")), [])

    def test_growth_and_nitrogen_by_their_shares(self) -> None:
        """Potentials at 10 and 30 °C of cool and warm grass: Gelernter & Stowell 2005, metric form, computed by hand."""
        both = Sward("mixed", blend_of([("zoysiagrass", 60), (RYE, 40)]))
        np.testing.assert_allclose(
            of_sward([10, 30], both), [0.6 * 0.0111 + 0.4 * 0.1915, 0.6 * 0.9898 + 0.4 * 0.1915], atol=5e-5
        )
        np.testing.assert_allclose(of_sward([10, 30], Sward("mixed")), potential([10, 30], True))
        self.assertTrue(np.isnan(of_sward([10.0], Sward("ornamentals"))).all())
        low, high = season_range(replace(LAWN, grass="mixed", blend=both.blend)) or (0, 0)
        self.assertAlmostEqual(low / LB_PER_1000, 0.6 * SEASON_N["zoysiagrass"][0] + 0.4 * SEASON_N[RYE][0])
        self.assertAlmostEqual(high / LB_PER_1000, 0.6 * SEASON_N["zoysiagrass"][1] + 0.4 * SEASON_N[RYE][1])
        self.assertIsNone(season_range(SHRUBS))

    def test_ph_that_all_of_them_like(self) -> None:
        (a, b), (c, d) = GRASS_PH[RYE], GRASS_PH[FESCUE]
        self.assertEqual(likes(MIX), (max(a, c), min(b, d)))
        # Centipedegrass likes 5 to 6, paspalum 6 to 7.5, and a pH of 6 is all that both like.
        apart = Sward("mixed", blend_of([("centipedegrass", 50), ("seashore_paspalum", 50)]))
        self.assertEqual(likes(apart), (6.0, 6.0))
        readings = [PhReading("a", date(2031, 2, 1), 7.6)]
        with self.assertRaises(InputError) as caught:
            plan_ph(readings, texture="loam", sward=Sward("ornamentals"), ground=GROUND, green=False, start=START)
        self.assertEqual(caught.exception.field, "target")
        aimed = plan_ph(readings, texture="loam", sward=Sward("ornamentals"), ground=GROUND, green=False, start=START, target=6.5)
        self.assertEqual(aimed.verdict, "lower")

    def test_a_regulator_by_the_grass_that_is_held_the_shorter(self) -> None:
        warm = replace(GREEN, grass="mixed", blend=blend_of([("bermudagrass", 80), (RYE, 20)]))
        self.assertEqual(turfs_of(warm), ("green", "warm"))
        here = target_for(["trinexapac-ethyl"], warm)
        self.assertEqual(here, target_for(["trinexapac-ethyl"], GREEN))
        self.assertIsNone(target_for(["trinexapac-ethyl"], SHRUBS))

    def test_outlines_for_any_of_its_grasses_and_for_ornamentals_alone(self) -> None:
        both = Sward("mixed", blend_of([("bermudagrass", 80), (RYE, 20)]))
        self.assertTrue(fits(OUTLINES["warm_lawn"], both, "lawn") and fits(OUTLINES["cool_easy"], both, "lawn"))
        self.assertFalse(fits(OUTLINES["warm_lawn"], MIX, "lawn"))
        shrubs = Sward("ornamentals")
        self.assertEqual([o.key for o in OUTLINES.values() if fits(o, shrubs, "")], ["ornamentals"])
        self.assertFalse(fits(OUTLINES["ornamentals"], MIX, ""))


class Labels(Caught):
    def test_every_grass_of_it_must_be_listed(self) -> None:
        half = row("0.4 to 0.8 fl oz per 1,000 sq ft", grasses=(RYE, "kentucky_bluegrass"))
        whole = replace(half, grasses=(RYE, FESCUE))
        found = self.finding(checked(SPRAY, half, 0.6, MIXED), "grass-not-listed")
        self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("does not list fine fescues, which is on memorial", found.sentence)
        self.quiet(checked(SPRAY, whole, 0.6, MIXED), "grass-not-listed", "grass-not-in-row")
        said = self.finding(checked(SPRAY, half, 0.6, MIXED, rows=(half, whole)), "grass-not-in-row").sentence
        self.assertIn("and fine fescues is not on it", said)

    def test_where_nobody_said_which_it_asks_for_them(self) -> None:
        listed = row("0.4 to 0.8 fl oz per 1,000 sq ft", grasses=(RYE,))
        said = self.finding(checked(SPRAY, listed, 0.6, replace(LAWN, grass="mixed")), "grass-not-listed").sentence
        self.assertIn("Say on the area's page which grasses it has", said)

    def test_a_turf_row_is_not_for_ornamentals(self) -> None:
        turf = row("0.4 to 0.8 fl oz per 1,000 sq ft")
        shrubs = row("2 to 4 fl oz per 100 gal", grasses=("ornamentals",))
        found = self.finding(checked(SPRAY, turf, 0.6, SHRUBS), "grass-not-listed")
        self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("does not list ornamentals", found.sentence)
        self.assertTrue(fit(shrubs, 0, SHRUBS).fits)
        self.assertEqual(fit(shrubs, 0, LAWN).aspects, {"grass"})
        self.quiet(checked(SPRAY, turf, 0.6, LAWN), "grass-not-listed")
        # A feed's label is no law: its turf rate is questioned there.
        self.assertIs(self.finding(checked(FEED, row("3 to 5 lb/M"), 3, SHRUBS), "grass-not-in-row").act, Weight.WARN)
