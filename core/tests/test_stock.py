"""Stock: dates, what is short, and what to buy."""

import unittest
from datetime import date, timedelta
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from core.season.stock import Jug, Keeps, Pack, keeps, to_buy, usable

TODAY = date(2031, 3, 1)


class Dates(unittest.TestCase):
    def test_by_its_printed_date_else_by_its_age(self) -> None:
        """120 days and three years: see `SOON` and `OLD`."""
        for received, expires, known in (
            (None, None, Keeps.UNDATED),
            (TODAY - timedelta(days=1094), None, Keeps.GOOD),
            (TODAY - timedelta(days=1096), None, Keeps.OLD),
            (TODAY - timedelta(days=4000), TODAY + timedelta(days=121), Keeps.GOOD),
            (None, TODAY + timedelta(days=120), Keeps.SOON),
            (None, TODAY, Keeps.SOON),
            (None, TODAY - timedelta(days=1), Keeps.PAST),
        ):
            self.assertEqual(keeps(received, expires, TODAY), known)
        self.assertTrue(Keeps.OLD.asks and Keeps.PAST.asks)
        self.assertFalse(Keeps.SOON.asks or Keeps.UNDATED.asks)

    def test_what_is_past_its_date_does_not_count(self) -> None:
        self.assertEqual(usable([Jug(2.0, Keeps.GOOD), Jug(1.0, Keeps.PAST), Jug(0.5, Keeps.OLD)]), 2.5)  # 2 + 0.5


class Buying(unittest.TestCase):
    def test_the_cheapest_where_prices_are_known(self) -> None:
        """7 L short: three cans of 2.5 L at 60 are 180, one of 10 L is 200 (by hand)."""
        found = to_buy(7, [Pack(2.5, Decimal(60)), Pack(10, Decimal(200))])
        assert found
        self.assertEqual((found.count, found.pack.size, found.price), (3, 2.5, 180))
        self.assertEqual(found.over, 0.5)
        dear = to_buy(9, [Pack(2.5, Decimal(60)), Pack(10, Decimal(200))])
        assert dear
        self.assertEqual((dear.count, dear.price), (1, 200))

    def test_least_left_over_where_they_are_not(self) -> None:
        found = to_buy(7, [Pack(2.5), Pack(10, Decimal(200)), Pack(7.5)])
        assert found
        self.assertEqual((found.count, found.pack.size), (1, 7.5))  # as much over as 3 × 2.5, in fewer cans

    def test_nothing_short_or_no_size(self) -> None:
        self.assertIsNone(to_buy(0, [Pack(1)]))
        self.assertIsNone(to_buy(-1, [Pack(1)]))
        self.assertIsNone(to_buy(1, []))
        self.assertIsNone(to_buy(1e9, [Pack(1)]))

    @given(st.floats(0.01, 200), st.lists(st.floats(0.5, 50), min_size=1, max_size=5))
    def test_it_is_always_enough_and_never_a_package_too_many(self, short: float, sizes: list[float]) -> None:
        found = to_buy(short, [Pack(s) for s in sizes])
        assert found  # but for rounding, 1e-6 of it
        self.assertGreaterEqual(found.count * found.pack.size, short * (1 - 1e-6))
        self.assertLess((found.count - 1) * found.pack.size, short)
