"""The slips of the sum: each test is named after what is caught, by asking, refusing, or a warning with both readings.

Figures are of our own making unless a source stands beside them; rules of the trade are common practice, no source.
"""

from dataclasses import replace
from datetime import date

from core.errors import Ambiguous, InputError
from core.findings import Weight
from core.ground import Stress
from core.label.phrase import read_label_rate
from core.label.product import Content, Kind, Product, check_product
from core.label.rate import Basis, Rate
from core.label.rules import Rules
from core.rates.compare import Offer, compare
from core.rates.dose import dose
from core.rates.limits import judge, refuse_above_label
from core.rates.misread import misread
from core.rates.reverse import rate_from_left, rate_of, whole_package
from core.schools import Closed, House
from core.tank.measuring import check_cup, ways
from core.tests.things import FEED, GRANULE, IRON, LABEL, LAWN, LB_GAL, SC, SL, SPRAY, UREA, Caught, applied, checked, row
from core.units import read_quantity


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
        self.assertEqual(found.act, Weight.ASK)
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
        self.assertIs(found.act, Weight.REFUSE)
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
            refuse_above_label(Rate(0.81, LABEL.unit), LABEL, SPRAY)
        label = read_label_rate("2 to 4 lb/M")
        self.assertFalse(judge(Rate(5, label.unit), label, False).refused)

    def test_the_most_in_one_application(self) -> None:
        capped = replace(SPRAY, rules=Rules(most_per_application=read_label_rate("0.7 fl oz per 1,000 sq ft")))
        self.assertIs(self.finding(checked(capped, row(LABEL), 0.75), "most-per-application").act, Weight.REFUSE)
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
            [Offer(self.BAGGED, self.LABEL, self.LABEL.highest), Offer(strong, fluid, fluid.highest)],
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
