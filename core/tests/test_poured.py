"""What was measured for a load, before it is topped up: the rate that it makes, and the slip that would explain a miss."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Kind, Product
from core.rates.limits import Stand
from core.rates.poured import Meant, Poured, check_poured
from core.units import UNITS, Quantity, read_quantity

LABEL = read_label_rate("0.4 to 0.8 fl oz per 1,000 sq ft")
SPRAY = Product("spray", Kind.FUNGICIDE, FORMULATIONS["SC"], density_g_per_l=1100.0)
IRON = Product("iron", Kind.IRON, FORMULATIONS["SL"])
RATE = read_label_rate("0.6 fl oz per 1,000 sq ft").highest


def poured(measured: str, meant: str = "2.4 fl oz", whole: str = "4.2 fl oz", *others: str, product: Product = SPRAY) -> Poured:
    plan = Meant(read_quantity(meant), read_quantity(whole), tuple(read_quantity(o) for o in others))
    return check_poured(product, RATE, LABEL, plan, read_quantity(measured))


class Measured(unittest.TestCase):
    """A tank of 4 gal that is to get 2.4 of the 4.2 fl oz that 7,000 ft² take at 0.6."""

    def test_what_was_meant_is_as_planned(self) -> None:
        found = poured("2.4 fl oz")
        self.assertEqual((found.sentence, found.slip, found.stops), ("That makes 0.6 fl oz/1000 ft², as planned.", "", False))

    def test_in_another_unit_it_is_the_same(self) -> None:
        """2.4 fl oz are 70.977 mL (NIST Handbook 44)."""
        self.assertAlmostEqual(poured("70.976 mL").factor, 1, places=4)

    def test_by_weight_it_is_turned_by_the_density(self) -> None:
        """70.977 mL at 1.1 g/mL are 78.074 g (arithmetic)."""
        self.assertAlmostEqual(poured("78.074 g").factor, 1, places=4)
        with self.assertRaises(InputError):
            poured("78 g", product=IRON)

    def test_above_the_label_stops_and_of_a_feed_it_warns(self) -> None:
        # 4.2 for 2.4 makes 1.05 fl oz/1000 ft², above 0.8
        self.assertTrue(poured("4.2 fl oz").stops)
        self.assertEqual(poured("4.2 fl oz", product=IRON).judgement.stand, Stand.ABOVE)
        self.assertFalse(poured("4.2 fl oz", product=IRON).stops)
        self.assertEqual(poured("1.2 fl oz").judgement.stand, Stand.BELOW)

    def test_slips_are_asked_about(self) -> None:
        for measured, words in {
            "4.2 fl oz": "dose of the whole job, 4.2 fl oz",
            "1.8 fl oz": "dose of another load, 1.8 fl oz",
            "2.4 mL": "read in fl oz, not in mL",
            "71 fl oz": "read in mL, not in fl oz",
            "4.8 fl oz": "twice as much spray",
            "1.2 fl oz": "half as much spray",
            "24 fl oz": "decimal point",
            "0.24 fl oz": "decimal point",
        }.items():
            self.assertIn(words, poured(measured, "2.4 fl oz", "4.2 fl oz", "1.8 fl oz").slip, measured)
        self.assertEqual(poured("3.1 fl oz").slip, "")

    @settings(deadline=None)
    @given(st.floats(0.05, 50), st.sampled_from(["ml", "fl_oz", "tsp", "tbsp", "pt"]))
    def test_the_rate_goes_with_what_was_measured(self, share: float, unit: str) -> None:
        # A property: so many times what was meant, in whatever unit, makes so many times the rate.
        meant = read_quantity("2.4 fl oz")
        here = Quantity(meant.base * share / UNITS[unit].size, UNITS[unit])
        found = check_poured(SPRAY, RATE, LABEL, Meant(meant, read_quantity("4.2 fl oz")), here)
        self.assertAlmostEqual(found.rate.value / (0.6 * share), 1, places=9)
