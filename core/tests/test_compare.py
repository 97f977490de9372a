"""Products side by side, what to buy, the sum backwards, measuring helpers, rows for a ground, the ramp, group codes."""

import itertools
import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError, NotUnderstood
from core.ground import Ground
from core.growth.ramp import regulator_start, start_in_range
from core.label.groups import GROUPS, group_of, multi_site, read_codes
from core.label.match import fits
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Package, Product, check_product
from core.label.rate import Basis, Rate
from core.label.rules import Intent, Row
from core.label.targets import TARGETS, find_target
from core.rates.compare import Offer, buy, compare, equal
from core.rates.reverse import rate_of, reach
from core.schools import QUESTIONS, House, check_answers
from core.tank.measuring import check_cup, least_of, leasts, stock_dilution, water_density
from core.tank.vessels import BENCH, Cabinet, measure
from core.units import UNITS, Quantity, read_quantity

US, METRIC = Cabinet(True), Cabinet(False)

GRANULE, SC = FORMULATIONS["GR"], FORMULATIONS["SC"]


def bag(size: str, price: str | None) -> Package:
    return Package(read_quantity(size), Decimal(price) if price else None)


def feed(name: str, n: float, *packages: Package) -> Product:
    return Product(name, Kind.FERTILISER, GRANULE, (Content("N", Basis.N, percent=n),), packages=packages)


class Compare(unittest.TestCase):
    def test_the_dearer_bag_can_be_the_cheaper_nitrogen(self) -> None:
        """50 lb of 24 % N at $31.20 is $2.60 a lb of N; 50 lb of 10 % at $20 is $4.00 (arithmetic)."""
        label = read_label_rate("1 lb N per 1,000 sq ft")
        both = [
            Offer(feed("rich", 24, bag("50 lb", "31.20")), label, label.highest),
            Offer(feed("poor", 10, bag("50 lb", "20.00")), label, label.highest),
        ]
        rich, poor = compare(both, read_quantity("5,000 sq ft"))
        costs = [(x.per_gram(Basis.N) or 0.0) * UNITS["lb"].size for x in (rich, poor)]
        self.assertEqual([round(c, 9) for c in costs], [2.60, 4.00])
        assert rich.cost
        self.assertAlmostEqual(rich.cost, 13.0, places=9)

    def test_equal_of_weak_granules_and_strong_concentrate(self) -> None:
        weak = Product("weak", Kind.FUNGICIDE, GRANULE, (Content("azoxystrobin", Basis.ACTIVE, percent=0.31),))
        strong = Product("strong", Kind.FUNGICIDE, SC, (Content("Azoxystrobin", Basis.ACTIVE, g_per_l=249.0),))
        other = Product("other", Kind.FUNGICIDE, SC, (Content("fludioxonil", Basis.ACTIVE, g_per_l=230.0),))
        granules, fluid = read_label_rate("2 to 4 lb/M"), read_label_rate("0.4 to 0.77 fl oz/M")
        ground = read_quantity("5,000 sq ft")
        reference = compare([Offer(weak, granules, granules.highest)], ground)[0]
        rows = [Offer(strong, fluid, fluid.highest), Offer(other, fluid, fluid.highest)]
        matched = equal(reference, rows, ground)
        self.assertEqual([m.product.name for m in matched], ["strong"])
        again = compare(matched, ground)[0]
        assert again.active and reference.active
        self.assertAlmostEqual(again.active / reference.active, 1, places=12)
        with self.assertRaisesRegex(InputError, "matched by one active"):
            equal(
                compare([Offer(feed("f", 20), read_label_rate("1 lb N/M"), read_label_rate("1 lb N/M").highest)], ground)[0],
                rows,
                ground,
            )

    def test_equal_nitrogen_and_equal_iron(self) -> None:
        """A pound of N/1000 ft² of 20 % is 5 lb, of 24 % 4.167 lb; iron of 6 % and of 10 % by 0.6 (arithmetic)."""
        label = read_label_rate("1 lb N/M")
        five, four = (Offer(feed(f"{n}", n), label, Rate(1.0, label.highest.unit)) for n in (20, 24))
        ground = read_quantity("5,000 sq ft")
        half = Offer(four.product, label, Rate(0.5, label.highest.unit))
        (again,) = [o for o in equal(compare([five], ground)[0], [five, half], ground, Basis.N) if o.product is four.product]
        self.assertAlmostEqual(again.rate.value, 1.0)
        self.assertAlmostEqual(compare([again], ground)[0].dose.amount.value, 5 / 0.24)
        iron = [Product(f"fe{p}", Kind.IRON, GRANULE, (Content("Fe", Basis.FE, percent=p),)) for p in (6.0, 10.0)]
        spread = read_label_rate("1 to 4 lb/M")
        two = [Offer(p, spread, spread.highest) for p in iron]
        matched = equal(compare(two, ground)[0], two, ground, Basis.FE)
        self.assertAlmostEqual(matched[1].rate.value / matched[0].rate.value, 0.6)
        self.assertEqual(
            [o.product.name for o in equal(compare(two, ground)[0], [*two, five], ground, Basis.FE)], ["fe6.0", "fe10.0"]
        )

    def test_what_it_costs_is_its_share_of_what_is_bought_and_stock_is_not_bought(self) -> None:
        """4 lb needed: of bags of 50 lb at $50 and 5 lb at $10 one of 5 is bought, 2.00 a lb; so with 3 lb in stock."""
        label = read_label_rate("4 lb per 1,000 sq ft")
        product = feed("x", 20, bag("50 lb", "50.00"), bag("5 lb", "10.00"))
        ground = read_quantity("1,000 sq ft")
        for stock, bought, left in (("", 1, 1.0), ("3 lb", 1, 4.0), ("4 lb", 0, 0.0)):
            (found,) = compare([Offer(product, label, label.highest, read_quantity(stock) if stock else None)], ground)
            assert found.cost
            self.assertAlmostEqual(found.cost, 8.0)
            self.assertEqual(found.purchase.packages[0].count if found.purchase else 0, bought)
            self.assertAlmostEqual(found.purchase.leftover.to("lb").value if found.purchase else 0.0, left)

    def test_without_a_price_there_is_no_cost(self) -> None:
        label = read_label_rate("1 lb N per 1,000 sq ft")
        found = compare([Offer(feed("x", 20, bag("50 lb", None)), label, label.highest)], read_quantity("5,000 sq ft"))[0]
        self.assertEqual((found.cost, found.per_gram(Basis.N)), (None, None))
        assert found.purchase
        self.assertEqual((found.purchase.packages[0].count, found.purchase.cost), (1, None))


class Buy(unittest.TestCase):
    def test_curative_needs_four_small_bags(self) -> None:
        """31.2 lb from 10 lb bags: four, 8.8 lb over (arithmetic)."""
        found = buy([bag("10 lb", "22.00")], read_quantity("31.2 lb"))
        assert found
        self.assertEqual((found.packages[0].count, found.cost), (4, Decimal("88.00")))
        self.assertAlmostEqual(found.leftover.value, 8.8)

    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.integers(1, 60), st.integers(1, 90)), min_size=1, max_size=3), st.floats(0.5, 150))
    def test_it_is_the_cheapest_of_all_sets(self, sizes: list[tuple[int, int]], need: float) -> None:
        """Against every set of packages tried in turn."""
        packages = [Package(Quantity(float(s), UNITS["lb"]), Decimal(p)) for s, p in sizes]
        found = buy(packages, Quantity(need, UNITS["lb"]))
        assert found and found.cost is not None
        ranges = [range(int(need // s) + 2) for s, _ in sizes]
        every = (c for c in itertools.product(*ranges) if sum(n * s for n, (s, _) in zip(c, sizes, strict=True)) >= need - 1e-6)
        cheapest = min(sum(n * p for n, (_, p) in zip(c, sizes, strict=True)) for c in every)
        self.assertEqual(found.cost, cheapest)
        self.assertGreaterEqual(found.leftover.value, -1e-6)

    def test_packages_that_measure_else_are_left_out(self) -> None:
        self.assertIsNone(buy([bag("1 gal", "90")], read_quantity("10 lb")))


class Backwards(unittest.TestCase):
    SPRAY = Product("s", Kind.FUNGICIDE, SC, (Content("a", Basis.ACTIVE, percent=20),), 1100.0)

    @given(st.floats(0.05, 50), st.floats(100, 1e6))
    def test_forward_and_backwards_agree(self, value: float, feet: float) -> None:
        from core.rates.dose import dose

        for phrase in ("0.1 to 60 fl oz per 1,000 sq ft", "0.01 to 60 lb ai/acre", "0.1 to 60 lb/acre"):
            label = read_label_rate(phrase)
            ground = Quantity(feet, UNITS["ft2"])
            used = dose(self.SPRAY, Rate(value, label.highest.unit), ground).amount
            self.assertAlmostEqual(rate_of(self.SPRAY, label, used, ground).rate.value / value, 1, places=9)

    def test_how_far_a_package_goes(self) -> None:
        """10 lb at 2 lb/1000 ft² covers 5,000 ft² (arithmetic)."""
        label = read_label_rate("2 lb per 1,000 sq ft")
        found = reach(feed("x", 20), label, label.highest, read_quantity("10 lb"))
        self.assertAlmostEqual(found.to("ft2").value, 5000)
        with self.assertRaisesRegex(InputError, "says nothing of ground"):
            reach(self.SPRAY, read_label_rate("1 fl oz/gal"), read_label_rate("1 fl oz/gal").highest, read_quantity("1 gal"))


class Measuring(unittest.TestCase):
    def test_density_of_water(self) -> None:
        """Tanaka et al. 2001, table: 0 °C 999.843, 4 °C 999.975, 20 °C 998.207, 30 °C 995.649 g/L (from memory, ± 0.002)."""
        for celsius, expected in ((0, 999.843), (4, 999.975), (20, 998.207), (30, 995.649)):
            self.assertAlmostEqual(water_density(celsius), expected, delta=0.003)
        with self.assertRaises(InputError):
            water_density(60)

    def test_a_good_cup_and_an_untared_one(self) -> None:
        # Water is 998.2 g/L at 20 °C (CRC Handbook of Chemistry and Physics, from memory): 100 mL weigh 99.8 g.
        self.assertIn("The mark is good", check_cup(read_quantity("100 mL"), read_quantity("99.9 g")).sentence)
        with self.assertRaisesRegex(InputError, "tared"):
            check_cup(read_quantity("100 mL"), read_quantity("180 g"))

    def test_the_least_of_a_vessel_is_where_its_reading_is_five_and_ten_percent_out(self) -> None:
        # Half a graduation is what the eye tells (common practice, no source); 5 and 10 % are the house's own.
        for vessel in BENCH:
            found = least_of(vessel)
            self.assertAlmostEqual(vessel.graduation / 2 / found.well.value, 0.05)
            self.assertAlmostEqual(vessel.graduation / 2 / found.at_all.value, 0.10)
        self.assertTrue(
            {x.vessel.shape for x in (*leasts(US, "volume"), *leasts(US, "mass"))} >= {"syringe", "cup", "jug", "scale"}
        )

    @given(st.floats(0.01, 0.9), st.booleans())
    def test_a_stock_dilution_brings_the_dose(self, ml: float, us: bool) -> None:
        # Take × use ÷ total is the dose; 5 % is the house's own.
        dose = Quantity(ml, UNITS["ml"])
        found = stock_dilution(dose, Cabinet(us))
        if found is None:
            self.assertLessEqual(measure(dose, Cabinet(us)).reading, 0.05)
            return
        self.assertAlmostEqual(found.take.base * found.use.base / found.total.base / dose.base, 1, places=9)
        self.assertLessEqual(measure(found.take, METRIC).reading, 0.05)

    def test_a_dry_dose_is_diluted_where_it_goes_into_water(self) -> None:
        """0.8 g on a platform scale alone (20 g marks): 500 times that, 400 g, in 1 L; 2 mL hold one dose."""
        own = Cabinet(False, tuple(v for v in BENCH if v.key == "scale-60kg"))
        dose = read_quantity("0.8 g")
        found = stock_dilution(dose, own)
        assert found
        self.assertAlmostEqual(found.take.base * found.use.base / found.total.base, 0.8)
        self.assertIn("Shake it before every draw.", found.sentence)
        self.assertIsNone(stock_dilution(dose, own, in_water=False))


class Rows(unittest.TestCase):
    def test_the_narrower_row_comes_first_by_the_houses_rule(self) -> None:
        ground = Ground("g", read_quantity("5000 ft2"), "tall_fescue", height=read_quantity("2 in"))
        tall = Row(read_label_rate("3 fl oz/acre"), height=(0.03, 0.06))
        named = Row(read_label_rate("2 fl oz/acre"), grasses=("tall_fescue",))
        low = Row(read_label_rate("1 fl oz/acre"))
        rows = (low, named, tall)
        first = {rule: fits(rows, ground, house=House({"regulator_rate": rule}))[0].row for rule in ("height", "grass", "lower")}
        self.assertEqual(first, {"height": tall, "grass": named, "lower": low})

    def test_preventive_and_curative_are_told_apart(self) -> None:
        ground = Ground("g", read_quantity("5000 ft2"))
        rows = (
            Row(read_label_rate("1 fl oz/acre"), intent=Intent.PREVENTIVE),
            Row(read_label_rate("2 fl oz/acre"), intent=Intent.CURATIVE),
        )
        self.assertEqual(fits(rows, ground, intent=Intent.CURATIVE)[0].row, rows[1])

    def test_the_ends_of_a_height_range_belong_to_it(self) -> None:
        row = Row(read_label_rate("1 fl oz/acre"), height=(read_quantity("0.5 in").base, read_quantity("1 in").base))
        for height, fit in (("0.5 in", True), ("1 in", True), ("0.49 in", False), ("1.01 in", False)):
            ground = Ground("g", read_quantity("5000 ft2"), height=read_quantity(height))
            self.assertEqual(fits([row], ground)[0].fits, fit, height)


class Ramp(unittest.TestCase):
    LABEL = read_label_rate("4 to 8 fl oz per acre")

    def test_half_then_three_quarters_then_full(self) -> None:
        """The ramp of one school (common practice, no source)."""
        self.assertEqual([regulator_start(self.LABEL, n).rate.value for n in range(4)], [4, 6, 8, 8])

    def test_other_schools(self) -> None:
        self.assertEqual(regulator_start(self.LABEL, 0, House({"first_regulator": "full"})).rate.value, 8)
        self.assertEqual(regulator_start(self.LABEL, 0, House({"first_regulator": "lowest"})).rate.value, 4)

    def test_a_ramp_below_the_label_is_said(self) -> None:
        found = regulator_start(read_label_rate("6 to 8 fl oz per acre"), 0)
        self.assertIn("under the label's lowest rate", found.why)

    def test_where_a_range_starts(self) -> None:
        for rule, value in (("low", 4), ("middle", 6), ("top", 8)):
            self.assertEqual(start_in_range(self.LABEL, House({"start_rate": rule})).rate.value, value)


class Codes(unittest.TestCase):
    def test_an_active_has_its_group_however_it_is_spelt(self) -> None:
        """FRAC, HRAC and regulator classes after the code lists named in `core.label.groups`."""
        for names, group in (
            (("fosetyl-aluminium", "Fosetyl-aluminum", "fosetyl Al", "potassium phosphite"), "FRAC P07"),
            (("quintozene", "PCNB"), "FRAC 14"),
            (("bentazone", "bentazon"), "HRAC 6"),
            (("glufosinate", "glufosinate-ammonium", "Glufosinate ammonium"), "HRAC 10"),
            (("prohexadione-calcium", "prohexadione calcium", "prohexadione-Ca"), "Class A"),
            (("GA3", "gibberellic acid", "Gibberellin A3"), "Class F"),
            (("trinexapac-ethyl", "trinexapac"), "Class A"),
        ):
            for name in names:
                found = group_of(name)
                self.assertEqual(found and found.text, group, name)
        self.assertIsNone(group_of("an active"))

    def test_a_card_that_names_another_group_is_told(self) -> None:
        held = (Content("propiconazole", Basis.ACTIVE, percent=14.3),)
        one = Product("A", Kind.FUNGICIDE, FORMULATIONS["SC"], held, codes=("FRAC 7",))
        self.assertIn("propiconazole is of FRAC 3 (DMI); the card says FRAC 7.", check_product(one))
        self.assertFalse(any("FRAC" in w for w in check_product(replace(one, codes=("FRAC 3",)))))

    def test_spellings(self) -> None:
        cases = {
            "FRAC 3 + 11": ("FRAC 3", "FRAC 11"),
            "M5": ("FRAC M05",),
            "Class A": ("Class A",),
            "": (),
            "HRAC 4, 14": ("HRAC 4", "HRAC 14"),
            "Group 33": ("FRAC P07",),
            "FRAC 12": ("FRAC 12",),
        }
        for text, want in cases.items():
            self.assertEqual(read_codes(text), want, text)
        with self.assertRaises(NotUnderstood):
            read_codes("the strong one")

    def test_actives_and_multi_site(self) -> None:
        self.assertTrue(multi_site("FRAC M05") and not multi_site("FRAC 3"))
        self.assertTrue(GROUPS["FRAC M03"].multi_site)

    def test_every_target_is_found_by_every_name(self) -> None:
        for target in TARGETS.values():
            for name in (target.name, *target.also):
                found = find_target(f"{name}, preventive")
                assert found
                self.assertEqual(found.key, target.key, name)
            self.assertTrue(all(other in TARGETS for other, _ in target.unlike))


class Schools(unittest.TestCase):
    def test_each_side_has_a_reason_and_answers_are_checked(self) -> None:
        for question in QUESTIONS.values():
            self.assertGreaterEqual(len(question.options), 2, question.key)
            self.assertTrue(all(o.reason.endswith(".") for o in question.options) and question.changes, question.key)
            self.assertEqual(House().of(question.key), question.options[0].key)
        self.assertEqual(check_answers({"iron": "label"}), {"iron": "label"})
        for bad in ({"iron": "lots"}, {"moon": "full"}):
            with self.assertRaises(InputError):
                check_answers(bad)
