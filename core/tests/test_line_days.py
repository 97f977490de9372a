"""Lines that ask for what was there before. Days are those of the calendar."""

import unittest
from datetime import date

from core.errors import NotUnderstood
from core.reckon.asked import DoseAsked, EarlierAsked, MixAsked
from core.reckon.days import Day, find_day, later
from core.reckon.grammar import read_line
from core.reckon.names import Names

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
        for text in ("4 Aug", "August 4", "4th aug.", "Aug 4th", "4th of August"):
            self.assertEqual((find_day(text) or [None])[0], Day(8, 4), text)
        self.assertEqual((find_day("2029-08-04 on the Croquet 1") or [None])[0], Day(8, 4, 2029))
        for none in ("3 lb/M as kg/ha", "4 marigolds", "may", "the fourth"):
            self.assertIsNone(find_day(none), none)

    def test_days_beside_today(self) -> None:
        """10 June 2031 is a Tuesday."""
        for text, last, ahead in (
            ("today", TODAY, TODAY),
            ("yesterday", date(2031, 6, 9), date(2031, 6, 9)),
            ("3 weeks ago", date(2031, 5, 20), date(2031, 5, 20)),
            ("Tuesday", TODAY, TODAY),
            ("next Tuesday", TODAY, date(2031, 6, 17)),
            ("last tues", date(2031, 6, 3), TODAY),
            ("fri", date(2031, 6, 6), date(2031, 6, 13)),
            ("1 Oct", date(2030, 10, 1), date(2031, 10, 1)),
        ):
            found = find_day(text)
            assert found, text
            self.assertEqual((found[0].last(TODAY), found[0].next(TODAY)), (last, ahead), text)
        self.assertEqual(Day(10, 1).nearest(TODAY), date(2031, 10, 1))
        self.assertEqual(Day(4, 1).nearest(TODAY), date(2031, 4, 1))

    def test_so_much_later(self) -> None:
        self.assertEqual(later(date(2031, 8, 4), days=42), date(2031, 9, 15))
        self.assertEqual(later(date(2031, 1, 31), months=1), date(2031, 2, 28))
        self.assertEqual(later(date(2031, 1, 31), months=-11), date(2030, 2, 28))
        for far in ({"days": 40_000}, {"months": 120_000}):
            with self.assertRaises(NotUnderstood):
                later(TODAY, **far)


class Mixes(unittest.TestCase):
    NAMES = Names(("Croquet 1",), ("Summer SC",), ("Knapsack",), ("Summer", "Summer tank"))

    def test_the_longest_name_that_the_line_says(self) -> None:
        for text, name in (
            ("summer tank on Croquet 1", "Summer tank"),
            ("Summer on Croquet 1", "Summer"),
            ("mix summer", "Summer"),
        ):
            found = read_line(text, self.NAMES)
            assert isinstance(found, MixAsked)
            self.assertEqual(found.mix, name)
        self.assertIsInstance(read_line("2 fl oz/M Summer SC on Croquet 1", self.NAMES), DoseAsked)

    def test_in_the_grammar(self) -> None:
        found = read_line("Summer tank on Croquet 1 with Knapsack in two passes", self.NAMES)
        assert isinstance(found, MixAsked)
        self.assertEqual(([g.area for g in found.grounds], found.machine, found.passes), (["Croquet 1"], "Knapsack", 2))
        self.assertEqual(read_line("Summer", self.NAMES), MixAsked("Summer"))
        self.assertEqual(read_line("Summer with Knapsack", self.NAMES), MixAsked("Summer", machine="Knapsack"))
        for text in ("as on 4 Aug on Croquet 1?", "the same as on 4 Aug, Croquet 1", "on Croquet 1 as on 4 Aug"):
            self.assertEqual(read_line(text, self.NAMES), EarlierAsked(Day(8, 4), "Croquet 1"), text)
        with self.assertRaises(NotUnderstood):
            read_line("as on the fourth", self.NAMES)
