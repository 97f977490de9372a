"""Nutrients at once and over a season: each house's limit just below it and just above it, and the sums of a season.

The limits are common practice, no source; the arithmetic is exact.
"""

import unittest
from dataclasses import replace
from datetime import date, timedelta

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from core.findings import Weight
from core.ground import Ground, Stress
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Product
from core.label.rate import P_IN_P2O5, Basis
from core.label.rules import Row, Rules
from core.ledger.budget import budget, over_budget
from core.ledger.history import applied
from core.rates.nutrients import LB_PER_1000, brought, once, season_range
from core.schools import Closed, House
from core.tests.things import DAY, FEED, GREEN, IRON, LAWN, SC, SPRAY, UREA
from core.units import UNITS, Quantity, read_quantity

FOOT = read_quantity("1,000 sq ft")
SLOW = replace(FEED, contents=(Content("N", Basis.N, percent=20, slow_percent=10),))


def keys(
    pounds: dict[Basis, float], product: Product = FEED, ground: Ground = LAWN, house: House | None = None, on: date = DAY
) -> set[str]:
    """The findings' keys of an application of so many lb/1000 ft² of each nutrient."""
    grams = {basis: lb * LB_PER_1000 for basis, lb in pounds.items()}
    return {f.key for f in once(product, grams, ground, on, house or House())}


class AtOnce(unittest.TestCase):
    def edge(self, key: str, basis: Basis, most: float, **more: object) -> None:
        """Nothing at the limit itself, the finding a hundredth above it."""
        self.assertNotIn(key, keys({basis: most}, **more))
        self.assertIn(key, keys({basis: most * 1.01}, **more))

    def test_a_lawn_by_all_its_nitrogen_and_by_the_quick_part(self) -> None:
        self.edge("nitrogen-once", Basis.N, 1.0, product=SLOW)
        self.edge("nitrogen-quick", Basis.N, 0.7)
        self.assertNotIn("nitrogen-quick", keys({Basis.N: 0.99}, product=SLOW))

    def test_a_green_and_a_house_that_feeds_little_and_often(self) -> None:
        self.edge("nitrogen-on-a-green", Basis.N, 0.3, ground=GREEN)
        self.edge("nitrogen-spoon", Basis.N, 0.25, house=House({"feeding": "spoon"}))

    def test_on_the_leaf_unless_it_is_watered_in(self) -> None:
        self.edge("nitrogen-of-a-spray", Basis.N, 0.25, product=IRON)
        watered = replace(IRON, rules=Rules(water_in_depth=6.0, water_in_delay=0.0))
        self.assertNotIn("nitrogen-of-a-spray", keys({Basis.N: 0.5}, product=watered))

    def test_potash_and_iron(self) -> None:
        self.edge("potash-once", Basis.K2O, 1.0)
        self.edge("iron-once", Basis.FE, 0.05, product=IRON, house=House({"iron": "capped"}))
        self.assertNotIn("iron-once", keys({Basis.FE: 0.5}, product=FEED))

    def test_phosphorus_where_a_test_asks_for_it_is_quiet(self) -> None:
        # Any phosphorus does; that a soil test goes before is the law of several states (see docs/science.md).
        self.assertIn("phosphorus-untested", keys({Basis.P2O5: 0.1}))
        self.assertNotIn("phosphorus-untested", keys({Basis.P2O5: 0.1}, ground=replace(LAWN, tested_p=True)))

    def test_heat_by_the_houses_school(self) -> None:
        # Both schools are common practice, no source; any nitrogen does.
        hot, hot_bermuda = replace(LAWN, stress=Stress.HEAT), replace(LAWN, stress=Stress.HEAT, grass="bermudagrass")
        for answer, cool, warm in (("none", True, True), ("cool_no", True, False)):
            house = House({"nitrogen_in_heat": answer})
            self.assertEqual("nitrogen-in-heat" in keys({Basis.N: 0.2}, ground=hot, house=house), cool, answer)
            self.assertEqual("nitrogen-in-heat" in keys({Basis.N: 0.2}, ground=hot_bermuda, house=house), warm, answer)

    def test_urea_on_cold_soil_is_only_noted(self) -> None:
        cold = replace(LAWN, stress=Stress.COLD)
        house = House({"nitrogen_source": "quick_cold"})
        found = [f for f in once(UREA, {Basis.N: 0.5 * LB_PER_1000}, cold, DAY, house) if f.key == "urea-in-cold"]
        self.assertEqual([f.act for f in found], [Weight.NOTE])
        self.assertNotIn("urea-in-cold", keys({Basis.N: 0.5}, product=FEED, ground=cold, house=house))

    def test_a_closed_time_over_the_turn_of_the_year_by_its_ends(self) -> None:
        # The days are those of the closed time, both ends in it.
        house = House(closed=(Closed("N", (12, 1), (2, 15), "local law"),))
        for on, shut in (
            (date(2030, 11, 30), False),
            (date(2030, 12, 1), True),
            (date(2031, 1, 9), True),
            (date(2031, 2, 15), True),
            (date(2031, 2, 16), False),
        ):
            self.assertEqual("closed-season" in keys({Basis.N: 0.2}, house=house, on=on), shut, on)
        self.assertNotIn("closed-season", keys({Basis.K2O: 0.2}, house=house, on=date(2031, 1, 9)))

    def test_metric_houses_are_told_in_grams(self) -> None:
        """1.5 lb/1000 ft² is 732.4 g/100 m² (exact units)."""
        found = once(FEED, {Basis.N: 1.5 * LB_PER_1000}, LAWN, DAY, House(), us=False)
        self.assertIn("732 g/100 m²", " ".join(f.sentence for f in found))

    def test_elements_are_counted_as_the_oxides_of_the_label(self) -> None:
        """P₂O₅ is 43.64 % P (IUPAC atomic weights)."""
        found = brought(FEED, {Basis.P: 1.0, Basis.P2O5: 2.0})
        self.assertAlmostEqual(found[Basis.P2O5], 2.0 + 1 / P_IN_P2O5)
        self.assertAlmostEqual(P_IN_P2O5, 2 * 30.973762 / (2 * 30.973762 + 5 * 15.999), places=5)
        self.assertNotIn(Basis.P, found)


class OverASeason(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.floats(0.05, 1.2), min_size=1, max_size=12))
    def test_the_ledger_is_the_sum_unrounded(self, pounds: list[float]) -> None:
        """Against numpy's pairwise sum, to twelve figures."""
        past = [
            applied(FEED, Quantity(lb / 0.2, UNITS["lb"]), FOOT, DAY - timedelta(days=30 * i + 30)) for i, lb in enumerate(pounds)
        ]
        plan = applied(FEED, Quantity(0.5 / 0.2, UNITS["lb"]), FOOT, DAY)
        line = next(x for x in budget(FEED, plan, past, LAWN).lines if x.key == "nutrient:N")
        self.assertAlmostEqual(line.used / float(np.sum(np.array(pounds))), 1, places=12)
        self.assertAlmostEqual(line.total, line.used + 0.5, places=12)
        self.assertAlmostEqual(line.low, 2)
        self.assertAlmostEqual(line.cap or 0, 4)
        metric = next(x for x in budget(FEED, plan, past, LAWN, us=False).lines if x.key == "nutrient:N")
        self.assertAlmostEqual(metric.used / line.used, 45359.237 / 929.0304, places=9)  # kg/ha in a lb/1000 ft², exact units
        self.assertEqual(metric.unit.symbol, "kg N/ha")

    def test_an_area_half_the_size_gets_twice_as_much_per_area(self) -> None:
        half = applied(FEED, Quantity(5.0, UNITS["lb"]), read_quantity("500 sq ft"), DAY)
        whole = applied(FEED, Quantity(5.0, UNITS["lb"]), FOOT, DAY)
        self.assertAlmostEqual(half.nutrients[Basis.N] / whole.nutrients[Basis.N], 2)

    def test_a_litre_and_its_weight_bring_the_same(self) -> None:
        litre = applied(IRON, Quantity(1.0, UNITS["l"]), FOOT, DAY)
        weight = applied(IRON, Quantity(IRON.density_g_per_l, UNITS["g"]), FOOT, DAY)
        self.assertEqual(litre.nutrients, weight.nutrients)
        self.assertEqual(litre.litres, weight.litres)

    def test_grams_per_litre_without_a_density_counts_what_is_poured_and_not_what_is_weighed(self) -> None:
        # 200 g/L × 1 L.
        active = Product("Bare", Kind.FUNGICIDE, SC, (Content("boscalid", Basis.ACTIVE, g_per_l=200),))
        self.assertAlmostEqual(applied(active, Quantity(1.0, UNITS["l"]), FOOT, DAY).actives["boscalid"] * FOOT.base, 200)
        self.assertEqual(applied(active, Quantity(1000.0, UNITS["g"]), FOOT, DAY).actives, {})

    def test_a_nutrient_over_its_usual_range_warns_and_never_refuses(self) -> None:
        # 20 % of 19 + 2 lb is 4.2 lb, over the 4 lb that are usual (range: see `core.rates.nutrients`).
        past = [applied(FEED, Quantity(19.0, UNITS["lb"]), FOOT, DAY - timedelta(days=40))]
        plan = applied(FEED, Quantity(2.0, UNITS["lb"]), FOOT, DAY)
        found = over_budget(budget(FEED, plan, past, LAWN), FEED)
        self.assertEqual({f.act for f in found}, {Weight.WARN})
        self.assertIn("4.2 lb", found[0].sentence)
        self.assertIn("0.2 ", found[0].sentence)

    def test_a_grass_without_a_usual_range_has_no_cap(self) -> None:
        bare = replace(LAWN, grass="unheard_of")
        self.assertIsNone(season_range(bare))

    def test_the_label_binds_pesticides_and_only_warns_for_feeds(self) -> None:
        cap = read_label_rate("3 lb per 1,000 sq ft")
        feed = replace(FEED, rules=Rules(most_per_season=cap))
        plan = applied(feed, Quantity(4.0, UNITS["lb"]), FOOT, DAY)
        self.assertEqual(
            [f.act for f in over_budget(budget(feed, plan, [], LAWN), feed) if f.key == "season-product"], [Weight.WARN]
        )
        spray = replace(SPRAY, rules=Rules(most_per_season=read_label_rate("1 fl oz per 1,000 sq ft"), applications_per_season=1))
        twice = applied(spray, Quantity(0.6, UNITS["fl_oz"]), FOOT, DAY, Row(read_label_rate("0.4 to 0.8 fl oz/M")))
        found = {f.key: f.act for f in over_budget(budget(spray, twice, [twice], LAWN), spray)}
        self.assertEqual(found, {"season-product": Weight.REFUSE, "season-times": Weight.REFUSE})


class Formulations(unittest.TestCase):
    def test_every_formulation_is_poured_or_weighed_and_sprayed_or_spread(self) -> None:
        for key, form in FORMULATIONS.items():
            self.assertTrue(form.name, key)
            product = Product("x", Kind.BIOSTIMULANT, form, density_g_per_l=1000.0 if form.liquid else None)
            self.assertEqual(product.liquid, form.liquid, key)
            self.assertEqual(product.measured_in, "volume" if form.liquid else "mass", key)
