"""The slips of place and season: each test is named after what is caught, on which ground and after what.

Figures are of our own making unless a source stands beside them; rules of the trade are common practice, no source.
"""

from dataclasses import replace
from datetime import date

from core.findings import Weight
from core.ground import Ground, Hazard, HazardKind, Stress
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Product
from core.label.rate import Basis
from core.label.rules import ActiveCap, Incompatible, Intent, Rules
from core.label.targets import find_target, mistaken_for
from core.rates.actual import actual_rate
from core.rates.limits import judge
from core.schools import House
from core.tests.things import FEED, GREEN, LABEL, LAWN, LB_GAL, SPRAY, Caught, checked, past, row
from core.units import Quantity, read_quantity


class Sites(Caught):
    BENT = row("6 to 9 fl oz per acre", grasses=("creeping_bentgrass",), height=(None, 0.0127))
    RYE = row("9 to 14 fl oz per acre", grasses=("perennial_ryegrass",), height=(None, 0.0127))
    FESCUE = row("0.5 to 0.8 fl oz per 1,000 sq ft", grasses=("tall_fescue",), height=(0.05, None))
    ROWS = (BENT, RYE, FESCUE)
    REGULATOR = Product(
        "Reg",
        Kind.GROWTH_REGULATOR,
        FORMULATIONS["ME"],
        (Content("trinexapac-ethyl", Basis.ACTIVE, percent=12),),
        8.7 * LB_GAL,
        codes=("Class A",),
    )

    def test_an_unknown_height_is_said_in_the_units_of_the_ground(self) -> None:
        bare = Ground("bare", read_quantity("500 m2"), grass="tall_fescue")
        for ground, span in ((bare, "50 mm and over"), (replace(bare, size=LAWN.size), "1.97 in and over")):
            words = " ".join(f.sentence for f in checked(self.REGULATOR, self.FESCUE, 0.6, ground, rows=self.ROWS).findings)
            self.assertIn(span, words)

    def test_a_grass_that_the_label_does_not_list(self) -> None:
        bermuda = replace(LAWN, grass="bermudagrass")
        found = self.finding(checked(self.REGULATOR, self.FESCUE, 0.6, bermuda, rows=self.ROWS), "grass-not-listed")
        self.assertIs(found.act, Weight.REFUSE)
        self.quiet(checked(self.REGULATOR, self.FESCUE, 0.6, LAWN, rows=self.ROWS), "grass-not-listed", "grass-not-in-row")

    def test_another_grasss_row(self) -> None:
        found = self.finding(checked(self.REGULATOR, self.RYE, 10, GREEN, rows=self.ROWS), "grass-not-in-row")
        self.assertIn("The row lists perennial ryegrass; green is creeping bentgrass.", found.sentence)

    def test_a_height_in_no_row_is_said_and_never_read_between(self) -> None:
        # 0.75 in lies between the rows, which are made up.
        tall = replace(GREEN, height=read_quantity("0.75 in"))
        found = self.finding(checked(self.REGULATOR, self.BENT, 8, tall, rows=self.ROWS), "height-in-no-row")
        self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("no rate for 0.75 in on creeping bentgrass", found.sentence)
        self.assertIn("None is read between them", found.sentence)
        self.quiet(checked(self.REGULATOR, self.BENT, 8, GREEN, rows=self.ROWS), "height-in-no-row", "height-not-in-row")

    def test_two_heights_in_one_tank_are_each_judged(self) -> None:
        """One mix at 8 fl oz/acre: within for the green, under half of what the tall fescue row asks."""
        rate = read_label_rate("8 fl oz per acre").highest
        self.assertEqual(judge(rate, self.BENT.label, True).stand, "within")
        here = rate.to(self.FESCUE.label.highest.unit)
        self.assertLess(judge(here, self.FESCUE.label, True).factor, 0.5)

    def test_a_disease_that_the_label_does_not_list(self) -> None:
        rows = (row(LABEL, target="Brown patch"), row(LABEL, target="Snow mould"))
        found = self.finding(checked(SPRAY, rows[0], 0.6, target="dollar spot", rows=rows), "target-not-listed")
        self.assertIs(found.act, Weight.REFUSE)
        self.quiet(checked(SPRAY, rows[0], 0.6, target="brown patch", rows=rows), "target-not-listed", "target-not-in-row")

    def test_gray_leaf_spot_looked_up_for_leaf_spot(self) -> None:
        self.assertEqual(find_target("Gray leaf spot, curative").key, "gray_leaf_spot")  # type: ignore[union-attr]
        self.assertEqual(find_target("melting-out").key, "leaf_spot")  # type: ignore[union-attr]
        self.assertIn("another fungus", mistaken_for("leaf_spot")[0])
        rows = (row(LABEL, target="Gray leaf spot"), row(LABEL, target="Leaf spot"))
        self.finding(checked(SPRAY, rows[0], 0.6, target="leaf spot", rows=rows), "target-not-in-row")

    def test_a_greens_chart_used_at_lawn_height(self) -> None:
        rows = (
            row("0.1 to 0.2 fl oz/M", height=(None, 0.0127), uses=("green", "fairway")),
            row("0.4 to 0.7 fl oz/M", height=(0.0381, None), uses=("lawn",)),
        )
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
        self.assertIn(
            "hunger, drought and disease look alike", self.finding(checked(FEED, row("2 to 5 lb/M"), 3, dry), "stress").sentence
        )
        self.quiet(checked(SPRAY, row(LABEL), 0.6, replace(LAWN, stress=Stress.DISEASE)), "stress")

    def test_a_drain_a_pond_and_a_neighbour(self) -> None:
        wet = replace(LAWN, hazards=(Hazard(HazardKind.DRAIN, "yard drain"), Hazard(HazardKind.WATER, "pond", 6.0)))
        careful = replace(SPRAY, rules=Rules(buffer=9.144))
        found = checked(careful, row(LABEL), 0.6, wet)
        self.assertIn("drain (yard drain): keep 30 ft away", self.finding(found, "near-drain").sentence)
        self.assertIs(self.finding(found, "near-water").act, Weight.WARN)

    def test_a_pesticide_put_down_for_soil_ph(self) -> None:
        sulfur = Product("Dust", Kind.FUNGICIDE, FORMULATIONS["WP"], (Content("sulfur", Basis.ACTIVE, percent=90),))
        rows = (row("2 to 3 oz wt per 1,000 sq ft", target="Powdery mildew"),)
        self.assertIs(self.finding(checked(sulfur, rows[0], 2.5, target="soil pH", rows=rows), "off-purpose").act, Weight.REFUSE)


class Season(Caught):
    SDHI = replace(SPRAY, name="Seven", codes=("FRAC 7",))
    DMI = replace(SPRAY, name="Three", codes=("FRAC 3",))
    MULTI = replace(SPRAY, name="Many", codes=("FRAC M05",))

    def test_one_group_a_third_time_in_a_row(self) -> None:
        """FRAC guidance, two in a row (from memory): 7, 7, 7 warns; 7, 3, 7 does not; M05 four times does not."""
        self.finding(checked(self.SDHI, row(LABEL), 0.6, history=past(self.SDHI, self.SDHI)), "in-a-row")
        self.quiet(checked(self.SDHI, row(LABEL), 0.6, history=past(self.SDHI, self.DMI)), "in-a-row")
        self.quiet(checked(self.MULTI, row(LABEL), 0.6, history=past(*[self.MULTI] * 3)), "in-a-row")

    def test_a_premix_counts_for_each_of_its_groups(self) -> None:
        """3, then 3 + M05, then 3 is three in a row of 3."""
        premix = replace(SPRAY, name="Pair", codes=("FRAC 3", "FRAC M05"))
        self.finding(checked(self.DMI, row(LABEL), 0.6, history=past(self.DMI, premix)), "in-a-row")

    def test_the_labels_own_limit_in_a_row_refuses(self) -> None:
        strict = replace(self.SDHI, rules=Rules(consecutive=1))
        self.assertIs(
            self.finding(checked(strict, row(LABEL), 0.6, history=past(self.SDHI)), "in-a-row-label").act, Weight.REFUSE
        )

    def test_a_curative_repeat_where_the_house_always_changes(self) -> None:
        curative = row(LABEL, intent=Intent.CURATIVE)
        house = House({"next_curative": "change_always"})
        self.finding(checked(self.SDHI, curative, 0.6, history=past(self.SDHI), house=house), "in-a-row")
        self.quiet(checked(self.SDHI, curative, 0.6, history=past(self.SDHI)), "in-a-row")

    def test_the_same_again_inside_the_labels_interval(self) -> None:
        spaced = row(LABEL, interval=(14, 28))
        found = self.finding(checked(self.SDHI, spaced, 0.6, history=past(self.SDHI, days=10)), "too-soon")
        self.assertIn("10 days since", found.sentence)
        self.assertIn("From 14 June", found.sentence)
        self.quiet(checked(self.SDHI, spaced, 0.6, history=past(self.SDHI, days=14)), "too-soon")

    def test_the_seasons_total_of_a_product_and_the_number_of_times(self) -> None:
        # 0.6 + 0.6 booked and 0.6 planned are 1.8; 1.5 − 1.2 leaves 0.3.
        capped = replace(
            self.SDHI, rules=Rules(most_per_season=read_label_rate("1.5 fl oz per 1,000 sq ft"), applications_per_season=3)
        )
        found = self.finding(checked(capped, row(LABEL), 0.6, history=past(capped, capped)), "season-product")
        self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("1.8 fl oz/1000 ft² this season; the most is 1.5", found.sentence)
        self.assertIn("0.3 is left", found.sentence)
        self.finding(checked(capped, row(LABEL), 0.4, history=past(capped, capped, capped)), "season-times")

    def test_one_active_from_two_products_against_its_cap(self) -> None:
        """0.6 fl oz/1000 ft² of 9.2 lb/gal at 21 % is 0.394 lb ai/acre (arithmetic); three are above 1 lb."""
        capped = replace(SPRAY, rules=Rules(active_per_season=(ActiveCap("", read_label_rate("1 lb ai per acre")),)))
        other = replace(SPRAY, name="Under another name")
        found = checked(capped, row(LABEL), 0.6, history=past(other, other))
        line = next(x for x in found.budget.lines if x.key == "active:fludioxonil")
        self.assertAlmostEqual(line.plan, 0.6 / 128 * 9.2 * 0.21 * 43.56, places=6)
        self.assertIs(self.finding(found, "season-active").act, Weight.REFUSE)
        self.quiet(checked(capped, row(LABEL), 0.6, history=past(other)), "season-active")

    def test_last_season_does_not_count(self) -> None:
        capped = replace(self.SDHI, rules=Rules(applications_per_season=1))
        old = past(capped, days=200)
        self.quiet(checked(capped, row(LABEL), 0.6, history=old), "season-times")
        self.finding(checked(capped, row(LABEL), 0.6, history=old, house=House(season_start=(10, 1))), "season-times")

    def test_what_the_label_keeps_apart(self) -> None:
        shy = replace(self.SDHI, rules=Rules(incompatible=(Incompatible("FRAC 3", 7, "Leaf burn."),)))
        self.assertIs(
            self.finding(checked(shy, row(LABEL), 0.6, history=past(self.DMI, days=5)), "kept-apart").act, Weight.REFUSE
        )
        self.quiet(checked(shy, row(LABEL), 0.6, history=past(self.DMI, days=7)), "kept-apart")

    def test_groups_three_and_eleven_by_the_houses_school(self) -> None:
        eleven = replace(SPRAY, name="Eleven", codes=("FRAC 11",))
        history = past(self.DMI, days=20)
        for school, caught in (("together", False), ("never_same_day", False), ("month_apart", True)):
            found = checked(eleven, row(LABEL), 0.6, history=history, house=House({"two_groups": school}))
            self.assertEqual("three-and-eleven" in {f.key for f in found.findings}, caught, school)

    def test_a_second_class_of_regulator_while_the_first_works(self) -> None:
        later = replace(Sites.REGULATOR, name="Other", codes=("Class B",))
        before = (replace(past(Sites.REGULATOR, days=12)[0], interval=(21, 28)),)
        self.finding(checked(later, row("6 to 9 fl oz/acre"), 7, history=before), "two-regulators")
        stack = House({"two_regulators": "stack"})
        self.quiet(checked(later, row("6 to 9 fl oz/acre"), 7, history=before, house=stack), "two-regulators")

    def test_a_leaf_product_washed_off_by_one_that_is_watered_in(self) -> None:
        leaf = replace(past(SPRAY, days=0)[0], stays_on_leaf=True)
        soil = replace(FEED, rules=Rules(water_in_depth=6.0, water_in_delay=0.0))
        self.finding(checked(soil, row("1 to 3 lb/M"), 2, LAWN, history=(leaf,), house=House({"partners": "all"})), "washes-off")
        self.finding(
            checked(soil, row("1 to 3 lb/M"), 2, LAWN, history=(leaf,), house=House({"partners": "by_uptake"})), "partners-uptake"
        )

    def test_a_third_product_in_one_day(self) -> None:
        today = (*past(SPRAY, days=0), *past(self.DMI, days=0))
        self.finding(checked(self.SDHI, row(LABEL), 0.6, history=today), "partners")
        self.quiet(checked(self.SDHI, row(LABEL), 0.6, history=today[:1]), "partners")


class Quiet(Caught):
    def test_a_sound_plan_rings_no_alarm(self) -> None:
        here = row(LABEL, target="Dollar spot", grasses=("creeping_bentgrass",), uses=("green",), interval=(14, 21))
        found = checked(SPRAY, here, 0.6, GREEN, target="dollar spot", history=past(SPRAY, days=21))
        self.assertEqual([f.key for f in found.findings if f.act is not Weight.NOTE], [])
        self.assertFalse(found.refused)

    def test_what_really_happened_is_reckoned_all_the_same(self) -> None:
        # 9 fl oz ÷ 5 = 1.8.
        rate = actual_rate(SPRAY, LABEL, read_quantity("9 fl oz"), Quantity(5000, read_quantity("1 ft2").unit), None)
        self.assertTrue(judge(rate, LABEL, True).refused)
        self.assertAlmostEqual(rate.value, 1.8)
