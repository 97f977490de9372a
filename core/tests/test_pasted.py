"""A label's text, read into a card. The labels are invented, in the wording of their kinds, and read off by hand."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.label.pasted.pieces import statements
from core.label.pasted.read import Pasted, read_pasted
from core.label.phrase import read_label_rate
from core.label.table import read

FUNGICIDE = """HARROWMERE 14.3 ME
SYSTEMIC FUNGICIDE
GROUP 3 FUNGICIDE
ACTIVE INGREDIENT:
Propiconazole* ............................ 14.3%
OTHER INGREDIENTS: ....................... 85.7%
TOTAL: ................................... 100.0%
*CAS No. 60207-90-1
Contains 1.3 lb propiconazole per gallon. This product weighs 9.1 lb per gallon.
EPA Reg. No. 99999-123
KEEP OUT OF REACH OF CHILDREN
NET CONTENTS: 1 gallon (3.785 L)
Applicators and other handlers must wear:
- Long-sleeved shirt and long pants
- Chemical-resistant gloves
- Shoes plus socks
Do not enter or allow others to enter until sprays have dried.
Do not apply more than 4 fl oz per 1,000 sq. ft. in
any one application. Do not exceed 12 fl oz per 1,000 sq ft per year.
Do not apply when wind speed exceeds 10 mph.
Disease\tRate per 1,000 sq ft\tInterval (days)
Dollar spot  0.5 - 1.0 fl oz/1,000 sq ft  14 - 28
Brown patch  1 to 2 fl oz per 1000 sq ft  14-21
Anthracnose (preventive): apply 1 to 2 fl. oz. per 1,000 sq. ft. every 14 to 28 days. Anthracnose, curative: 2 fl oz/1,000 sq ft
in 2 to 4 gallons of water per 1,000 sq ft.
Do not make more than two consecutive applications before rotating.
Do not apply within 25 feet of lakes, ponds or streams."""
LAWN_FOOD = """Fairhollow Lawn Food 24-0-6
GUARANTEED ANALYSIS
Total Nitrogen (N) ..... 24.0%
   3.0% Ammoniacal Nitrogen
   21.0% Urea Nitrogen*
Soluble Potash (K₂O) ....6.0%
Iron (Fe), Total ....... 2.0%
Sulfur (S), combined ... 5.0 %
*9.6% Slowly available urea nitrogen from coated urea
Net weight 50 lb (22.7 kg)
This bag covers 12,500 sq. ft.
Water in with 0.25 inch of irrigation within 24 hours.
Sweep granules off sidewalks and driveways."""
REGULATOR = """Tolworth Greens Regulator
Plant growth regulator. Emulsifiable concentrate
trinexapac-ethyl: 120 g/L
Density: 1.08 kg/L
Apply 0.4 L/ha on greens or 0.8 L/ha on fairways in 250 to 500 L water/ha. Repeat every 3 to 4 weeks.
Rainfast within 1 hour. Do not mow for 12 hours after application.
Do not use more than 5 applications per year. Maximum of 3.2 L/ha per year.
Net contents: 5 L"""
HERBICIDE = """Selective Herbicide for lawns
active ingredients: 2,4-D, dimethylamine salt 30.56%
Mecoprop-p, dimethylamine salt 8.17 %
Dicamba, dimethylamine salt 2.77%
other ingredients 58.5%
Use 1.1 to 1.5 fl oz in 1 to 2 gallons of water per 1,000 square feet.
Do not apply when air temperatures exceed 90°F. Do not apply if rainfall is expected within 24 hours.
Do not reseed for 3 to 4 weeks after application. Delay mowing 2 days before and 2 days after.
Restricted-entry interval of 48 hours. People and pets may enter after spray has dried."""
LIQUID_IRON = """Chelated Iron 6%
Liquid iron. Guaranteed analysis: Iron (Fe) 6.0%
Apply 3 to 6 oz per 1,000 sq ft every two weeks. One gallon weighs 10.2 lb. May stain concrete."""


def values(text: str, field: str) -> list[object]:
    return [f.value for f in read_pasted(text).found if f.field == field]


def the(text: str, field: str) -> object:
    (value,) = values(text, field)
    return value


def rates(text: str) -> list[tuple[str, ...]]:
    keys = ("phrase", "target", "intent", "interval_low", "interval_high")
    return [tuple(r[k] for k in keys) for r in values(text, "rates") if isinstance(r, dict)]


def held(text: str) -> dict[str, tuple[str, str]]:
    return {c["name"]: (c["amount"], c["unit"]) for c in values(text, "contents") if isinstance(c, dict)}


class WhatItIs(unittest.TestCase):
    def test_name_type_formulation_group(self) -> None:
        for text, want in (
            (FUNGICIDE, ("HARROWMERE 14.3 ME", "fungicide", "ME", "FRAC 3")),
            (REGULATOR, ("Tolworth Greens Regulator", "growth_regulator", "EC", "Class A")),
            (LAWN_FOOD, ("Fairhollow Lawn Food 24-0-6", "fertiliser", "GR", None)),
            (LIQUID_IRON, ("Chelated Iron 6%", "iron", "SL", None)),
            (HERBICIDE, ("Selective Herbicide for lawns", "herbicide", None, "HRAC 4")),
        ):
            with self.subTest(want[0]):
                found = [next(iter(values(text, f)), None) for f in ("name", "kind", "formulation", "group_code")]
                self.assertEqual(tuple(found), want)

    def test_weed_and_feed_is_both(self) -> None:
        text = "Weed and Feed 28-0-3\nFertilizer with herbicide. Granular.\nHerbicide for broadleaf weeds"
        self.assertEqual((the(text, "kind"), values(text, "also")), ("fertiliser", ["herbicide"]))

    def test_a_fungicides_label_that_speaks_of_adjuvants_is_no_adjuvant(self) -> None:
        text = "Blank SC\nTurf fungicide\nAdd a non-ionic surfactant to the tank. Do not mix with fertilizers."
        self.assertEqual((the(text, "kind"), values(text, "also")), ("fungicide", []))

    def test_the_registration_number(self) -> None:
        self.assertEqual(the(FUNGICIDE, "registration"), "99999-123")


class WhatIsInIt(unittest.TestCase):
    """Analyses as labels print them: the whole of each nutrient, never its parts (AAPFCO labelling convention)."""

    def test_the_analysis(self) -> None:
        self.assertEqual(held(LAWN_FOOD), {"N": ("24", "%"), "K₂O": ("6", "%"), "Fe": ("2", "%"), "S": ("5", "%")})
        (nitrogen,) = (c for c in values(LAWN_FOOD, "contents") if isinstance(c, dict) and c["basis"] == "N")
        self.assertEqual(nitrogen["slow"], "9.6")

    def test_a_grade_where_there_is_no_analysis(self) -> None:
        self.assertEqual(held("Lawn food 18-3-6"), {"N": ("18", "%"), "P₂O₅": ("3", "%"), "K₂O": ("6", "%")})

    def test_actives_by_their_common_names(self) -> None:
        self.assertEqual(held(FUNGICIDE), {"propiconazole": ("14.3", "%")})
        self.assertEqual(held(HERBICIDE), {"2,4-D": ("30.56", "%"), "mecoprop-P": ("8.17", "%"), "dicamba": ("2.77", "%")})
        self.assertEqual(held(REGULATOR), {"trinexapac-ethyl": ("120", "g/l")})

    def test_weight_and_package(self) -> None:
        self.assertEqual(the(FUNGICIDE, "density"), {"value": "9.1", "unit": "lb/gal"})
        self.assertEqual(the(REGULATOR, "density"), {"value": "1.08", "unit": "kg/l"})
        self.assertEqual(the(LIQUID_IRON, "density"), {"value": "10.2", "unit": "lb/gal"})
        self.assertEqual(the("Specific gravity (20 °C): 1.2", "density"), {"value": "1.1978", "unit": "kg/l"})  # × 0.9982
        self.assertEqual(values("Bulk density 60 lb per gallon", "density"), [])
        self.assertEqual(the(LAWN_FOOD, "packages"), {"value": "50", "unit": "lb", "price": ""})


class Rates(unittest.TestCase):
    """Rates as the labels above print them, read off by hand."""

    def test_rows_with_target_intent_and_interval(self) -> None:
        self.assertEqual(
            rates(FUNGICIDE),
            [
                ("0.5 - 1.0 fl oz/1,000 sq ft", "Dollar spot", "any", "14", "28"),
                ("1 to 2 fl oz per 1000 sq ft", "Brown patch", "any", "14", "21"),
                ("1 to 2 fl oz per 1,000 sq ft", "Anthracnose", "preventive", "14", "28"),
                ("2 fl oz/1,000 sq ft in 2 to 4 gallons of water per 1,000 sq ft", "Anthracnose", "curative", "", ""),
            ],
        )

    def test_an_interval_that_stands_apart_is_every_rates(self) -> None:
        self.assertEqual([r[3:] for r in rates(REGULATOR)], [("21", "28"), ("21", "28")])  # 3 and 4 weeks
        self.assertEqual([r["uses"] for r in values(REGULATOR, "rates") if isinstance(r, dict)], [["green"], ["fairway"]])

    def test_a_number_that_is_a_word(self) -> None:
        self.assertEqual([r[0] for r in rates("Apply one L/ha. Then apply two lb per acre.")], ["1 L/ha", "2 lb per acre"])

    def test_what_a_bag_covers(self) -> None:
        self.assertEqual([r[0] for r in rates(LAWN_FOOD)], ["50 lb covers 12,500 sq ft"])

    def test_a_bare_ounce_is_settled_by_the_formulation_or_asked(self) -> None:
        self.assertEqual(rates(LIQUID_IRON)[0][0], "3 to 6 fl oz per 1,000 sq ft")
        (asked,) = (f for f in read_pasted("Iron\nApply 3 to 6 oz per 1,000 sq ft").found if f.field == "rates")
        self.assertEqual([c.text for c in asked.choices], ["3 to 6 fl oz per 1,000 sq ft", "3 to 6 oz wt per 1,000 sq ft"])

    def test_water_strength_and_what_it_supplies_are_no_rates(self) -> None:
        for text in (
            "Use a spray volume of 2 gal per 1,000 sq ft.",
            "Apply in 1 to 2 gallons of water per 1,000 sq ft.",
            "Contains 1.3 lb propiconazole per gallon.",
            "This product weighs 9.1 lb per gallon.",
            "Supplies 0.9 lb of nitrogen per 1,000 sq ft.",
            "Do not apply more than 4 lb per acre per year.",
        ):
            with self.subTest(text):
                self.assertEqual(rates(text), [])


class Ruled(unittest.TestCase):
    def test_each_rule_from_its_sentence(self) -> None:
        for text, key, want in (
            (FUNGICIDE, "most_per_application", "4 fl oz per 1,000 sq ft"),
            (FUNGICIDE, "most_per_season", "12 fl oz per 1,000 sq ft"),
            (FUNGICIDE, "wind_high", {"value": "10", "unit": "mph"}),
            (FUNGICIDE, "consecutive", 2),
            (FUNGICIDE, "buffer", {"value": "25", "unit": "ft"}),
            (FUNGICIDE, "reentry_note", "Do not enter or allow others to enter until sprays have dried"),
            (LAWN_FOOD, "water_in_depth", {"value": "0.25", "unit": "in"}),
            (LAWN_FOOD, "water_in_delay", {"value": "24", "unit": "h"}),
            (REGULATOR, "rain_after", {"value": "1", "unit": "h"}),
            (REGULATOR, "mow_after", {"value": "12", "unit": "h"}),
            (REGULATOR, "applications_per_season", 5),
            (REGULATOR, "most_per_season", "3.2 L/ha"),
            (HERBICIDE, "temperature_high", {"value": "90", "unit": "degF"}),
            (HERBICIDE, "rain_after", {"value": "24", "unit": "h"}),
            (HERBICIDE, "seed_before", {"value": "28", "unit": "day"}),  # the longer of 3 and 4 weeks
            (HERBICIDE, "mow_before", {"value": "2", "unit": "day"}),
            (HERBICIDE, "mow_after", {"value": "2", "unit": "day"}),
            (HERBICIDE, "reentry", {"value": "48", "unit": "h"}),
            ("Do not exceed 2.5 lb ai per acre per year.", "active_per_season", "2.5 lb ai per acre"),
            ("Do not apply when temperatures fall below 50°F.", "temperature_low", {"value": "50", "unit": "degF"}),
            ("Use the mix within 24 hours.", "mixed_life", {"value": "24", "unit": "h"}),
            ("Do not seed within sixty days of application.", "seed_before", {"value": "60", "unit": "day"}),
        ):
            with self.subTest(key, of=text[:30]):
                self.assertEqual(the(text, f"rules.{key}"), want)

    def test_what_turns_a_sentence_round_turns_its_rule_round(self) -> None:
        """No water, where the label forbids it; a lower end, where it says when to apply; no cap, where it says the least."""
        for text, key, want, other in (
            ("Do not irrigate within 24 hours of application.", "rain_after", {"value": "24", "unit": "h"}, "water_in_delay"),
            ("Delay irrigation for 12 hours.", "rain_after", {"value": "12", "unit": "h"}, "water_in_delay"),
            ("Apply when temperatures are above 50°F.", "temperature_low", {"value": "50", "unit": "degF"}, "temperature_high"),
            ("Do not mow within 24 hours.", "mow_after", {"value": "24", "unit": "h"}, "mow_before"),
        ):
            with self.subTest(text):
                self.assertEqual(the(text, f"rules.{key}"), want)
                self.assertEqual(values(text, f"rules.{other}"), [])
        self.assertEqual(values("Do not use less than 2 gal per 1,000 sq ft.", "rules.most_per_application"), [])

    def test_what_is_worn_and_whether_it_stains(self) -> None:
        worn = "Long-sleeved shirt and long pants\nChemical-resistant gloves\nShoes plus socks"
        self.assertEqual((the(FUNGICIDE, "ppe_mixing"), the(FUNGICIDE, "ppe_applying")), (worn, worn))
        self.assertIs(the(LIQUID_IRON, "stains"), True)
        self.assertEqual(values("Does not stain.", "stains"), [])


class AnyText(unittest.TestCase):
    """Whatever is pasted: it is read or left, never refused, and what is read can be read again by those who use it."""

    PIECES = sorted({w for t in (FUNGICIDE, LAWN_FOOD, REGULATOR, HERBICIDE, LIQUID_IRON) for w in t.split()})

    def check(self, text: str, found: Pasted) -> None:
        whole = " ".join(text.split())
        for f in found.found:
            self.assertIn(" ".join(f.source.split()), whole)
            if f.field == "rates" and isinstance(f.value, dict) and not f.choices:
                read_label_rate(f.value["phrase"])
            if f.field.startswith("rules."):
                self.assertEqual(read({f.field.removeprefix("rules."): f.value}).faults, ())

    def test_the_labels(self) -> None:
        for text in (FUNGICIDE, LAWN_FOOD, REGULATOR, HERBICIDE, LIQUID_IRON):
            self.check(text, read_pasted(text))

    @settings(max_examples=150, deadline=None)
    @given(st.lists(st.tuples(st.sampled_from(PIECES), st.sampled_from([" ", "  ", "\n", ". ", "\t"])), max_size=60))
    def test_its_words_in_any_order(self, parts: list[tuple[str, str]]) -> None:
        text = "".join(word + gap for word, gap in parts)
        try:
            self.check(text, read_pasted(text))
        except InputError as fault:
            self.fail(f"{text!r}: {fault}")

    @settings(max_examples=100, deadline=None)
    @given(st.text(max_size=300))
    def test_any_characters(self, text: str) -> None:
        read_pasted(text)

    def test_wrapped_lines_are_one_statement_and_rows_are_not(self) -> None:
        said = [s.text for s in statements("Apply at a rate of\n2 lb per acre\nGreens 1 lb per acre\nTees 3 lb per acre")]
        self.assertEqual(said, ["Apply at a rate of 2 lb per acre", "Greens 1 lb per acre", "Tees 3 lb per acre"])
