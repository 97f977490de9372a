"""Label phrases: what is understood, that what is written reads back, and that what is not understood is said."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import Ambiguous, InputError, NotUnderstood
from core.label.phrase import read_label_rate
from core.label.rate import Basis, LabelRate, RateUnit, show_label_rate
from core.units import UNITS


def unit(key: str) -> RateUnit:
    return RateUnit.from_key(key)


class Understood(unittest.TestCase):
    """Phrases in the spellings that US and metric labels print (common practice, no source)."""

    PHRASES = {
        "1.2 to 2.4 fl oz per 1,000 sq ft": (1.2, 2.4, "fl_oz/kft2"),
        "1/4 to 1/2 lb/M": (0.25, 0.5, "lb/kft2"),
        "0.15–0.3 fl. oz./1,000 sq. ft.": (0.15, 0.3, "fl_oz/kft2"),
        "3 pints per acre": (3, 3, "pt/acre"),
        "12-20 kg/ha": (12, 20, "kg/ha"),
        "20 to 40 mL/100 m²": (20, 40, "ml/m2_100"),
        "two to four pounds per thousand square feet": (2, 4, "lb/kft2"),
        "Apply 1½ - 3 oz wt per 1000 ft2": (1.5, 3, "oz_wt/kft2"),
        "at the rate of 5 lb per 1,000 square feet": (5, 5, "lb/kft2"),
        "2 qt/A": (2, 2, "qt/acre"),
        "1 qt per 100 gallons": (1, 1, "qt/gal_100"),
        "2 fl oz per gallon of spray": (2, 2, "fl_oz/gal"),
        "0.25% v/v": (0.25, 0.25, "pct_vv"),
        "0.1 to 0.4 % by volume": (0.1, 0.4, "pct_vv"),
        "0.75 lb N/M": (0.75, 0.75, "lb/kft2:N"),
        "1 pound of nitrogen per 1,000 sq ft": (1, 1, "lb/kft2:N"),
        "0.5 lb a.i./acre": (0.5, 0.5, "lb/acre:active"),
        "40 kg P2O5 per ha": (40, 40, "kg/ha:P2O5"),
        "1 pt to 1 qt per acre": (1, 2, "pt/acre"),
        "up to 2 qt/A": (0, 2, "qt/acre"),
        "between 3 and 5 lb/acre": (3, 5, "lb/acre"),
    }

    def test_phrases(self) -> None:
        for phrase, (low, high, key) in self.PHRASES.items():
            with self.subTest(phrase):
                self.assertEqual(read_label_rate(phrase), LabelRate(low, high, unit(key)))

    def test_coverage_of_a_bag(self) -> None:
        expected = LabelRate(16, 16, RateUnit(UNITS["lb"], UNITS["ft2"]), 5000)
        for phrase in (
            "covers 5,000 sq ft per 16 lb bag",
            "16 lb bag covers 5,000 sq. ft.",
            "one 16 lb bag treats 5,000 square feet",
            "16 lb per 5,000 sq ft",
            "covers up to 5,000 ft² per 16 lb bag",
        ):
            self.assertEqual(read_label_rate(phrase), expected, phrase)
        self.assertEqual(str(expected.highest), "3.2 lb/1000 ft²")

    def test_a_24_lb_bag_for_12000_square_feet(self) -> None:
        """24 lb over 12,000 ft² is 2 lb/1000 ft² (arithmetic)."""
        self.assertEqual(read_label_rate("24 lb/12,000 ft²").highest.value, 2.0)

    def test_the_water_it_asks_for(self) -> None:
        for phrase in ("1 to 2 fl oz in 2 gal of water per 1,000 sq ft", "1 to 2 fl oz per 1,000 sq ft in 2 gallons of water"):
            self.assertEqual(read_label_rate(phrase).carrier, (2, 2, UNITS["gal"]), phrase)


class Asked(unittest.TestCase):
    def choices(self, phrase: str) -> list[str]:
        with self.assertRaises(Ambiguous) as caught:
            read_label_rate(phrase)
        return [c.text for c in caught.exception.choices]

    def test_a_bare_ounce(self) -> None:
        expected = ["2 to 3 fl oz per 1000 sq ft", "2 to 3 oz wt per 1000 sq ft"]
        self.assertEqual(self.choices("2 to 3 oz per 1000 sq ft"), expected)

    def test_every_choice_is_itself_understood(self) -> None:
        for phrase in ("3 oz/M", "2 tons per acre", "0.5%", "5 lb per 1,000", "3 lb/m", "2 qt/a", "4 lb"):
            for choice in self.choices(phrase):
                read_label_rate(choice)

    def test_what_is_not_understood_is_said(self) -> None:
        for phrase, words in {
            "2 lb per acre every 14 days": "every 14 days",
            "3 zorks per acre": "zorks",
            "some per acre": "some per acre",
            "2 lb per acre per year": "per year",
            "": "empty",
            "lb per acre": "lb per acre",
        }.items():
            with self.assertRaises(NotUnderstood) as caught:
                read_label_rate(phrase)
            self.assertIn(words, caught.exception.problem)
            self.assertTrue(caught.exception.remedy)

    def test_what_measures_nothing_is_refused(self) -> None:
        for phrase in (
            "0 lb/acre",
            "-3 lb/acre",
            "nan lb/acre",
            "inf lb/acre",
            "1/0 lb/acre",
            "2 lb/0 acre",
            "4 to 2 lb/acre",
            "1,5 kg/ha",
            "2 ft per acre",
            "2 acres per acre",
            "2 gal N per acre",
            "9" * 400 + " lb/acre",
        ):
            with self.assertRaises(InputError, msg=phrase):
                read_label_rate(phrase)


amounts = st.sampled_from(["fl_oz", "oz_wt", "lb", "g", "kg", "ml", "l", "pt", "qt", "gal", "tsp", "imp_fl_oz"])
feet = st.sampled_from(["kft2", "acre", "m2_100", "ha", "ft2", "m2", "yd2", "gal", "gal_100", "l", "l_100"])
numbers = st.one_of(
    st.integers(1, 5000).map(float),
    st.decimals("0.001", "9999", places=3).map(float),
    st.sampled_from([1 / 3, 2 / 3, 0.25, 1.5, 1 / 8]),
)


@st.composite
def label_rates(draw: st.DrawFn) -> LabelRate:
    low, high = sorted((draw(numbers), draw(numbers)))
    amount = UNITS[draw(amounts)]
    basis = draw(st.sampled_from(list(Basis))) if amount.dimension == "mass" else Basis.PRODUCT
    per = UNITS[draw(feet)]
    foot = draw(st.one_of(st.just(1.0), st.integers(3, 90).map(lambda n: n * 500.0))) if per.key == "ft2" else 1.0
    carrier = draw(st.none() | st.tuples(numbers, st.sampled_from([UNITS["gal"], UNITS["l"]])))
    water = carrier and (carrier[0], carrier[0], carrier[1])
    return LabelRate(draw(st.sampled_from([low, 0.0])), high, RateUnit(amount, per, basis), foot, water)


class ReadsBack(unittest.TestCase):
    @settings(max_examples=300, deadline=None)
    @given(label_rates())
    def test_what_is_written_reads_back(self, rate: LabelRate) -> None:
        self.assertEqual(read_label_rate(show_label_rate(rate)), rate)

    @settings(max_examples=300, deadline=None)
    @given(st.text(max_size=40))
    def test_any_text_is_understood_or_refused_in_words(self, text: str) -> None:
        try:
            read_label_rate(text)
        except InputError as said:
            self.assertTrue(said.problem)

    @settings(max_examples=200, deadline=None)
    @given(label_rates())
    def test_scaling_to_a_foot_of_one_keeps_the_rate(self, rate: LabelRate) -> None:
        whole = rate.high * rate.unit.amount.size / (rate.foot * (rate.unit.per.size if rate.unit.per else 1))
        self.assertAlmostEqual(rate.highest.base / whole, 1, places=12)
