"""How long a job takes: by hand from its own figures."""

import unittest

from core.machines.labour import AROUND, BY_HAND, FILLING, PACE, TURNING, fills_of, hours_of


class Labour(unittest.TestCase):
    def test_walked_at_its_own_pace(self) -> None:
        """1,000 m² in swaths of 2 m are 500 m: at 1 m/s 500 s, half as much again for turning; by hand."""
        self.assertAlmostEqual(hours_of(1000, 2, 1.0), AROUND + 750 / 3600)
        self.assertAlmostEqual(hours_of(1000, 2), AROUND + 500 / PACE * TURNING / 3600)
        self.assertGreater(hours_of(1000, 2, 0.8), hours_of(1000, 2, 1.2))

    def test_every_filling_more_takes_its_time(self) -> None:
        # 1,000 m² at 0.08 L/m² are 80 L: two tanks of 40 L, three of 35 L.
        self.assertEqual([fills_of(1000, 0.08, c) for c in (40, 35, 100, 0)], [2, 3, 1, 1])
        self.assertAlmostEqual(hours_of(1000, 2, 1.0, 3) - hours_of(1000, 2, 1.0), 2 * FILLING)

    def test_where_no_swath_is_known(self) -> None:
        self.assertAlmostEqual(hours_of(500), AROUND + 500 / BY_HAND)
