"""The pH planner against the tables it states, and what it will not do."""

import math
import unittest
from datetime import date
from itertools import pairwise

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.grasses import Sward
from core.rates.nutrients import LB_PER_1000
from core.schools import House
from core.soil.gypsum import about, exchangeable_sodium, gypsum_need, sodium_ratio, sodium_share
from core.soil.ph import LEAST_GAP, SULFUR, SULFUR_GREEN, PhPlan, PhReading, plan_ph
from core.soil.ph_tables import lime_need, sulfur_need
from core.units import Quantity, read_quantity

GROUND = read_quantity("4,000 sq ft")
START = date(2031, 3, 1)


def plan(*values: float, **more: object) -> PhPlan:
    given_: dict[str, object] = {
        "texture": "loam",
        "sward": Sward("kentucky_bluegrass"),
        "ground": GROUND,
        "green": False,
        "start": START,
        "purity": 1.0,
        "lime_value": 1.0,
        **more,
    }
    readings = [PhReading(f"spot {i}", date(2031, 2, 1), v) for i, v in enumerate(values)]
    return plan_ph(readings, **given_)


class Tables(unittest.TestCase):
    def test_rows_of_the_sulfur_table(self) -> None:
        """lb/acre to pH 6.5, Western Fertilizer Handbook kind of table (from memory)."""
        for column, ph, pounds in (("sand", 8.5, 2000), ("loam", 8.0, 1500), ("clay", 7.5, 1000), ("loam", 7.0, 150)):
            self.assertEqual(sulfur_need(column, ph), pounds)
        self.assertAlmostEqual(2000 / 43.56, 45.9, places=1)

    def test_between_rows_it_runs_straight(self) -> None:
        # Half way between two rows of the table: see `core.soil.ph_tables` for its source.
        self.assertEqual(sulfur_need("sand", 7.25), 300)
        self.assertEqual(sulfur_need("sand_loam", 8.0), 1350)

    def test_lime_by_unit_steps(self) -> None:
        """ton/acre, loam: 1.2 to 5.5 and 1.7 on to 6.5 (from memory)."""
        self.assertAlmostEqual(lime_need("loam", 4.5, 6.5), 2.9)
        self.assertAlmostEqual(lime_need("loam", 5.0, 6.0), 0.6 + 0.85)

    @given(st.floats(6.5, 8.5), st.floats(6.5, 8.5), st.sampled_from(["sand", "loam", "clay", "loam_clay"]))
    def test_a_higher_ph_never_needs_less(self, a: float, b: float, column: str) -> None:
        # A property.
        low, high = sorted((a, b))
        self.assertLessEqual(sulfur_need(column, low), sulfur_need(column, high) + 1e-9)


class Plans(unittest.TestCase):
    def test_clay_at_eight_is_a_fight_of_years(self) -> None:
        """2000 lb/acre is 45.9 lb/1000 ft²; at 10 a year that is five years (arithmetic)."""
        found = plan(8.0, 8.0, 8.0, texture="clay", sward=Sward("kentucky_bluegrass"), target=6.5)
        self.assertAlmostEqual(found.need / LB_PER_1000, 2000 / 43.56, places=6)
        # Three of them are planned (ours): what is left waits for a reading.
        self.assertEqual(len({s.year for s in found.steps}), 3)
        self.assertIn("45.9 lb/1000 ft² of elemental sulfur in all; the first 3 years bring", found.sentence)
        self.assertIn("the rest waits for a new reading", found.sentence)

    def test_above_the_tables_end_the_first_steps_are_given(self) -> None:
        """At 9.1 the table's end, 8.5, tells the least: 2000 lb/acre on sand; a green stands 1 lb at once and 5 a year."""
        for green, once in ((False, 5.0), (True, 1.0)):
            found = plan(9.1, 9.1, 9.1, texture="sand", green=green, target=6.5, purity=0.9)
            self.assertAlmostEqual(found.need / LB_PER_1000, 2000 / 43.56 / 0.9, places=6)
            self.assertTrue(found.steps)
            self.assertLessEqual(max(s.per_m2 for s in found.steps) * 0.9, once * LB_PER_1000 * (1 + 1e-9))
            self.assertIn("at least 51 lb/1000 ft² of a product of 90 % sulfur in all", found.sentence)
            self.assertIn("free lime or sodium", " ".join(found.notes))

    def test_the_amount_is_for_this_ground(self) -> None:
        found = plan(7.5, 7.5, 7.5, target=7.0)
        want = (800 - 150) / 43.56 * 4
        self.assertAlmostEqual(sum(s.amount.value for s in found.steps), want, places=6)
        self.assertEqual(found.steps[0].amount.unit.key, "lb")

    @settings(max_examples=60, deadline=None)
    @given(st.floats(6.6, 8.5), st.booleans(), st.sampled_from(["sand", "loam", "clay"]), st.floats(0.5, 1.0))
    def test_no_step_and_no_year_passes_its_cap(self, ph: float, green: bool, texture: str, purity: float) -> None:
        # A property; the caps are those of `core.soil.ph_tables`.
        found = plan(ph, ph, ph, texture=texture, green=green, purity=purity, target=6.5)
        caps = SULFUR_GREEN if green else SULFUR
        years: dict[int, float] = {}
        for step in found.steps:
            self.assertLessEqual(step.per_m2 * purity, caps.once * (1 + 1e-9))
            years[step.year] = years.get(step.year, 0.0) + step.per_m2 * purity
        self.assertLessEqual(max(years.values(), default=0.0), caps.year * (1 + 1e-9))
        self.assertLessEqual(sum(years.values()), found.need * purity * (1 + 1e-9))
        if "waits for a new reading" not in found.sentence and found.steps:
            self.assertAlmostEqual(sum(years.values()) / (found.need * purity), 1, places=9)
        days = [s.on for s in found.steps]
        self.assertEqual(days, sorted(days))
        self.assertTrue(all((b - a).days >= LEAST_GAP for a, b in pairwise(days)))
        self.assertTrue(all(d.month in (4, 5, 9, 10) for d in days), days)

    def test_the_steps_are_equal_without_a_crumb_at_the_end(self) -> None:
        for ph in (7.2, 7.7, 8.0, 8.3):
            found = plan(ph, ph, ph, texture="clay", target=6.5)
            for step in found.steps:
                self.assertAlmostEqual(step.per_m2 / found.steps[0].per_m2, 1, places=9)

    def test_a_product_of_ninety_percent_takes_more(self) -> None:
        # 1 ÷ 0.9.
        self.assertAlmostEqual(plan(7.5, purity=0.9, target=6.5).need / plan(7.5, target=6.5).need, 1 / 0.9)

    def test_a_shallower_layer_takes_less(self) -> None:
        # The table is for 7 in; 3.5 in take half.
        half = plan(7.5, target=6.5, depth=3.5 * 0.0254)
        self.assertAlmostEqual(half.need / plan(7.5, target=6.5).need, 0.5)

    def test_lime_raises_in_steps(self) -> None:
        found = plan(4.6, 4.6, 4.6, target=6.0)
        self.assertEqual((found.verdict, found.material), ("raise", "ground limestone"))
        self.assertTrue(all(s.per_m2 <= 50 * LB_PER_1000 * (1 + 1e-9) for s in found.steps))

    def test_seven_point_seven_without_trouble_is_left_alone_by_one_school(self) -> None:
        # Both schools are common practice, no source; 6.5 is the middle of the range of a mixed turf, see `core.soil.ph`.
        self.assertEqual(plan(7.7, 7.7, 7.7).verdict, "leave")
        ideal = plan(7.7, 7.7, 7.7, house=House({"ph": "to_ideal"}))
        self.assertEqual((ideal.verdict, ideal.target), ("lower", 6.5))

    def test_gypsum_is_never_an_answer_to_ph(self) -> None:
        for found in (plan(7.1, 7.1, 7.1), plan(8.2, 8.2, 8.2, target=6.5)):
            self.assertIn("Gypsum does not lower pH", " ".join(found.notes))

    def test_wash_in_is_not_reaction_and_waits_for_warm_soil(self) -> None:
        notes = " ".join(plan(8.2, 8.2, 8.2, target=6.5).notes)
        self.assertIn("it does not make it react", notes)
        self.assertIn("55 °F", notes)

    def test_two_soils_and_too_few_spots_are_said(self) -> None:
        # How far apart two soils are, and how many spots are enough, is common practice, no source.
        self.assertIn("may be two soils", " ".join(plan(6.2, 7.4, 7.0, target=6.5).notes))
        self.assertIn("1 spot only", " ".join(plan(7.4, target=6.5).notes))

    def test_the_latest_reading_of_a_spot_counts(self) -> None:
        # 7.0 is the later reading.
        readings = [PhReading("A", date(2030, 4, 1), 8.0), PhReading("a ", date(2031, 2, 1), 7.0)]
        found = plan_ph(readings, texture="loam", sward=Sward("mixed"), ground=GROUND, green=False, start=START)
        self.assertEqual(found.ph, 7.0)

    def test_metric_ground_is_told_in_kilograms(self) -> None:
        found = plan(7.5, target=6.5, ground=Quantity(400.0, read_quantity("1 m2").unit))
        self.assertEqual(found.steps[0].amount.unit.key, "kg")
        result = found.working[0].result
        self.assertEqual((result.over, result.under), ("kg", "100 m²"))
        self.assertAlmostEqual(result.value, found.need / 10, places=9)
        chain = math.prod(t.value if t.op in ("", "×") else 1 / t.value for t in found.working[0].terms)
        self.assertAlmostEqual(chain / result.value, 1, places=9)
        self.assertIn("kg/100 m² of elemental sulfur", found.sentence)
        self.assertNotIn("lb", found.sentence)

    def test_refused_with_the_field_named(self) -> None:
        for field, more in (
            ("texture", {"texture": "porridge"}),
            ("purity", {"purity": 3.0}),
            ("depth", {"depth": 4.0}),
            ("target", {"target": 1.0}),
        ):
            with self.assertRaises(InputError) as said:
                plan(7.5, 7.5, 7.5, **more)
            self.assertEqual(said.exception.field, field)
        for values, words in (((), "no pH reading"), ((12.0,), "no soil's")):
            with self.assertRaisesRegex(InputError, words):
                plan(*values, target=6.5)


class Gypsum(unittest.TestCase):
    """USDA Handbook 60 (1954), its equations; the sums by hand."""

    def test_what_salt_in_the_water_comes_to(self) -> None:
        """20 meq/L of sodium over √((6 + 2) ÷ 2) is a ratio of 10, which comes to 11.89 % exchangeable."""
        self.assertAlmostEqual(sodium_ratio(20, 6, 2), 10.0)
        self.assertAlmostEqual(exchangeable_sodium(10.0), 11.89, places=2)
        self.assertEqual(exchangeable_sodium(0.0), 0.0)

    def test_from_eighteen_to_five_per_cent(self) -> None:
        """CEC 15, 1400 kg/m³, 15 cm: 1.95 meq, 352.5 g/m²; of 92 % purity at 80 %: 4.789 t/ha, 98.1 lb/1000 ft², in two."""
        found = gypsum_need(18, 5, 15, 1400, 0.15, purity=92)
        self.assertAlmostEqual(found.pure, 352.5, places=1)
        self.assertAlmostEqual(found.bought / 100, 4.789, delta=0.001)  # t/ha
        self.assertAlmostEqual(found.bought / LB_PER_1000, 98.1, places=1)
        self.assertEqual(found.times, 2)
        self.assertAlmostEqual(found.water, 141, places=0)
        self.assertEqual([round(s.result.value, 4) for s in found.working[:1]], [1.95])

    def test_a_meq_over_six_inches(self) -> None:
        """1 meq/100 g in two million pounds of soil an acre: 0.861 ton an acre, 39.5 lb/1000 ft² (the trade's table)."""
        slice_ = 2_000_000 * 453.59237 / 4046.8564224 / 1000 / 0.1524  # kg/m³ over 6 in
        found = gypsum_need(10, 0, 10, slice_, 0.1524, efficiency=100)
        self.assertAlmostEqual(found.pure / LB_PER_1000, 39.5, places=1)

    def test_the_share_by_a_laboratory(self) -> None:
        """A milliequivalent of sodium is 22.99 mg (IUPAC): 345 ppm are 1.5 meq/100 g, 10 % of a capacity of 15."""
        self.assertAlmostEqual(sodium_share(345, 15), 10.0, delta=0.01)
        with self.assertRaisesRegex(InputError, "more sodium than the soil can hold"):
            sodium_share(4000, 15)

    def test_a_green_stands_less_at_once(self) -> None:
        """98.1 lb/1000 ft² in portions of 10 at most: common practice, no source."""
        self.assertEqual(gypsum_need(18, 5, 15, 1400, 0.15, purity=92, green=True).times, 10)
        self.assertIn("At most 10 lb/1000 ft² at once on a green", " ".join(about(18, True, True)))
        # 15 % is Handbook 60's.
        self.assertIn("Below 15 % a soil is not sodic", about(9, False, False)[0])
        self.assertNotIn("Below", " ".join(about(18, False, False)))

    def test_what_cannot_be(self) -> None:
        for numbers, field in (
            ((5, 5, 15, 1400, 0.15), "target"),
            ((18, 5, 0, 1400, 0.15), "exchange"),
            ((18, 5, 15, 14, 0.15), "density"),
            ((118, 5, 15, 1400, 0.15), "sodium"),
        ):
            with self.assertRaises(InputError) as caught:
                gypsum_need(*numbers)
            self.assertEqual(caught.exception.field, field)
        with self.assertRaisesRegex(InputError, "there is no ratio"):
            sodium_ratio(5, 0, 0)
