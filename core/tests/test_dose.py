"""Dose = rate × area: sums checked by hand and against the trade's arithmetic, and properties."""

import unittest
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Package, Product, check_product
from core.label.rate import Basis, Rate, RateUnit
from core.rates.actual import actual_rate
from core.rates.cost import cost
from core.rates.dose import dose
from core.units import UNITS, Quantity, density, read_quantity

GRANULE, SC, SL = FORMULATIONS["GR"], FORMULATIONS["SC"], FORMULATIONS["SL"]
LB_GAL = density("density", 1, "lb/gal")


def rate(text: str) -> Rate:
    return read_label_rate(text).highest


def feed(*contents: tuple[Basis, float], pounds_per_gallon: float | None = None) -> Product:
    made = tuple(Content(basis.text, basis, percent=percent) for basis, percent in contents)
    if pounds_per_gallon:
        return Product("liquid feed", Kind.FERTILISER, SL, made, pounds_per_gallon * LB_GAL)
    return Product("granules", Kind.FERTILISER, GRANULE, made)


class ByHand(unittest.TestCase):
    def amount(self, product: Product, phrase: str, area: str) -> Quantity:
        return dose(product, rate(phrase), read_quantity(area)).amount

    def test_granules_by_product(self) -> None:
        """2.6 lb/1000 ft² on 6,000 ft² is 15.6 lb (common practice, no source)."""
        self.assertAlmostEqual(self.amount(feed(), "2.6 lb/M", "6,000 sq ft").value, 15.6, places=9)

    def test_nitrogen_from_an_18_percent_feed(self) -> None:
        """0.75 lb N from 18 % N takes 4.1667 lb of product (common practice, no source)."""
        found = self.amount(feed((Basis.N, 18)), "0.75 lb N/M", "1,000 sq ft")
        self.assertAlmostEqual(found.value, 4.166667, places=6)

    def test_nitrogen_from_a_liquid_takes_its_density(self) -> None:
        """0.2 lb N of an 18 % liquid at 10.2 lb/gal is 13.943 fl oz (common practice, no source)."""
        found = self.amount(feed((Basis.N, 18), pounds_per_gallon=10.2), "0.2 lb N/M", "1000 sq ft")
        self.assertEqual(found.unit.key, "fl_oz")
        self.assertAlmostEqual(found.value, 13.943, places=3)

    def test_a_per_acre_rate_on_a_small_area(self) -> None:
        """22 fl oz/acre on 5,000 ft² is 2.5253 fl oz (arithmetic with the 43,560 ft² acre)."""
        product = Product("x", Kind.FUNGICIDE, SC)
        self.assertAlmostEqual(self.amount(product, "22 fl oz per acre", "5,000 sq ft").value, 2.5253, places=4)

    def test_bags_for_an_area_in_acres(self) -> None:
        """0.9 lb N of 30 % on 1.25 acres takes 163.35 lb (arithmetic with the 43,560 ft² acre)."""
        self.assertAlmostEqual(self.amount(feed((Basis.N, 30)), "0.9 lb N/M", "1.25 acre").value, 163.35, places=6)

    def test_metric_label(self) -> None:
        """150 kg/ha is 3.0722 lb/1000 ft² (NIST SP 811 factors)."""
        self.assertAlmostEqual(rate("150 kg/ha").to(RateUnit.from_key("lb/kft2")).value, 3.0722, places=4)

    def test_an_adjuvant_by_share_of_the_spray(self) -> None:
        """0.25 % v/v is 0.32 fl oz in a gallon (128 × 0.0025)."""
        product = Product("x", Kind.ADJUVANT, SL)
        found = dose(product, rate("0.25 % v/v"), read_quantity("1,000 sq ft"), UNITS["gal"].size)
        self.assertAlmostEqual(found.amount.to("fl_oz").value, 0.32, places=9)

    def test_per_100_gallons(self) -> None:
        # 8 fl oz / 100 gal × 25 gal of spray = 2 fl oz.
        product = Product("x", Kind.FUNGICIDE, SC)
        found = dose(product, rate("8 fl oz per 100 gal"), read_quantity("1 acre"), 25 * UNITS["gal"].size)
        self.assertAlmostEqual(found.amount.value, 2.0, places=9)

    def test_active_by_weight_from_grams_per_litre(self) -> None:
        # 500 g ÷ 250 g/L = 2 L.
        product = Product("x", Kind.FUNGICIDE, SC, (Content("an active", Basis.ACTIVE, g_per_l=250.0),))
        found = dose(product, rate("500 g ai per ha"), read_quantity("1 ha"))
        self.assertAlmostEqual(found.amount.base, 2.0, places=9)

    def test_elemental_phosphorus_from_a_label_in_oxide(self) -> None:
        """P = 0.4364 P₂O₅: 1 lb P takes 2.2913 lb P₂O₅, which of a 20 % product is 11.457 lb (AAPFCO convention)."""
        found = self.amount(feed((Basis.P2O5, 20)), "1 lb P/M", "1,000 sq ft")
        self.assertAlmostEqual(found.value, 1 / 0.43643 / 0.20, places=4)


class Delivered(unittest.TestCase):
    def per_1000(self, product: Product, phrase: str, name: str) -> float:
        found = dose(product, rate(phrase), read_quantity("1,000 sq ft"))
        content = next(d for d in found.delivered if d.content.name == name)
        return content.grams / UNITS["lb"].size

    def test_dry(self) -> None:
        """2.6 lb of 27 % N brings 0.702 lb N; 3 lb of 8 % K₂O 0.24 (arithmetic)."""
        self.assertAlmostEqual(self.per_1000(feed((Basis.N, 27)), "2.6 lb/M", "N"), 0.702, places=9)
        self.assertAlmostEqual(self.per_1000(feed((Basis.K2O, 8)), "3 lb/M", "K₂O"), 0.24, places=9)

    def test_liquid_chain_keeps_full_precision(self) -> None:
        """12 fl oz at 10.5 lb/gal and 6 % is 10.5/128 × 12 × 0.06 = 0.0590625 lb, not 0.058 by early rounding."""
        product = feed((Basis.FE, 6), pounds_per_gallon=10.5)
        self.assertAlmostEqual(self.per_1000(product, "12 fl oz/M", "Fe"), 0.0590625, places=9)

    def test_a_density_unknown_leaves_the_content_untold(self) -> None:
        product = Product("x", Kind.FUNGICIDE, SC, (Content("an active", Basis.ACTIVE, percent=20.0),))
        found = dose(product, rate("1 fl oz/M"), read_quantity("1,000 sq ft"))
        self.assertEqual(found.delivered, ())
        self.assertIsNone(found.grams)


class Refused(unittest.TestCase):
    def fault(self, product: Product, phrase: str, spray: float | None = None) -> InputError:
        with self.assertRaises(InputError) as caught:
            dose(product, rate(phrase), read_quantity("1,000 sq ft"), spray)
        return caught.exception

    def test_a_weighed_liquid_without_density(self) -> None:
        self.assertEqual(self.fault(Product("x", Kind.FUNGICIDE, SC), "3 oz wt/M").field, "product.density")

    def test_a_poured_powder(self) -> None:
        self.assertIn("dry", self.fault(feed(), "3 fl oz/M").problem)

    def test_nitrogen_from_a_product_that_lists_none(self) -> None:
        self.assertEqual(self.fault(feed((Basis.FE, 5)), "1 lb N/M").field, "product.contents")

    def test_an_active_of_two(self) -> None:
        two = tuple(Content(n, Basis.ACTIVE, percent=10.0) for n in ("one", "other"))
        self.assertIn("2 actives", self.fault(Product("x", Kind.FUNGICIDE, GRANULE, two), "1 lb ai/acre").problem)

    def test_a_share_of_no_spray(self) -> None:
        # Nothing is reckoned: the share is only what is typed.
        self.assertEqual(self.fault(Product("x", Kind.ADJUVANT, SL), "0.5% v/v").field, "machine")

    def test_compositions_that_cannot_be(self) -> None:
        def made(**kwargs: float) -> Product:
            return Product("x", Kind.FERTILISER, SL, (Content("N", Basis.N, **kwargs),), 1200.0)

        for product in (made(percent=120.0), made(percent=-1.0), made(g_per_l=1500.0), made()):
            with self.assertRaises(InputError):
                check_product(product)
        with self.assertRaisesRegex(InputError, "110 %"):
            check_product(feed((Basis.N, 60), (Basis.K2O, 50)))

    def test_densities_that_cannot_be(self) -> None:
        for kg_per_l in (0.2, 9.2, 92.0):
            with self.assertRaises(InputError):
                check_product(Product("x", Kind.FUNGICIDE, SC, (), kg_per_l * 1000))

    def test_lighter_than_water_is_asked_about_and_a_plain_product_is_not(self) -> None:
        # Water is 998.2 g/L at 20 °C, 8.33 lb/gal (CRC Handbook of Chemistry and Physics, from memory).
        self.assertEqual(len(check_product(Product("x", Kind.IRON, SL, (), 8.0 * LB_GAL))), 1)
        self.assertEqual(check_product(feed((Basis.N, 18), pounds_per_gallon=10.5)), [])


class Properties(unittest.TestCase):
    areas = st.floats(50, 50_000)

    @settings(deadline=None)
    @given(areas, areas, st.floats(0.01, 20))
    def test_two_areas_take_the_sum_of_their_doses(self, one: float, other: float, value: float) -> None:
        r = Rate(value, RateUnit.from_key("lb/kft2"))
        parts = sum(dose(feed(), r, Quantity(a, UNITS["ft2"])).base for a in (one, other))
        whole = dose(feed(), r, Quantity(one + other, UNITS["ft2"])).base
        self.assertAlmostEqual(parts / whole, 1, places=12)

    @settings(deadline=None)
    @given(areas, st.sampled_from(["lb/kft2", "lb/acre", "kg/ha", "g/m2_100", "oz_wt/kft2"]), st.floats(0.01, 20))
    def test_the_unit_of_the_rate_does_not_matter(self, area: float, key: str, value: float) -> None:
        ground, r = Quantity(area, UNITS["ft2"]), Rate(value, RateUnit.from_key("lb/kft2"))
        self.assertAlmostEqual(
            dose(feed(), r.to(RateUnit.from_key(key)), ground).base / dose(feed(), r, ground).base, 1, places=12
        )

    @settings(deadline=None)
    @given(areas, st.sampled_from(["0.5 lb N/M", "3 lb/M", "40 kg N/ha", "200 g/100 m²"]))
    def test_what_was_planned_and_used_is_the_rate_again(self, area: float, phrase: str) -> None:
        product, ground, label = feed((Basis.N, 21)), Quantity(area, UNITS["ft2"]), read_label_rate(phrase)
        used = dose(product, label.highest, ground).amount
        self.assertAlmostEqual(actual_rate(product, label, used, ground, None).value / label.high, 1, places=9)


class Working(unittest.TestCase):
    def test_it_tells_each_step_and_strikes_what_cancels(self) -> None:
        # By hand: 0.5 × 4 = 2 lb N; ÷ 0.20 = 10 lb; 10 × 0.20 ÷ 4 = 0.5.
        found = dose(feed((Basis.N, 20)), rate("0.5 lb N/M"), read_quantity("4,000 sq ft"))
        self.assertEqual(
            [str(s) for s in (*found.working, *found.brings)],
            [
                "The area in the rate's measure: 4,000 ft² ÷ 1,000 ft²/1000 ft² = 4 (1000 ft²)",
                "Rate × area: N: 0.5 lb N/1000 ft² × 4 (1000 ft²) = 2 lb N",
                "Product that holds that N: 2 lb N ÷ 0.2 = 10 lb product",
                "N that it brings: 10 lb × 0.2 ÷ 4 (1000 ft²) = 0.5 lb/1000 ft²",
            ],
        )
        first, second = found.working[1].terms
        self.assertTrue(first.under_cancels and second.over_cancels)
        self.assertFalse(first.over_cancels)


class Money(unittest.TestCase):
    def test_decimal_to_the_cent(self) -> None:
        """A 50 lb bag of 24 % N at $31.20 is $2.60 a pound of N (common practice, no source)."""
        bag = Package(read_quantity("50 lb"), Decimal("31.20"))
        product = Product("x", Kind.FERTILISER, GRANULE, (Content("N", Basis.N, percent=24.0),), packages=(bag,))
        ground = read_quantity("1,000 sq ft")
        found = cost(product, dose(product, rate("1 lb N/M"), ground).amount, ground, Quantity(1, UNITS["kft2"]))
        assert found
        self.assertEqual(found.cents(found.total), Decimal("2.60"))

    def test_no_price_is_no_cost(self) -> None:
        bag = Package(read_quantity("50 lb"), None)
        product = Product("x", Kind.FERTILISER, GRANULE, packages=(bag,))
        ground = read_quantity("1,000 sq ft")
        self.assertIsNone(cost(product, read_quantity("2 lb"), ground, Quantity(1, UNITS["kft2"])))
