"""Rates against their label: refused for pesticides and regulators, warned of for the rest, quiet inside."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from core.errors import InputError, Refused
from core.label.phrase import read_label_rate
from core.label.product import Kind
from core.label.rate import Rate, nice_step
from core.rates.limits import Stand, judge, refuse_above_label
from core.tests.things import SPRAY

LABEL = read_label_rate("0.4 to 0.8 fl oz per 1,000 sq ft")


def at(value: float) -> Rate:
    return Rate(value, LABEL.unit)


class Limits(unittest.TestCase):
    def test_both_ends_belong_to_the_range(self) -> None:
        for value in (0.4, 0.6, 0.8, 0.1 + 0.3, 0.7 + 0.1):
            self.assertIs(judge(at(value), LABEL, True).stand, Stand.WITHIN)

    def test_above_is_refused_where_the_label_binds(self) -> None:
        for kind in Kind:
            found = judge(at(0.81), LABEL, kind.label_binds)
            self.assertIs(found.stand, Stand.ABOVE)
            self.assertEqual(found.refused, kind.label_binds, kind)

    def test_a_hair_over_is_the_highest_rate_rounded_and_told_once(self) -> None:
        # 0.1 % of 0.8 is 0.0008: 15 fl oz/acre typed as 0.3444 fl oz/1000 ft² is 0.01 % over.
        for value, stand in ((0.80008, Stand.WITHIN), (0.8008, Stand.WITHIN), (0.80082, Stand.ABOVE), (0.3996, Stand.WITHIN)):
            self.assertIs(judge(at(value), LABEL, True).stand, stand, value)
        self.assertIn("rounded: 0.1 % over", judge(at(0.8008), LABEL, True).sentence)
        acre = read_label_rate("15 fl oz per acre")
        self.assertFalse(judge(Rate(0.3444, LABEL.unit), acre, True).refused)

    def test_the_refusal_quotes_the_label_and_says_what_to_do(self) -> None:
        # 1.6 is 2 times the label's 0.8.
        with self.assertRaises(Refused) as caught:
            refuse_above_label(at(1.6), LABEL, SPRAY)
        self.assertIn("2 times", caught.exception.problem)
        self.assertIn("0.4 to 0.8 fl oz per 1000 ft²", caught.exception.problem)
        self.assertIn("0.8 fl oz/1000 ft²", caught.exception.remedy)

    def test_below_warns_and_does_not_refuse(self) -> None:
        found = judge(at(0.3), LABEL, True)
        self.assertIs(found.stand, Stand.BELOW)
        self.assertFalse(found.refused)
        self.assertIn("25 % under", found.sentence)

    def test_another_unit_of_the_same_kind_is_judged_the_same(self) -> None:
        """0.8 fl oz/1000 ft² is 34.848 fl oz/acre (× 43.56, exact)."""
        acre = read_label_rate("34.848 fl oz per acre").highest
        self.assertIs(judge(acre, LABEL, True).stand, Stand.WITHIN)

    def test_another_kind_of_unit_is_not_judged(self) -> None:
        with self.assertRaises(InputError):
            judge(read_label_rate("1 lb per acre").highest, LABEL, True)

    def test_up_to_has_no_floor(self) -> None:
        label = read_label_rate("up to 2 qt per acre")
        self.assertIs(judge(Rate(0.01, label.unit), label, True).stand, Stand.WITHIN)

    @given(st.floats(0.001, 1000), st.floats(1.0, 50))
    def test_a_step_walks_the_range_in_ten_to_fifty(self, low: float, times: float) -> None:
        high = low * times
        steps = (high - low or high) / nice_step(low, high)
        self.assertTrue(7.9 <= steps <= 20.001, steps)
