"""What to expect after an application, when to look, and what several without effect call for.

Days: common practice, no source.
"""

import unittest
from datetime import date, timedelta

from core.book.after import (
    COURSES,
    WINDOW,
    How,
    Rhythm,
    Tried,
    answers,
    due,
    looks,
    read_days,
    signs,
    what_else,
    without_effect,
    without_effect_text,
)
from core.errors import InputError
from core.label.product import Kind

ON = date(2026, 7, 1)


def tried(day: int, how: How | None, product: str = "A SC", codes: tuple[str, ...] = ("3",)) -> Tried:
    return Tried(ON + timedelta(days=day), product, codes, how)


class Course(unittest.TestCase):
    def test_signs_come_in_the_order_of_days_and_once(self) -> None:
        found = signs([Kind.COLOURANT, Kind.FUNGICIDE, Kind.FUNGICIDE, Kind.ADJUVANT])
        self.assertEqual(len(found), 3)
        self.assertEqual([s.first for s in found], sorted(s.first for s in found))
        self.assertTrue(all(0 <= s.first <= s.last for c in COURSES.values() for s in c.signs))

    def test_what_was_put_down_before_anything_was_there_is_looked_at_once(self) -> None:
        """The days are those of the course; common practice, no source."""
        self.assertEqual(looks([Kind.FUNGICIDE]), [3, 8, 14])
        self.assertEqual(looks([Kind.FUNGICIDE], preventive=True), [14])
        self.assertEqual(looks([Kind.IRON, Kind.ADJUVANT]), [])

    def test_a_cards_own_days_go_before_and_the_house_says_how_often(self) -> None:
        """Days of the card as given, those of kinds by the course; common practice, no source."""
        mix = [Kind.FUNGICIDE, Kind.HERBICIDE]
        self.assertEqual(looks(mix, own={Kind.FUNGICIDE: [5, 2]}), [2, 5, 7, 14, 28])
        self.assertEqual(looks(mix, rhythm=Rhythm.LAST), [14, 28])
        self.assertEqual(looks(mix, rhythm=Rhythm.CARD), [])
        self.assertEqual(looks(mix, own={Kind.HERBICIDE: [10]}, rhythm=Rhythm.CARD), [10])
        self.assertEqual(looks([Kind.FUNGICIDE], preventive=True, own={Kind.FUNGICIDE: [2, 9]}), [2, 9])

    def test_days_as_they_are_typed(self) -> None:
        # As given; day 730 is the last, see `MOST_DAYS`.
        for text, known in (("3, 8, 14", [3, 8, 14]), ("14;3 3", [3, 14]), ("", []), ("0", [0]), ("730", [730])):
            self.assertEqual(read_days(text), known)
        for text in ("soon", "3.5", "-1", "731", "3, x", " ".join(map(str, range(41)))):
            with self.assertRaises(InputError) as caught:
                read_days(text, "looks")
            self.assertEqual(caught.exception.field, "looks")

    def test_one_day_is_due_at_a_time_and_none_once_it_was_answered(self) -> None:
        """Days counted by hand from 1 July: looks on the 4th, the 9th and the 15th."""
        days = [3, 8, 14]
        for after, answered, expect in (
            (2, [], None),
            (3, [], 3),
            (7, [], 3),
            (9, [], 8),
            (9, [3], 8),
            (9, [8], None),
            (9, [9], None),
            (20, [9], 14),
            (WINDOW.days, [], 14),
            (WINDOW.days + 1, [], None),
        ):
            with self.subTest(after=after, answered=answered):
                said = [ON + timedelta(days=n) for n in answered]
                self.assertEqual(due(ON, days, ON + timedelta(days=after), said), expect)
        self.assertIsNone(due(ON, [], ON + timedelta(days=9), []))

    def test_pests_go_or_stay_and_anything_else_does_what_was_expected(self) -> None:
        self.assertIn(How.CLEAN, answers([Kind.COLOURANT, Kind.HERBICIDE]))
        self.assertEqual(answers([Kind.FERTILISER]), [How.AS_EXPECTED, How.SAME, How.HARMED])
        self.assertTrue(all(h.text for h in How))


class WithoutEffect(unittest.TestCase):
    def test_two_of_one_attempt_that_did_nothing_are_told(self) -> None:
        """Fourteen days between them, by hand."""
        run = without_effect([tried(14, How.WORSE, "B WG", ("11",)), tried(0, How.SAME)])
        self.assertEqual([t.product for t in run], ["A SC", "B WG"])
        said = without_effect_text("dollar spot", run)
        self.assertEqual(said, "2 applications against dollar spot within 14 days showed no effect: A SC and B WG.")
        self.assertTrue(any("Take another group than 3 and 11" in s for s in what_else("disease", run)))

    def test_one_that_helped_ends_the_attempt_and_one_nobody_looked_at_says_nothing(self) -> None:
        for several in (
            [tried(0, How.SAME)],
            [tried(0, How.SAME), tried(14, How.BETTER)],
            [tried(0, How.SAME), tried(14, How.BETTER), tried(28, How.SAME)],
            [tried(0, None), tried(14, How.SAME)],
            [tried(0, How.SAME), tried(100, How.SAME)],
            [],
        ):
            self.assertEqual(without_effect(several), [])
        self.assertEqual(len(without_effect([tried(0, How.SAME), tried(14, None), tried(28, How.WORSE)])), 2)

    def test_what_else_goes_by_what_it_is_against(self) -> None:
        run = [tried(0, How.SAME, codes=()), tried(14, How.SAME, codes=())]
        self.assertTrue(any("Dig out" in s for s in what_else("weed", run)))
        self.assertFalse(any("another group" in s for s in what_else("weed", run)))
