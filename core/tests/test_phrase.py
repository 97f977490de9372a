"""Label phrases: what is understood, that what is written reads back, and that what is not understood is said."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import Ambiguous, InputError, NotUnderstood
from core.label.phrase import read_label_rate, read_phrase, weighed
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


class InItsOwnWords(unittest.TestCase):
    """What labels print beside the plain rate (common practice, no source); every phrase made up, its reading by hand."""

    RATES = {
        "For greens, spread at 1.1 to 1.9 lb per 1,000 sq ft": (1.1, 1.9, "lb/kft2", 1.0),
        "no more than 4 lb/M per application": (0, 4, "lb/kft2", 1.0),
        "Do not exceed 0.7 fl oz per 1,000 sq ft in any one application": (0, 0.7, "fl_oz/kft2", 1.0),
        "a maximum of 3 L/ha": (0, 3, "l/ha", 1.0),
        "at least 2 and up to 3 fl oz/M": (2, 3, "fl_oz/kft2", 1.0),
        "This 40 lb bag treats 16,000 sq ft": (40, 40, "lb/ft2", 16000.0),
        "1 L bottle makes enough to treat 400 square metres": (1, 1, "l/m2", 400.0),
        "coverage: 9,000 sq ft / 27 lb bag": (27, 27, "lb/ft2", 9000.0),
        "covers up to 8,000 sq ft (20 lb)": (20, 20, "lb/ft2", 8000.0),
        "Mix 2 Tbs. in 1 gallon of water": (2, 2, "tbsp/gal", 1.0),
        "40 g in 15 L water": (40, 40, "g/l", 15.0),
        "1 quart per 30 gal tank": (1, 1, "qt/gal", 30.0),
        "6 fl oz per hundred gallons": (6, 6, "fl_oz/gal_100", 1.0),
        "10 lb AMS per 100 gal": (10, 10, "lb/gal_100", 1.0),
        "0.03 lb Zn per acre": (0.03, 0.03, "lb/acre:Zn", 1.0),
        "4 pts/A to 3 qts/A": (4, 6, "pt/acre", 1.0),
        "1 level cup to 150 sq ft": (1, 1, "cup/ft2", 150.0),
        "0.2 oz. (dry) per 1,000 sq ft": (0.2, 0.2, "oz_wt/kft2", 1.0),
        "3 oz. (89 ml) per 1,000 sq ft": (3, 3, "fl_oz/kft2", 1.0),
        "2.5 fluid ozs. per 1,000 sq. feet": (2.5, 2.5, "fl_oz/kft2", 1.0),
        "a quarter pound per 1,000 sq ft": (0.25, 0.25, "lb/kft2", 1.0),
        "half a pound/M": (0.5, 0.5, "lb/kft2", 1.0),
        "Apply 2 fl oz of Harrier SC per 1,000 sq ft": (2, 2, "fl_oz/kft2", 1.0),
        "1.5 % solution by volume": (1.5, 1.5, "pct_vv", 1.0),
        "supplies 0.8 lb N/M when 3.6 lb of product is applied per 1,000 sq ft": (3.6, 3.6, "lb/kft2", 1.0),
    }
    SPRAYED = {
        "3 fl oz per gallon of water per 1,000 sq ft": (3, "fl_oz/kft2", 1.0, (1, 1, "gal")),
        "5 Tbs per gallon of water treats 500 sq ft": (5, "tbsp/ft2", 500.0, (1, 1, "gal")),
        "30ml in 5 litres of water treats 100 square metres": (30, "ml/m2_100", 1.0, (5, 5, "l")),
        "Mix 2 oz wt in 3 gallons of water and apply evenly to 1,000 sq ft": (2, "oz_wt/kft2", 1.0, (3, 3, "gal")),
        "1 fl oz with 1/2 gallon of water per 600 sq ft": (1, "fl_oz/ft2", 600.0, (0.5, 0.5, "gal")),
        "0.5 kg/ha in 200 to 400 L/ha": (0.5, "kg/ha", 1.0, (200, 400, "l")),
        "Apply 2 lb per acre in a minimum of 30 GPA": (2, "lb/acre", 1.0, (30, 30, "gal")),
        "3 L/ha, water volume 500 L/ha": (3, "l/ha", 1.0, (500, 500, "l")),
        "One 20 g sachet in 4 litres treats 60 m2": (20, "g/m2", 60.0, (4, 4, "l")),
    }

    def test_rates(self) -> None:
        for phrase, (low, high, key, foot) in self.RATES.items():
            with self.subTest(phrase):
                self.assertEqual(read_label_rate(phrase), LabelRate(low, high, unit(key), foot))

    def test_rates_in_so_much_spray(self) -> None:
        for phrase, (value, key, foot, (low, high, water)) in self.SPRAYED.items():
            with self.subTest(phrase):
                expected = LabelRate(value, value, unit(key), foot, (low, high, UNITS[water]))
                self.assertEqual(read_label_rate(phrase), expected)

    def test_what_else_it_tells_is_told(self) -> None:
        for phrase, told in {
            "2 fl oz/M every 14 to 28 days": "every 14 to 28 days",
            "2 lb/M, watered in with 1/4 inch": "watered in with 1/4 inch",
            "1 to 2 lb/M, not to exceed 5 lb/M per season": "not to exceed 5 lb/M per season",
            "2 tbsp per gal for spot treatment": "for spot treatment",
            "1.5 L/ha Harrier": "Harrier",
        }.items():
            self.assertEqual(read_phrase(phrase).told, (told,), phrase)

    def test_a_second_printing_must_agree(self) -> None:
        """1 qt in 100 gal is 0.25 % (exact); 1 fl oz/1000 ft² is 43.56 fl oz/acre (exact), not 90."""
        self.assertEqual([str(s.highest) for s in read_phrase("1 quart/100 gals (0.25% vol/vol)").same_as], ["0.25 % v/v"])
        with self.assertRaises(Ambiguous):
            read_phrase("1 fl oz per 1,000 sq ft (90 fl oz per acre)")
        with self.assertRaises(InputError):
            read_phrase("4 fl oz (200 ml) per 1,000 sq ft")

    def test_two_rates_are_asked_back_with_what_each_is_for(self) -> None:
        with self.assertRaises(Ambiguous) as caught:
            read_phrase("Preventive 0.2 fl oz/M; curative 0.4 fl oz/M")
        said = [(c.text, c.meaning) for c in caught.exception.choices]
        self.assertEqual(said, [("0.2 fl oz per 1000 ft²", "preventive"), ("0.4 fl oz per 1000 ft²", "curative")])

    def test_a_dry_products_ounce_is_weighed(self) -> None:
        self.assertEqual(weighed("0.2 to 0.4 oz per 1,000 sq ft"), "0.2 to 0.4 oz wt per 1,000 sq ft")
        for settled in ("2 fl oz/M", "2 fl. oz/M", "2 oz wt/M", "2 fluid oz/M"):
            self.assertEqual(weighed(settled), settled)

    def test_what_is_no_rate_is_said_to_be_none(self) -> None:
        for phrase, words in {
            "annual limit 2.0 lb ai/A": "limit of a season",
            "Do not apply more than 5 lb per acre per year": "limit of a season",
            "Rotary spreader setting: 5 1/2": "setting is no rate",
            "not more than 6 applications a year": "not a unit",
            "shake well before use": "not understood",
            "2 tablets per tank": "not a unit",
        }.items():
            with self.assertRaises(InputError) as caught:
                read_phrase(phrase)
            self.assertNotIsInstance(caught.exception, Ambiguous, phrase)
            self.assertIn(words, caught.exception.problem, phrase)


class Asked(unittest.TestCase):
    def choices(self, phrase: str) -> list[str]:
        with self.assertRaises(Ambiguous) as caught:
            read_label_rate(phrase)
        return [c.text for c in caught.exception.choices]

    def test_a_bare_ounce(self) -> None:
        expected = ["2 to 3 fl oz per 1000 sq ft", "2 to 3 oz wt per 1000 sq ft"]
        self.assertEqual(self.choices("2 to 3 oz per 1000 sq ft"), expected)

    def test_every_choice_is_itself_understood(self) -> None:
        for phrase in (
            "3 oz/M",
            "2 tons per acre",
            "0.5%",
            "5 lb per 1,000",
            "3 lb/m",
            "2 qt/a",
            "4 lb",
            "6 fl oz per tank",
            "2% solution",
            "8 oz in 2 gal water per M",
        ):
            for choice in self.choices(phrase):
                read_label_rate(choice)

    def test_what_is_not_understood_is_said(self) -> None:
        for phrase, words in {
            "2 lb per acre every fortnight": "every fortnight",
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
