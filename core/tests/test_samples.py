"""Soil samples: the units they are told in, and what makes two of one spot hard to compare."""

import unittest
from datetime import date
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from core.errors import InputError
from core.soil.samples import KINDS, LB_ACRE, PPM, Figure, How, Sample, changes, doubts, figure, last_before

SPRING, AUTUMN = date(2031, 4, 2), date(2031, 10, 14)


def lab(on: date, ph: float, *figures: Figure, **more: Any) -> Sample:
    return Sample(on, ph, {f.kind.key: f for f in figures}, **{"how": How.LAB, "lab": "County laboratory", **more})


class Units(unittest.TestCase):
    def test_a_pound_an_acre_is_half_a_ppm(self) -> None:
        """Two million pounds of soil in the 6 2/3 in of an acre: 50 lb/acre are 25 ppm (Havlin et al. 2014, from memory)."""
        self.assertEqual(figure("p", 50, LB_ACRE).own, 25)
        self.assertEqual(figure("p", 25, PPM).own, 25)

    def test_the_weight_of_that_soil(self) -> None:
        """6 2/3 in of an acre at 1.32 g/cm³, a usual bulk density (from memory): 2.0 million pounds within a hundredth."""
        pounds = 43_560 * 0.09290304 * (20 / 3) * 0.0254 * 1_320 / 0.45359237
        self.assertAlmostEqual(pounds / 2e6, 1, delta=0.01)

    def test_without_a_unit_it_is_the_kinds_own(self) -> None:
        # The first of its units.
        self.assertEqual(figure("organic", 3.2, "").unit, "%")
        self.assertEqual(str(figure("p", 24, "", "Mehlich-3")), "Phosphorus 24 ppm (Mehlich-3)")

    def test_what_no_soil_has_is_refused(self) -> None:
        # Bounds of ours: see `KINDS`.
        for key, value, unit, field in (
            ("p", 5_001, PPM, "value"),
            ("p", 10_002, LB_ACRE, "value"),
            ("organic", 101, "", "value"),
            ("k", -1, "", "value"),
            ("k", float("nan"), "", "value"),
            ("gold", 1, "", "kind"),
            ("cec", 1, "ppm", "unit"),
        ):
            with self.subTest(key=key, value=value), self.assertRaises(InputError) as caught:
                figure(key, value, unit, at="figures.0")
            self.assertEqual(caught.exception.field, f"figures.0.{field}")

    @given(st.sampled_from(sorted(KINDS)), st.floats(0, 1))
    def test_whatever_is_within_its_bounds_is_taken(self, key: str, share: float) -> None:
        self.assertEqual(figure(key, share * KINDS[key].most, "").own, share * KINDS[key].most)


class Compared(unittest.TestCase):
    def said(self, now: Sample, before: Sample) -> dict[str, str]:
        return {c.key: c.text for c in changes(now, before)}

    def test_what_rose_and_what_fell(self) -> None:
        before = lab(SPRING, 6.8, figure("p", 24, PPM), figure("k", 90, PPM))
        now = lab(SPRING.replace(year=2032), 6.3, figure("p", 60, LB_ACRE), figure("k", 90, PPM), figure("ca", 800, PPM))
        told = {"ph": "pH 0.5 lower", "p": "Phosphorus 6 ppm higher", "k": "Potassium as before"}
        self.assertEqual(self.said(now, before), told)
        self.assertEqual(doubts(now, before), [])

    def test_a_difference_within_its_own_scatter_is_none(self) -> None:
        # Our own bounds, `LEAST`: 0.1 of a laboratory, 0.2 of a meter, 0.5 of a strip, the coarser of the two.
        for how, by, said in (
            (How.LAB, 0.1, "pH 0.1 higher"),
            (How.METER, 0.1, "pH as before"),
            (How.METER, 0.2, "pH 0.2 higher"),
            (How.STRIP, 0.4, "pH as before"),
            (How.STRIP, 0.5, "pH 0.5 higher"),
        ):
            with self.subTest(how=how, by=by):
                self.assertEqual(self.said(lab(SPRING, 6.0 + by), lab(SPRING, 6.0, how=how))["ph"], said)

    def test_another_extraction_is_not_compared(self) -> None:
        before, now = lab(SPRING, 6, figure("p", 24, PPM, "Bray-1")), lab(SPRING, 6, figure("p", 24, PPM, "Olsen"))
        self.assertEqual(set(self.said(now, before)), {"ph"})
        self.assertEqual(doubts(now, before), ["Phosphorus by another extraction: the numbers do not compare."])
        same = lab(SPRING, 6, figure("p", 20, PPM, "bray-1"))
        self.assertEqual((self.said(same, before)["p"], doubts(same, before)), ("Phosphorus 4 ppm lower", []))

    def test_what_else_makes_it_hard(self) -> None:
        # Common practice, no source; the bounds are ours.
        before = lab(SPRING, 6.0, depth=0.075)
        self.assertEqual(doubts(lab(SPRING, 6.0, depth=0.08), before), [])
        self.assertEqual(doubts(lab(SPRING, 6.0, depth=0.15), before), ["Not of one depth."])
        self.assertEqual(doubts(lab(SPRING, 6.0, how=How.METER), before), ["By laboratory then, by own meter now."])
        self.assertIn("laboratories differ", doubts(lab(SPRING, 6.0, lab="Other"), before)[0])
        self.assertIn("apart in the year", doubts(lab(AUTUMN, 6.0), before)[0])

    def test_new_year_is_no_season(self) -> None:
        # By hand: from 20 December to 10 January are 21 days of the year.
        self.assertEqual(doubts(lab(date(2032, 1, 10), 6.0), lab(date(2030, 12, 20), 6.0)), [])

    def test_the_last_before_it_is_the_latest_of_an_earlier_day(self) -> None:
        # By hand.
        every = [lab(date(year, 4, 2), 6.0) for year in (2029, 2031, 2030)]
        self.assertIs(last_before(every[1], every), every[2])
        self.assertIsNone(last_before(every[0], every))
