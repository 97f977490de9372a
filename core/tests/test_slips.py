"""The slips: each test is named after what is caught, by asking, by refusing, or by a warning with both readings.

Figures are of our own making unless a source stands beside them; rules of the trade are common practice, no source.
"""

import unittest
from dataclasses import replace
from datetime import date

from core.errors import Ambiguous, InputError
from core.findings import Act, Finding
from core.ground import Ground, Hazard, HazardKind, Stress
from core.label.check import Checked, Plan, check
from core.label.misread import misread
from core.label.rules import Incompatible, Intent, Row, Rules
from core.label.targets import find_target, mistaken_for
from core.rates.actual import actual_rate
from core.rates.compare import Candidate, compare
from core.rates.dose import dose
from core.rates.limits import judge, refuse_above_label
from core.rates.phrase import read_label_rate
from core.rates.product import FORMULATIONS, Content, Kind, Product, check_product
from core.rates.rate import Basis, LabelRate, Rate
from core.rates.reverse import rate_from_left, rate_of, whole_package
from core.schools import Closed, House
from core.season.history import Applied
from core.season.history import applied as entered
from core.tank.measuring import check_cup, ways
from core.units import Quantity, read_quantity

LB_GAL = 119.826427
DAY = date(2031, 6, 10)
GREEN = Ground("green", read_quantity("5,000 sq ft"), grass="creeping_bentgrass", height=read_quantity("0.16 in"), use="green")
LAWN = Ground("lawn", read_quantity("8,000 sq ft"), grass="tall_fescue", height=read_quantity("3 in"), use="lawn")

GRANULE, SC, SL = FORMULATIONS["GR"], FORMULATIONS["SC"], FORMULATIONS["SL"]
UREA = Product("Urea", Kind.FERTILISER, GRANULE, (Content("N", Basis.N, percent=46),))
FEED = Product("Feed", Kind.FERTILISER, GRANULE, (Content("N", Basis.N, percent=20), Content("P2O5", Basis.P2O5, percent=5),
                                                  Content("K2O", Basis.K2O, percent=10)))  # fmt: skip
IRON = Product("Iron", Kind.IRON, SL, (Content("N", Basis.N, percent=7), Content("Fe", Basis.FE, percent=6)), 10.5 * LB_GAL,
               stains=True)  # fmt: skip
SPRAY = Product("Spray", Kind.FUNGICIDE, SC, (Content("fludioxonil", Basis.ACTIVE, percent=21),), 9.2 * LB_GAL,
                codes=("FRAC 12",))  # fmt: skip
LABEL = read_label_rate("0.4 to 0.8 fl oz per 1,000 sq ft")


def row(phrase: str | LabelRate, **more: object) -> Row:
    label = read_label_rate(phrase) if isinstance(phrase, str) else phrase
    return Row(label, **more)


def applied(product: Product, rate: Rate, on: date = DAY, **more: object) -> Applied:
    """What a rate of a product on a thousandth of an acre or so brings, as the book would have it."""
    foot = read_quantity("1,000 sq ft")
    return replace(entered(product, dose(product, rate, foot).amount, foot, on), **more)


def checked(product: Product, here: Row, value: float, ground: Ground = GREEN, *, history: tuple[Applied, ...] = (),
            house: House | None = None, target: str = "", rows: tuple[Row, ...] = (), on: date = DAY) -> Checked:  # fmt: skip
    rate = Rate(value, here.label.highest.unit)
    plan = Plan(product, here, rate, ground, applied(product, rate, on, interval=here.interval,
                                                     curative=here.intent is Intent.CURATIVE), target)  # fmt: skip
    return check(plan, rows or (here,), history, house or House())


class Caught(unittest.TestCase):
    def finding(self, found: Checked, key: str) -> Finding:
        hits = [f for f in found.findings if f.key == key]
        self.assertTrue(hits, f"{key} is not among {[f.key for f in found.findings]}")
        return hits[0]

    def quiet(self, found: Checked, *keys: str) -> None:
        here = {f.key for f in found.findings}
        self.assertFalse(here & set(keys), here)


class Nutrients(Caught):
    def test_a_micronutrient_spray_that_delivers_a_granular_nitrogen(self) -> None:
        """12 fl oz of a 10.5 lb/gal liquid with 7 % N bring 0.0689 lb N (arithmetic), not ten times that."""
        twelve = dose(IRON, Rate(12, read_label_rate("12 fl oz/M").unit), read_quantity("1,000 sq ft"))
        nitrogen = next(d for d in twelve.delivered if d.content.basis is Basis.N)
        self.assertAlmostEqual(nitrogen.grams / 453.59237, 0.06890625, places=9)
        found = self.finding(checked(IRON, row("3 to 140 fl oz/M"), 117, LAWN), "nitrogen-of-a-spray")
        self.assertEqual([r.meaning for r in found.readings], ["as it is", "with the decimal moved"])
        self.quiet(checked(IRON, row("3 to 14 fl oz/M"), 12, LAWN), "nitrogen-of-a-spray")

    def test_urea_at_a_hundredth_of_its_nitrogen(self) -> None:
        typed = replace(UREA, contents=(Content("N", Basis.N, percent=0.46),))
        self.assertIn("Urea holds 46 % N", " ".join(check_product(typed)))
        self.assertIn("100 times", " ".join(check_product(typed)))
        self.assertEqual(check_product(UREA), [])

    def test_a_quarter_pound_taken_for_urea_instead_of_nitrogen(self) -> None:
        """0.25 lb N from urea takes 0.543 lb (arithmetic); 0.25 lb of urea brings 0.115 lb N: a factor of 2.17."""
        label = read_label_rate("0.5 to 0.6 lb per 1,000 sq ft")
        found = misread(Rate(0.25, label.unit), label, UREA)
        assert found
        self.assertEqual(found.act, Act.ASK)
        self.assertEqual(found.key, "misread-N-for-product")
        self.assertIn("Is it N, not product?", found.sentence)
        self.assertIn("0.5435 lb/1000 ft², 2.174 times more", found.sentence)

    def test_a_potash_percent_is_read_as_k2o(self) -> None:
        """K is 83.0 % of K₂O by atomic mass."""
        for basis, expected in ((Basis.K2O, 10.0), (Basis.K, 10 / 0.83015)):
            rate = Rate(1.0, read_label_rate(f"1 lb {basis.value}/M").unit)
            self.assertAlmostEqual(dose(FEED, rate, read_quantity("1,000 sq ft")).amount.value, expected, places=6)

    def test_an_early_rounding_of_the_density_chain(self) -> None:
        """9.7 lb/gal ÷ 128 × 12 × 3 % is 0.027281 lb; rounding 0.0758 to 0.08 first gives 0.0288 (arithmetic)."""
        thin = Product("x", Kind.IRON, SL, (Content("Fe", Basis.FE, percent=3),), 9.7 * LB_GAL)
        found = dose(thin, Rate(12, read_label_rate("12 fl oz/M").unit), read_quantity("1,000 sq ft"))
        self.assertAlmostEqual(found.delivered[0].grams / 453.59237, 9.7 / 128 * 12 * 0.03, places=7)

    def test_a_quarter_that_is_not_a_quarter_stays_exact_in_the_ledger(self) -> None:
        """16 fl oz of a 10.5 lb/gal 18 % N liquid are 0.23625 lb N (arithmetic), not 0.25; twice is 0.4725."""
        liquid = Product("x", Kind.FERTILISER, SL, (Content("N", Basis.N, percent=18),), 10.5 * LB_GAL)
        here = row("10 to 20 fl oz/M")
        once = applied(liquid, Rate(16, here.label.unit), date(2031, 5, 1))
        found = checked(liquid, here, 16, LAWN, history=(once,))
        nitrogen = next(x for x in found.budget.lines if x.key == "nutrient:N")
        self.assertAlmostEqual(nitrogen.total, 0.4725, places=6)

    def test_phosphorus_without_a_soil_test(self) -> None:
        found = self.finding(checked(FEED, row("2 to 5 lb/M"), 4, LAWN), "phosphorus-untested")
        self.assertIn("P₂O₅", found.sentence)
        self.quiet(checked(FEED, row("2 to 5 lb/M"), 4, replace(LAWN, tested_p=True)), "phosphorus-untested")

    def test_iron_said_to_be_impossible_to_overdo(self) -> None:
        """0.05 lb Fe/1000 ft² is the usual most on the leaf (common practice, no source)."""
        self.finding(checked(IRON, row("3 to 16 fl oz/M"), 12, LAWN), "iron-once")
        self.quiet(checked(IRON, row("3 to 16 fl oz/M"), 6, LAWN), "iron-once")
        self.quiet(checked(IRON, row("3 to 16 fl oz/M"), 12, LAWN, house=House({"iron": "label"})), "iron-once")

    def test_liquids_that_are_said_to_feed_four_tenths(self) -> None:
        """2 fl oz of a 9.5 lb/gal 9 % N liquid bring 0.0134 lb N; beside 0.48 lb that is under 3 % (arithmetic)."""
        spoon = Product("x", Kind.BIOSTIMULANT, SL, (Content("N", Basis.N, percent=9),), 9.5 * LB_GAL)
        bag = applied(FEED, Rate(2.4, read_label_rate("1 lb/M").unit), date(2031, 5, 1))
        found = checked(spoon, row("2 to 3 fl oz/M"), 2, LAWN, history=(bag,))
        nitrogen = next(x for x in found.budget.lines if x.key == "nutrient:N")
        self.assertAlmostEqual(nitrogen.used, 0.48, places=9)
        self.assertAlmostEqual(nitrogen.plan / nitrogen.total, 0.0271, places=4)

    def test_nitrogen_in_a_closed_season(self) -> None:
        law = House(closed=(Closed("N", (6, 1), (8, 31), "the ground runs to a lake"),))
        found = self.finding(checked(FEED, row("2 to 5 lb/M"), 4, LAWN, house=law), "closed-season")
        self.assertIs(found.act, Act.REFUSE)
        self.assertIn("1 June to 31 August: the ground runs to a lake", found.sentence)
        self.quiet(checked(FEED, row("2 to 5 lb/M"), 4, LAWN, house=law, on=date(2031, 9, 1)), "closed-season")
        winter = Closed("N", (11, 15), (3, 1))
        self.assertEqual([winter.holds(date(2031, m, 20)) for m in (11, 1, 2, 3, 6)], [True, True, True, False, False])

    def test_nitrogen_at_once_and_quick_nitrogen(self) -> None:
        slow = replace(FEED, contents=(Content("N", Basis.N, percent=20, slow_percent=12),))
        self.finding(checked(FEED, row("1 to 9 lb/M"), 4, LAWN), "nitrogen-quick")
        self.quiet(checked(slow, row("1 to 9 lb/M"), 4, LAWN), "nitrogen-quick", "nitrogen-once")
        self.finding(checked(slow, row("1 to 9 lb/M"), 5.5, LAWN), "nitrogen-once")

    def test_nitrogen_on_heat_stressed_cool_season_grass(self) -> None:
        hot = replace(LAWN, stress=Stress.HEAT)
        self.finding(checked(FEED, row("1 to 9 lb/M"), 2, hot), "nitrogen-in-heat")
        warm = replace(hot, grass="bermudagrass")
        self.quiet(checked(FEED, row("1 to 9 lb/M"), 2, warm), "nitrogen-in-heat")
        self.finding(checked(FEED, row("1 to 9 lb/M"), 2, warm, house=House({"nitrogen_in_heat": "none"})), "nitrogen-in-heat")


class Rates(Caught):
    def test_a_half_dose_worked_out_and_the_whole_poured(self) -> None:
        """3 fl oz on 500 ft² is 6 fl oz/1000 ft², twice a top of 3 (arithmetic)."""
        label = read_label_rate("1 to 3 fl oz per 1,000 sq ft")
        found = rate_of(SPRAY, label, read_quantity("3 fl oz"), read_quantity("500 sq ft"))
        self.assertAlmostEqual(found.rate.value, 6)
        self.assertTrue(found.judgement.refused)
        self.assertIn("2 times the label's highest rate", found.sentence)

    def test_a_fluid_bottle_that_would_be_lighter_than_water(self) -> None:
        """16 fl oz that weigh 1 lb are 8 lb/gal, under water's 8.33 (NIST: 1 lb is 453.59237 g)."""
        light = replace(SPRAY, density_g_per_l=8.0 * LB_GAL)
        self.assertIn("lighter than water", " ".join(check_product(light)))
        with self.assertRaises(Ambiguous):
            read_label_rate("16 oz per 1,000 sq ft")

    def test_per_acre_read_as_per_thousand_and_back(self) -> None:
        """1 acre is 43.56 times 1000 ft² (NIST Handbook 44)."""
        per_1000, per_acre = LABEL, read_label_rate("18 to 35 fl oz per acre")
        found = misread(Rate(22, per_1000.unit), per_1000, SPRAY)
        assert found
        self.assertIn("Is it per acre? Then it would be 0.5051 fl oz/1000 ft², 43.56 times less.", found.sentence)
        self.assertEqual(found.readings[0].text, "0.50505")
        other = misread(Rate(0.5, per_acre.unit), per_acre, SPRAY)
        assert other
        self.assertIn("Is it per 1000 ft²?".replace("1000", "1,000"), other.sentence)

    def test_per_square_foot_said_for_per_thousand(self) -> None:
        label = read_label_rate("2 to 4 lb per 1,000 sq ft")
        found = misread(read_label_rate("3 lb per sq ft").highest, label, FEED)
        assert found
        self.assertIn("not per ft²", found.sentence)

    def test_millilitres_fluid_ounces_and_ounces_by_weight(self) -> None:
        """1 fl oz is 29.57 mL (NIST Handbook 44)."""
        metric = read_label_rate("12 to 24 mL per 100 m²")
        for value, label, words in ((0.6, metric, "Is it in fl oz?"), (16, LABEL, "Is it in mL?")):
            found = misread(Rate(value, label.unit), label, SPRAY)
            assert found
            self.assertIn(words, found.sentence)

    def test_a_slipped_decimal_and_a_doubled_dose(self) -> None:
        for value, words in ((6.0, "decimal"), (1.5, "twice the ground")):
            found = misread(Rate(value, LABEL.unit), LABEL, SPRAY)
            assert found
            self.assertIn(words, found.sentence)

    def test_nothing_is_asked_within_the_label_or_where_no_slip_explains_it(self) -> None:
        self.assertIsNone(misread(Rate(0.8, LABEL.unit), LABEL, SPRAY))
        narrow = read_label_rate("10 to 10.1 lb/acre")
        self.assertIsNone(misread(Rate(13.7, narrow.unit), narrow, FEED))

    def test_a_rate_in_ounces_an_acre_that_looks_high_by_the_thousand(self) -> None:
        """0.025 to 0.05 oz/1000 ft² is 1.09 to 2.18 oz/acre (× 43.56): the phrase is always shown both ways."""
        label = read_label_rate("0.025 to 0.05 oz wt per 1,000 sq ft")
        acre = label.highest.to(read_label_rate("1 oz wt/acre").unit)
        self.assertAlmostEqual(acre.value, 2.178, places=3)

    def test_a_share_per_gallon_that_is_not_the_usual_percent(self) -> None:
        """0.25 fl oz/gal is 0.195 % v/v; 0.25 % v/v is 0.32 fl oz/gal (128 fl oz a gallon)."""
        per_gallon = read_label_rate("0.25 fl oz per gal of spray")
        self.assertAlmostEqual(per_gallon.highest.base * 100, 0.1953125, places=9)
        self.assertAlmostEqual(read_label_rate("0.25% v/v").highest.base * 128, 0.32, places=9)

    def test_a_tank_rate_carried_to_a_label_per_hundred_gallons(self) -> None:
        """2 fl oz/gal is 200 fl oz/100 gal (arithmetic)."""
        label = read_label_rate("2 to 4 fl oz per 100 gal")
        found = misread(Rate(200, label.unit), label, SPRAY)
        assert found
        self.assertIn("Is it per 100 gal, not per gallon? Then it would be 2 fl oz/100 gal", found.sentence)

    def test_a_dose_without_an_area_or_an_amount(self) -> None:
        with self.assertRaisesRegex(InputError, "amount, not yet a rate"):
            read_label_rate("5 lb")
        with self.assertRaises(InputError):
            read_quantity("", "size")

    def test_above_the_label_is_refused_and_above_a_feeds_range_only_said(self) -> None:
        with self.assertRaisesRegex(InputError, "The label is the law for a fungicide"):
            refuse_above_label(Rate(0.81, LABEL.unit), LABEL, Kind.FUNGICIDE)
        label = read_label_rate("2 to 4 lb/M")
        self.assertFalse(judge(Rate(5, label.unit), label, Kind.FERTILISER).refused)

    def test_the_most_in_one_application(self) -> None:
        capped = replace(SPRAY, rules=Rules(most_per_application=read_label_rate("0.7 fl oz per 1,000 sq ft")))
        self.assertIs(self.finding(checked(capped, row(LABEL), 0.75), "most-per-application").act, Act.REFUSE)
        self.quiet(checked(capped, row(LABEL), 0.7), "most-per-application")


class Packages(Caught):
    LABEL = read_label_rate("4 lb per 1,000 sq ft")
    BAGGED = Product("Bagged", Kind.FUNGICIDE, GRANULE, (Content("azoxystrobin", Basis.ACTIVE, percent=0.31),))

    def test_a_whole_bag_on_an_infection_that_needs_more(self) -> None:
        """10 lb on 4,300 ft² is 2.33 lb/1000 ft²; 4 lb/1000 needs 17.2 lb, two bags (arithmetic)."""
        ground = read_quantity("4,300 sq ft")
        found = whole_package(self.BAGGED, self.LABEL, self.LABEL.highest, read_quantity("10 lb"), ground)
        self.assertAlmostEqual(found.backwards.rate.value, 10 / 4.3)
        self.assertEqual((round(found.meant.value, 6), found.packages), (17.2, 2))
        self.assertIn("42 % under the label's lowest rate", found.backwards.judgement.sentence)

    def test_what_is_left_tells_what_was_put_down(self) -> None:
        """15.6 lb less 7.2 lb on 6,000 ft² is 1.4 lb/1000 ft² (arithmetic)."""
        found = rate_from_left(
            self.BAGGED, self.LABEL, read_quantity("15.6 lb"), read_quantity("7.2 lb"), read_quantity("6000 ft2")
        )
        self.assertAlmostEqual(found.rate.value, 1.4)
        with self.assertRaisesRegex(InputError, "nothing was used"):
            rate_from_left(self.BAGGED, self.LABEL, read_quantity("3 lb"), read_quantity("3 lb"), read_quantity("6000 ft2"))

    def test_a_strong_concentrate_taken_for_a_strong_dose(self) -> None:
        """4 lb of 0.31 % and 0.77 fl oz of 2.08 lb/gal both bring 0.0125 lb ai/1000 ft² (arithmetic)."""
        strong = Product("Strong", Kind.FUNGICIDE, SC, (Content("azoxystrobin", Basis.ACTIVE, g_per_l=2.08 * LB_GAL),))
        fluid = read_label_rate("0.77 fl oz per 1,000 sq ft")
        weak, dense = compare(
            [Candidate(self.BAGGED, self.LABEL, self.LABEL.highest), Candidate(strong, fluid, fluid.highest)],
            read_quantity("1,000 sq ft"),
        )
        assert weak.active and dense.active
        self.assertAlmostEqual(weak.active / dense.active, 0.0124 / 0.0125125, places=6)


class Vessels(Caught):
    def test_a_cup_marked_by_an_ounce_of_water_by_weight(self) -> None:
        """0.38 oz by weight of water is 10.8 mL, 4 % under 0.38 fl oz (998.2 g/L at 20 °C, Tanaka 2001)."""
        found = check_cup(read_quantity("0.38 fl oz"), read_quantity("0.38 oz wt"), 20)
        self.assertAlmostEqual(found.holds.to("ml").value, 10.79, places=2)
        self.assertAlmostEqual(found.off, -0.04, places=2)
        self.assertIn("out", found.sentence)

    def test_an_eighth_of_an_ounce_taken_for_five_millilitres(self) -> None:
        """1/8 fl oz is 3.70 mL (NIST Handbook 44); 5 mL is 35 % more."""
        shown = {w.unit: w.text for w in ways(read_quantity("1/8 fl oz"))}
        self.assertEqual(shown["mL"], "3.697 mL")
        self.assertAlmostEqual(5 / read_quantity("1/8 fl oz").to("ml").value - 1, 0.3525, places=3)

    def test_weight_is_only_told_where_a_density_is_known(self) -> None:
        self.assertNotIn("g", {w.unit for w in ways(read_quantity("1 fl oz"))})
        self.assertIn("g", {w.unit for w in ways(read_quantity("1 fl oz"), 1100)})


class Sites(Caught):
    BENT = row("6 to 9 fl oz per acre", grasses=("creeping_bentgrass",), height=(None, 0.0127))
    RYE = row("9 to 14 fl oz per acre", grasses=("perennial_ryegrass",), height=(None, 0.0127))
    FESCUE = row("0.5 to 0.8 fl oz per 1,000 sq ft", grasses=("tall_fescue",), height=(0.05, None))
    ROWS = (BENT, RYE, FESCUE)
    REGULATOR = Product("Reg", Kind.GROWTH_REGULATOR, FORMULATIONS["ME"],
                        (Content("trinexapac-ethyl", Basis.ACTIVE, percent=12),), 8.7 * LB_GAL, codes=("Class A",))  # fmt: skip

    def test_a_grass_that_the_label_does_not_list(self) -> None:
        bermuda = replace(LAWN, grass="bermudagrass")
        found = self.finding(checked(self.REGULATOR, self.FESCUE, 0.6, bermuda, rows=self.ROWS), "grass-not-listed")
        self.assertIs(found.act, Act.REFUSE)
        self.quiet(checked(self.REGULATOR, self.FESCUE, 0.6, LAWN, rows=self.ROWS), "grass-not-listed", "grass-not-in-row")

    def test_another_grasss_row(self) -> None:
        found = self.finding(checked(self.REGULATOR, self.RYE, 10, GREEN, rows=self.ROWS), "grass-not-in-row")
        self.assertIn("The row lists perennial ryegrass; green is creeping bentgrass.", found.sentence)

    def test_a_height_in_no_row_is_said_and_never_read_between(self) -> None:
        tall = replace(GREEN, height=read_quantity("0.75 in"))
        found = self.finding(checked(self.REGULATOR, self.BENT, 8, tall, rows=self.ROWS), "height-in-no-row")
        self.assertIs(found.act, Act.REFUSE)
        self.assertIn("no rate for 0.75 in on creeping bentgrass", found.sentence)
        self.assertIn("None is read between them", found.sentence)
        self.quiet(checked(self.REGULATOR, self.BENT, 8, GREEN, rows=self.ROWS), "height-in-no-row", "height-not-in-row")

    def test_two_heights_in_one_tank_are_each_judged(self) -> None:
        """One mix at 8 fl oz/acre: within for the green, under half of what the tall fescue row asks."""
        rate = read_label_rate("8 fl oz per acre").highest
        self.assertEqual(judge(rate, self.BENT.label, Kind.GROWTH_REGULATOR).stand, "within")
        here = rate.to(self.FESCUE.label.highest.unit)
        self.assertLess(judge(here, self.FESCUE.label, Kind.GROWTH_REGULATOR).factor, 0.5)

    def test_a_disease_that_the_label_does_not_list(self) -> None:
        rows = (row(LABEL, target="Brown patch"), row(LABEL, target="Snow mould"))
        found = self.finding(checked(SPRAY, rows[0], 0.6, target="dollar spot", rows=rows), "target-not-listed")
        self.assertIs(found.act, Act.REFUSE)
        self.quiet(checked(SPRAY, rows[0], 0.6, target="brown patch", rows=rows), "target-not-listed", "target-not-in-row")

    def test_gray_leaf_spot_looked_up_for_leaf_spot(self) -> None:
        self.assertEqual(find_target("Gray leaf spot, curative").key, "gray_leaf_spot")  # type: ignore[union-attr]
        self.assertEqual(find_target("melting-out").key, "leaf_spot")  # type: ignore[union-attr]
        self.assertIn("another fungus", mistaken_for("leaf_spot")[0])
        rows = (row(LABEL, target="Gray leaf spot"), row(LABEL, target="Leaf spot"))
        self.finding(checked(SPRAY, rows[0], 0.6, target="leaf spot", rows=rows), "target-not-in-row")

    def test_a_greens_chart_used_at_lawn_height(self) -> None:
        rows = (row("0.1 to 0.2 fl oz/M", height=(None, 0.0127), uses=("green", "fairway")),
                row("0.4 to 0.7 fl oz/M", height=(0.0381, None), uses=("lawn",)))  # fmt: skip
        found = checked(self.REGULATOR, rows[0], 0.15, LAWN, rows=rows)
        self.finding(found, "height-not-in-row")
        self.finding(found, "use-not-in-row")

    def test_a_seed_preventer_before_overseeding(self) -> None:
        preventer = replace(SPRAY, kind=Kind.HERBICIDE, rules=Rules(seed_before=56))
        soon = replace(LAWN, overseed_on=date(2031, 7, 10))
        found = self.finding(checked(preventer, row(LABEL), 0.6, soon), "seeding-ahead")
        self.assertIn("in 30 days; the label asks for 56", found.sentence)
        self.quiet(checked(preventer, row(LABEL), 0.6, replace(LAWN, overseed_on=date(2031, 9, 1))), "seeding-ahead")

    def test_young_grass(self) -> None:
        careful = replace(SPRAY, rules=Rules(seed_after=42))
        self.finding(checked(careful, row(LABEL), 0.6, replace(LAWN, sown_on=date(2031, 5, 20))), "seed-too-young")

    def test_turf_that_is_stressed_already(self) -> None:
        dry = replace(LAWN, stress=Stress.DROUGHT)
        self.assertIn("hunger, drought and disease look alike",
                      self.finding(checked(FEED, row("2 to 5 lb/M"), 3, dry), "stress").sentence)  # fmt: skip
        self.quiet(checked(SPRAY, row(LABEL), 0.6, replace(LAWN, stress=Stress.DISEASE)), "stress")

    def test_a_drain_a_pond_and_a_neighbour(self) -> None:
        wet = replace(LAWN, hazards=(Hazard(HazardKind.DRAIN, "yard drain"), Hazard(HazardKind.WATER, "pond", 6.0)))
        careful = replace(SPRAY, rules=Rules(buffer=9.144))
        found = checked(careful, row(LABEL), 0.6, wet)
        self.assertIn("drain (yard drain): keep 30 ft away", self.finding(found, "near-drain").sentence)
        self.assertIs(self.finding(found, "near-water").act, Act.WARN)

    def test_a_pesticide_put_down_for_soil_ph(self) -> None:
        sulfur = Product("Dust", Kind.FUNGICIDE, FORMULATIONS["WP"], (Content("sulfur", Basis.ACTIVE, percent=90),))
        rows = (row("2 to 3 oz wt per 1,000 sq ft", target="Powdery mildew"),)
        self.assertIs(self.finding(checked(sulfur, rows[0], 2.5, target="soil pH", rows=rows), "off-purpose").act, Act.REFUSE)


class Season(Caught):
    SDHI = replace(SPRAY, name="Seven", codes=("FRAC 7",))
    DMI = replace(SPRAY, name="Three", codes=("FRAC 3",))
    MULTI = replace(SPRAY, name="Many", codes=("FRAC M05",))

    def past(self, *products: Product, days: int = 20) -> tuple[Applied, ...]:
        """Applications `days` apart, the last one `days` before the plan."""
        return tuple(
            applied(p, Rate(0.6, LABEL.unit), date.fromordinal(DAY.toordinal() - days * (len(products) - i)))
            for i, p in enumerate(products)
        )

    def test_one_group_a_third_time_in_a_row(self) -> None:
        """FRAC guidance, two in a row (from memory): 7, 7, 7 warns; 7, 3, 7 does not; M05 four times does not."""
        self.finding(checked(self.SDHI, row(LABEL), 0.6, history=self.past(self.SDHI, self.SDHI)), "in-a-row")
        self.quiet(checked(self.SDHI, row(LABEL), 0.6, history=self.past(self.SDHI, self.DMI)), "in-a-row")
        self.quiet(checked(self.MULTI, row(LABEL), 0.6, history=self.past(*[self.MULTI] * 3)), "in-a-row")

    def test_a_premix_counts_for_each_of_its_groups(self) -> None:
        """3, then 3 + M05, then 3 is three in a row of 3."""
        premix = replace(SPRAY, name="Pair", codes=("FRAC 3", "FRAC M05"))
        self.finding(checked(self.DMI, row(LABEL), 0.6, history=self.past(self.DMI, premix)), "in-a-row")

    def test_the_labels_own_limit_in_a_row_refuses(self) -> None:
        strict = replace(self.SDHI, rules=Rules(consecutive=1))
        self.assertIs(
            self.finding(checked(strict, row(LABEL), 0.6, history=self.past(self.SDHI)), "in-a-row-label").act, Act.REFUSE
        )

    def test_a_curative_repeat_where_the_house_always_changes(self) -> None:
        curative = row(LABEL, intent=Intent.CURATIVE)
        house = House({"next_curative": "change_always"})
        self.finding(checked(self.SDHI, curative, 0.6, history=self.past(self.SDHI), house=house), "in-a-row")
        self.quiet(checked(self.SDHI, curative, 0.6, history=self.past(self.SDHI)), "in-a-row")

    def test_the_same_again_inside_the_labels_interval(self) -> None:
        spaced = row(LABEL, interval=(14, 28))
        found = self.finding(checked(self.SDHI, spaced, 0.6, history=self.past(self.SDHI, days=10)), "too-soon")
        self.assertIn("10 days since", found.sentence)
        self.assertIn("From 14 June", found.sentence)
        self.quiet(checked(self.SDHI, spaced, 0.6, history=self.past(self.SDHI, days=14)), "too-soon")

    def test_the_seasons_total_of_a_product_and_the_number_of_times(self) -> None:
        capped = replace(self.SDHI, rules=Rules(most_per_season=read_label_rate("1.5 fl oz per 1,000 sq ft"),
                                                applications_per_season=3))  # fmt: skip
        found = self.finding(checked(capped, row(LABEL), 0.6, history=self.past(capped, capped)), "season-product")
        self.assertIs(found.act, Act.REFUSE)
        self.assertIn("1.8 fl oz/1000 ft² this season; the most is 1.5", found.sentence)
        self.assertIn("0.3 is left", found.sentence)
        self.finding(checked(capped, row(LABEL), 0.4, history=self.past(capped, capped, capped)), "season-times")

    def test_one_active_from_two_products_against_its_cap(self) -> None:
        """0.6 fl oz/1000 ft² of 9.2 lb/gal at 21 % is 0.394 lb ai/acre (arithmetic); three are above 1 lb."""
        capped = replace(SPRAY, rules=Rules(active_per_season=read_label_rate("1 lb ai per acre")))
        other = replace(SPRAY, name="Under another name")
        found = checked(capped, row(LABEL), 0.6, history=self.past(other, other))
        line = next(x for x in found.budget.lines if x.key == "active:fludioxonil")
        self.assertAlmostEqual(line.plan, 0.6 / 128 * 9.2 * 0.21 * 43.56, places=6)
        self.assertIs(self.finding(found, "season-active").act, Act.REFUSE)
        self.quiet(checked(capped, row(LABEL), 0.6, history=self.past(other)), "season-active")

    def test_last_season_does_not_count(self) -> None:
        capped = replace(self.SDHI, rules=Rules(applications_per_season=1))
        old = self.past(capped, days=200)
        self.quiet(checked(capped, row(LABEL), 0.6, history=old), "season-times")
        self.finding(checked(capped, row(LABEL), 0.6, history=old, house=House(season_start=(10, 1))), "season-times")

    def test_what_the_label_keeps_apart(self) -> None:
        shy = replace(self.SDHI, rules=Rules(incompatible=(Incompatible("FRAC 3", 7, "Leaf burn."),)))
        self.assertIs(
            self.finding(checked(shy, row(LABEL), 0.6, history=self.past(self.DMI, days=5)), "kept-apart").act, Act.REFUSE
        )
        self.quiet(checked(shy, row(LABEL), 0.6, history=self.past(self.DMI, days=7)), "kept-apart")

    def test_groups_three_and_eleven_by_the_houses_school(self) -> None:
        eleven = replace(SPRAY, name="Eleven", codes=("FRAC 11",))
        history = self.past(self.DMI, days=20)
        for school, caught in (("together", False), ("never_same_day", False), ("month_apart", True)):
            found = checked(eleven, row(LABEL), 0.6, history=history, house=House({"two_groups": school}))
            self.assertEqual("three-and-eleven" in {f.key for f in found.findings}, caught, school)

    def test_a_second_class_of_regulator_while_the_first_works(self) -> None:
        later = replace(Sites.REGULATOR, name="Other", codes=("Class B",))
        past = (replace(self.past(Sites.REGULATOR, days=12)[0], interval=(21, 28)),)
        self.finding(checked(later, row("6 to 9 fl oz/acre"), 7, history=past), "two-regulators")
        self.quiet(
            checked(later, row("6 to 9 fl oz/acre"), 7, history=past, house=House({"two_regulators": "stack"})), "two-regulators"
        )

    def test_a_leaf_product_washed_off_by_one_that_is_watered_in(self) -> None:
        leaf = replace(self.past(SPRAY, days=0)[0], stays_on_leaf=True)
        soil = replace(FEED, rules=Rules(water_in_depth=6.0, water_in_delay=0.0))
        self.finding(checked(soil, row("1 to 3 lb/M"), 2, LAWN, history=(leaf,), house=House({"partners": "all"})), "washes-off")
        self.finding(checked(soil, row("1 to 3 lb/M"), 2, LAWN, history=(leaf,), house=House({"partners": "by_uptake"})),
                     "partners-uptake")  # fmt: skip

    def test_a_third_product_in_one_day(self) -> None:
        today = (*self.past(SPRAY, days=0), *self.past(self.DMI, days=0))
        self.finding(checked(self.SDHI, row(LABEL), 0.6, history=today), "partners")
        self.quiet(checked(self.SDHI, row(LABEL), 0.6, history=today[:1]), "partners")


class Quiet(Caught):
    def test_a_sound_plan_rings_no_alarm(self) -> None:
        here = row(LABEL, target="Dollar spot", grasses=("creeping_bentgrass",), uses=("green",), interval=(14, 21))
        found = checked(SPRAY, here, 0.6, GREEN, target="dollar spot", history=Season().past(SPRAY, days=21))
        self.assertEqual([f.key for f in found.findings if f.act is not Act.NOTE], [])
        self.assertFalse(found.refused)

    def test_what_really_happened_is_reckoned_all_the_same(self) -> None:
        rate = actual_rate(SPRAY, LABEL, read_quantity("9 fl oz"), Quantity(5000, read_quantity("1 ft2").unit), None)
        self.assertTrue(judge(rate, LABEL, Kind.FUNGICIDE).refused)
        self.assertAlmostEqual(rate.value, 1.8)
