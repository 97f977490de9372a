"""Lines that ask for what was there before. Days are those of the calendar."""

import unittest
from datetime import date

from core.errors import NotUnderstood
from core.reckon.asked import EarlierAsked, MixAsked, Names
from core.reckon.earlier import Day, as_on, kept_mix
from core.reckon.grammar import read_line

TODAY = date(2031, 6, 10)


class Days(unittest.TestCase):
    def test_the_last_one_that_has_been(self) -> None:
        for said, want in (
            (Day(6, 9), date(2031, 6, 9)),
            (Day(6, 10), TODAY),
            (Day(6, 11), date(2030, 6, 11)),
            (Day(2, 29), date(2028, 2, 29)),
            (Day(8, 4, 2029), date(2029, 8, 4)),
        ):
            self.assertEqual(said.last(TODAY), want)
        for none in (Day(2, 30), Day(13, 1), Day(2, 29, 2030)):
            with self.assertRaises(NotUnderstood):
                none.last(TODAY)

    def test_as_one_says_them(self) -> None:
        for text in ("as on 4 Aug", "the same as on August 4", "As on 4th aug.", "as on Aug 4th"):
            found = as_on(text)
            assert found
            self.assertEqual((found.day, found.area), (Day(8, 4), ""), text)
        found = as_on("as on 2029-08-04 on the Croquet 1")
        assert found
        self.assertEqual((found.day, found.area), (Day(8, 4, 2029), "Croquet 1"))
        self.assertIsNone(as_on("3 lb/M as kg/ha"))
        with self.assertRaises(NotUnderstood):
            as_on("as on the fourth")


class Mixes(unittest.TestCase):
    NAMES = Names(("Croquet 1",), ("Summer SC",), ("Knapsack",), ("Summer", "Summer tank"))

    def test_the_longest_name_that_the_line_begins_with(self) -> None:
        for text, name in (
            ("summer tank on Croquet 1", "Summer tank"),
            ("Summer on Croquet 1", "Summer"),
            ("mix summer", "Summer"),
        ):
            found = kept_mix(text, self.NAMES.mixes)
            assert found
            self.assertEqual(found.mix, name)
        self.assertIsNone(kept_mix("Summery on Croquet 1", self.NAMES.mixes))
        self.assertIsNone(kept_mix("2 fl oz/M Summer on Croquet 1", self.NAMES.mixes))

    def test_in_the_grammar(self) -> None:
        found = read_line("Summer tank on Croquet 1 with Knapsack in two passes", self.NAMES)
        assert isinstance(found, MixAsked)
        self.assertEqual(([g.area for g in found.grounds], found.machine, found.passes), (["Croquet 1"], "Knapsack", 2))
        self.assertEqual(read_line("Summer", self.NAMES), MixAsked("Summer"))
        self.assertEqual(read_line("Summer with Knapsack", self.NAMES), MixAsked("Summer", machine="Knapsack"))
        self.assertEqual(read_line("as on 4 Aug on Croquet 1?", self.NAMES), EarlierAsked(Day(8, 4), "Croquet 1"))
