"""The reckon line: its grammar, its questions, its answers."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import Ambiguous, InputError, NotUnderstood
from core.reckon.answer import convert_line, one_rate, reach, unnamed
from core.reckon.asked import (
    Asked,
    BackwardsAsked,
    BringsAsked,
    CompareAsked,
    ConversionAsked,
    CupAsked,
    DoseAsked,
    GroundAsked,
    MeasureAsked,
    ReachAsked,
)
from core.reckon.grammar import read_line
from core.reckon.names import Names
from core.units import Quantity

NAMES = Names(["North lawn", "North green", "Court 9", "The bank"], ["Feed 21-0-7", "Sedge SC"], ["Barrow", "Back sprayer"])


def ask(text: str) -> Asked:
    return read_line(text, NAMES)


def sentence(text: str) -> str:
    found = ask(text)
    if isinstance(found, ReachAsked):
        return reach(found.amount, found.rate).sentence
    assert isinstance(found, ConversionAsked)
    return convert_line(found).sentence


class Doses(unittest.TestCase):
    def dose(self, text: str) -> DoseAsked:
        found = ask(text)
        assert isinstance(found, DoseAsked)
        return found

    def test_all_of_it(self) -> None:
        found = self.dose("0.6 lb N/M from the Feed 21-0-7 on Court 9 with Barrow in two passes")
        self.assertEqual(
            (found.product, found.grounds[0].area, found.machine, found.passes), ("Feed 21-0-7", "Court 9", "Barrow", 2)
        )
        self.assertEqual(one_rate(found.rate).unit.key, "lb/kft2:N")

    def test_a_beginning_that_fits_one_name_will_do(self) -> None:
        found = self.dose("1 fl oz/M of sedge on the bank with back?")
        self.assertEqual((found.product, found.grounds[0].area, found.machine), ("Sedge SC", "The bank", "Back sprayer"))

    def test_a_typed_size(self) -> None:
        found = self.dose("2 lb/M on 6,000 sq ft")
        size = found.grounds[0].area
        assert isinstance(size, Quantity)
        self.assertAlmostEqual(size.to("acre").value, 6000 / 43560, places=12)

    def test_a_name_that_fits_two_is_asked_back_as_whole_lines(self) -> None:
        with self.assertRaises(Ambiguous) as caught:
            ask("2 lb/M on north")
        self.assertEqual([c.text for c in caught.exception.choices], ["2 lb/M on North green", "2 lb/M on North lawn"][::-1])

    def test_a_name_unknown_offers_what_is_close(self) -> None:
        with self.assertRaises(NotUnderstood) as caught:
            ask("2 lb/M on Coart 9")
        self.assertEqual([c.text for c in caught.exception.choices], ["2 lb/M on Court 9"])

    def test_an_amount_without_a_foot_is_asked_back(self) -> None:
        with self.assertRaises(Ambiguous) as caught:
            ask("0.6 lb N from the Feed 21-0-7 on Court 9")
        for choice in caught.exception.choices:
            self.assertIsInstance(ask(choice.text), DoseAsked)

    def test_a_nutrient_needs_its_product(self) -> None:
        with self.assertRaisesRegex(InputError, "needs the product"):
            unnamed(self.dose("0.6 lb N/M on Court 9").rate)


class Answers(unittest.TestCase):
    def test_reach(self) -> None:
        """30 lb at 4 lb/1000 ft² covers 7,500 ft² (arithmetic)."""
        self.assertTrue(sentence("how far does 30 lb go at 4 lb/M").startswith("30 lb goes as far as 7,500 ft²"))

    def test_conversions(self) -> None:
        """Factors of NIST Handbook 44 Appendix C."""
        for text, answer in {
            "3 gal in L": "3 gal is 11.356 L.",
            "1.4 acres in sq ft": "1.4 acre is 60,984 ft².",
            "1 to 2 lb/M in kg/ha": "1 to 2 lb per 1000 ft² is 48.824 to 97.649 kg/ha.",
            "2 qt/A in oz per M": "2 qt per acre is 1.4692 fl oz/1000 ft².",
            "2 lb/M as g per 100 sq m": "2 lb per 1000 ft² is 976.49 g/100 m².",
            "5 oz in g": "5 oz wt is 141.75 g.",
            "5 oz in mL": "5 fl oz is 147.87 mL.",
        }.items():
            self.assertEqual(sentence(text), answer)

    def test_a_number_before_the_unit_compares(self) -> None:
        # 2 qt = 64 fl oz over 43.56: 1.469 fl oz/1000 ft²; 12 ÷ 1.469 = 8.17.
        self.assertIn("12 fl oz/1000 ft² is 8.17 times that", sentence("2 qt/A in 12 oz per M?"))

    def test_what_cannot_be(self) -> None:
        for text in (
            "3 lb in mL",
            "2 lb/M in L/ha",
            "how far does 3 lb go at 1 fl oz/M",
            "how far does 3 lb go at 1 to 2 lb/M",
            "",
            "hello",
            "how many greens",
            "2 lb/M",
            "x" * 300,
        ):
            with self.assertRaises(InputError, msg=text):
                found = ask(text)
                reach(found.amount, found.rate) if isinstance(found, ReachAsked) else sentence(text)


WORDS = [
    "2",
    "0.5",
    "1/4",
    "lb",
    "fl",
    "oz",
    "oz",
    "N",
    "per",
    "/",
    "acre",
    "M",
    "on",
    "with",
    "from",
    "the",
    "North",
    "Court",
    "9",
    "Barrow",
    "how",
    "far",
    "does",
    "go",
    "at",
    "in",
    "kg",
    "ha",
    "?",
]


class Questions(unittest.TestCase):
    def test_several_grounds_and_shares_of_them(self) -> None:
        found = ask("1 fl oz/M of sedge on north lawn, half of the bank and 20% of court 9")
        assert isinstance(found, DoseAsked)
        want = (GroundAsked("North lawn"), GroundAsked("The bank", 0.5), GroundAsked("Court 9", 0.2))
        self.assertEqual(found.grounds, want)
        for bad in ("1 fl oz/M on 140% of the bank", "1 fl oz/M on half of"):
            with self.assertRaises(InputError, msg=bad):
                ask(bad)

    def test_a_name_with_an_and_in_it_is_one_ground(self) -> None:
        names = Names(["Bowls and croquet", "Bowls"], [], [])
        found = read_line("2 lb/M on bowls and croquet", names)
        assert isinstance(found, DoseAsked)
        self.assertEqual(found.grounds, (GroundAsked("Bowls and croquet"),))

    def test_backwards(self) -> None:
        found = ask("what rate is 6 fl oz of sedge on court 9?")
        assert isinstance(found, BackwardsAsked)
        self.assertEqual((str(found.had), found.left, found.product), ("6 fl oz", None, "Sedge SC"))
        left = ask("what rate was 64 fl oz less 40 fl oz of Sedge SC over North lawn and The bank")
        assert isinstance(left, BackwardsAsked)
        self.assertEqual((str(left.left), len(left.grounds)), ("40 fl oz", 2))

    def test_brings_compares_measures_and_checks_a_cup(self) -> None:
        self.assertIsInstance(ask("what does 3 lb/M of the feed bring"), BringsAsked)
        compared = ask("compare feed and sedge on court 9 for dollar spot")
        assert isinstance(compared, CompareAsked)
        self.assertEqual((compared.products, compared.target), (("Feed 21-0-7", "Sedge SC"), "dollar spot"))
        self.assertIsInstance(ask("measure 0.38 fl oz of sedge"), MeasureAsked)
        cup = ask("cup 4 fl oz holds 118 g of water at 68 F")
        assert isinstance(cup, CupAsked)
        self.assertAlmostEqual(cup.celsius, 20)
        with self.assertRaises(NotUnderstood):
            ask("compare sedge on court 9")

    def test_product_is_told_from_a_bare_pound(self) -> None:
        for text, said in (("2 lb product/M of feed on court 9", True), ("2 lb/M of feed on court 9", False)):
            found = ask(text)
            assert isinstance(found, DoseAsked)
            self.assertIs(found.said_product, said)


class Anything(unittest.TestCase):
    words = st.lists(st.sampled_from(WORDS), max_size=12)

    @settings(max_examples=400, deadline=None)
    @given(words)
    def test_any_line_is_answered_or_refused_in_words(self, words: list[str]) -> None:
        try:
            ask(" ".join(words))
        except InputError as said:
            self.assertTrue(said.problem)

    @settings(max_examples=100, deadline=None)
    @given(st.integers(1, 900), st.sampled_from(["lb/M", "fl oz/acre", "kg/ha"]), st.sampled_from(list(NAMES.areas)))
    def test_rate_on_area_always_reads(self, value: int, unit: str, area: str) -> None:
        found = ask(f"{value / 10} {unit} on {area}")
        assert isinstance(found, DoseAsked)
        self.assertEqual((found.grounds[0].area, found.rate and found.rate.high), (area, value / 10))
