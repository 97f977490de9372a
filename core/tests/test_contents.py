"""What a name and a type tell of a product's contents, and products that are several things."""

import unittest
from dataclasses import replace

from core.cautions import cautions
from core.label.contents import as_nutrient, grade_in, opens
from core.label.product import FORMULATIONS, Content, Kind, Product, check_product
from core.label.rate import Basis
from core.machines.residue import CleanStep, Held, worst_kind
from core.tests.things import DAY, FEED, SC, SPRAY


class Grades(unittest.TestCase):
    """N, P₂O₅, K₂O in this order (AAPFCO labelling convention)."""

    def test_a_grade_in_a_name(self) -> None:
        for name, want in (
            ("Slack Water 24-0-6", [("N", 24), ("K2O", 6)]),
            ("9-18-6", [("N", 9), ("P2O5", 18), ("K2O", 6)]),
            ("Iron 15-0-0 plus", [("N", 15)]),
            ("Feed 7.5-0-5", [("N", 7.5), ("K2O", 5)]),
        ):
            self.assertEqual([(c.basis.value, c.percent) for c in grade_in(name)], want, name)

    def test_what_is_no_grade(self) -> None:
        for name in ("2,4-D", "Batch 2026-08-04", "60-60-60", "0-0-0", "3-4", "1-2-3-4", ""):
            self.assertEqual(grade_in(name), (), name)

    def test_a_type_opens_with_what_it_usually_holds(self) -> None:
        self.assertEqual(opens(Kind.FERTILISER), (Basis.N, Basis.P2O5, Basis.K2O))
        self.assertEqual(opens(Kind.FUNGICIDE), (Basis.ACTIVE,))
        self.assertEqual(opens(Kind.COLOURANT), ())

    def test_a_nutrient_is_no_active(self) -> None:
        for name, basis in (("Iron", Basis.FE), ("nitrogen", Basis.N), (" soluble  POTASH", Basis.K2O), ("boron", Basis.B)):
            found = as_nutrient(name, 5.0)
            assert found
            self.assertIs(found.basis, basis)
        for name in ("iron HEDTA", "fludioxonil", "", "nitrapyrin"):
            self.assertIsNone(as_nutrient(name, 5.0), name)

    def test_urea_counts_as_its_nitrogen(self) -> None:
        # 46 % N (AAPFCO official terms, from memory): of 50 % urea, 23.
        found = as_nutrient("Urea", 50.0)
        assert found
        self.assertEqual((found.basis, found.remedy), (Basis.N, "Count it as N: 50 % urea is 23 % N."))

    def test_without_a_density_it_says_what_it_cannot_tell(self) -> None:
        liquid = Product(
            "L", Kind.IRON, FORMULATIONS["SL"], (Content("N", Basis.N, percent=7.0), Content("Fe", Basis.FE, percent=6.0))
        )
        self.assertIn("how much N, Fe", " ".join(check_product(liquid)))
        for told in (replace(liquid, density_g_per_l=1260.0), replace(liquid, contents=()), FEED):
            self.assertNotIn("cannot be told", " ".join(check_product(told)))


class SeveralThings(unittest.TestCase):
    """A weed-and-feed: a fertiliser that is also a herbicide."""

    BOTH = replace(FEED, name="Both", also=(Kind.HERBICIDE,))

    def test_a_herbicides_label_binds(self) -> None:
        self.assertFalse(FEED.label_binds)
        self.assertTrue(self.BOTH.label_binds)
        self.assertIs(self.BOTH.leading, Kind.HERBICIDE)
        self.assertTrue(self.BOTH.is_a(Kind.FERTILISER) and self.BOTH.is_a(Kind.HERBICIDE, Kind.IRON))

    def test_its_cautions_are_of_both(self) -> None:
        keys = {c.key for c in cautions([self.BOTH])}
        self.assertLessEqual({"burn", "keep-off", "leftover"}, keys)

    def test_its_residue_is_a_herbicides(self) -> None:
        self.assertIs(worst_kind((Kind.FERTILISER, Kind.HERBICIDE)), Kind.HERBICIDE)
        self.assertIs(worst_kind((Kind.FERTILISER,)), Kind.FERTILISER)
        held = Held(1, "Both", worst_kind(self.BOTH.kinds), True, DAY)
        self.assertIn(CleanStep.CLEANER, held.needed)

    def test_one_thing_is_what_it_was(self) -> None:
        self.assertEqual((SPRAY.kinds, SPRAY.leading, SPRAY.formulation), ((Kind.FUNGICIDE,), Kind.FUNGICIDE, SC))
