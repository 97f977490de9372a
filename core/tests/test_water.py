"""Catch cans: published definitions, hand sums, and what too few cans, wind and slow soil call for."""

import unittest
from functools import partial

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.units import UNITS
from core.water.cans import ENOUGH, Audit, Can, Heads, audit, depth_of, run_for, soak

INCH = 25.4


def cans(*depths: float) -> list[Can]:
    return [Can(d) for d in depths]


def even(n: int = 16, depth: float = 10.0) -> Audit:
    return audit(cans(*[depth] * n), 30, wind=0.0)


class Audits(unittest.TestCase):
    def test_a_rate_from_millilitres(self) -> None:
        """25 mL through 16.6 in² in 20 min is 0.2757 in/h: mL ÷ 16.387 ÷ in² ÷ min × 60 (exact inch)."""
        depth = depth_of(25, 16.6 * 2.54**2)
        found = audit(cans(*[depth] * 16), 20)
        self.assertAlmostEqual(found.rate / INCH, 0.2757, places=4)
        self.assertAlmostEqual(found.rate / INCH, 25 / 16.387064 / 16.6 / 20 * 60, places=9)

    def test_flow_over_an_area_is_the_same_rate(self) -> None:
        """96.25 × gal/min ÷ ft² is in/h, since a gallon is 231 in³ (exact): 231 × 60 ÷ 144."""
        litres_a_minute, area = 12 * UNITS["gal"].size, 800 * UNITS["ft2"].size
        self.assertAlmostEqual(litres_a_minute * 60 / area / INCH, 96.25 * 12 / 800, places=9)

    def test_both_coefficients_by_hand(self) -> None:
        """Mean 10; the two lowest of eight are 6 and 8: 0.70. Distances 4, 2, 1, 0, 0, 1, 2, 4 make 14 ÷ 8 ÷ 10: 0.825."""
        found = audit(cans(6, 8, 9, 10, 10, 11, 12, 14), 60)
        self.assertAlmostEqual(found.low_quarter, 0.7)
        self.assertAlmostEqual(found.christiansen, 0.825)
        self.assertEqual((found.rate, found.counted), (10, 2))
        self.assertEqual((found.dry, found.wet), ((0,), (7,)))

    def test_an_even_zone_is_whole_by_both(self) -> None:
        found = even()
        self.assertEqual((found.low_quarter, found.christiansen, found.dry, found.wet), (1, 1, (), ()))

    @settings(max_examples=80, deadline=None)
    @given(st.lists(st.floats(0, 40), min_size=4, max_size=40), st.floats(0.1, 10), st.randoms())
    def test_order_and_scale_do_not_matter_and_christiansen_is_numpys(
        self, depths: list[float], scale: float, rnd: object
    ) -> None:
        """Christiansen against numpy, written out."""
        assume(sum(depths) > 1)
        found = audit(cans(*depths), 30)
        array = np.array(depths)
        self.assertAlmostEqual(found.christiansen, 1 - float(np.abs(array - array.mean()).sum() / (array.size * array.mean())))
        shuffled = list(depths)
        rnd.shuffle(shuffled)  # type: ignore[attr-defined]
        again = audit(cans(*[d * scale for d in shuffled]), 30)
        self.assertAlmostEqual(again.low_quarter, found.low_quarter, places=9)
        self.assertAlmostEqual(again.rate / scale, found.rate, places=6)
        self.assertLessEqual(found.low_quarter, 1 + 1e-12)

    def test_few_cans_wind_and_poor_uniformity_are_said(self) -> None:
        # Enough cans, wind and what sprays reach are common practice, no source; a quarter of 17 is 4, rounded down.
        few = " ".join(audit(cans(6, 8, 9, 10, 10, 11, 12, 14), 60, wind=3.0).notes)
        self.assertIn("8 cans are few", few)
        self.assertIn("windy", few)
        poor = " ".join(audit(cans(*[2.0] * 5, *[12.0] * 12), 60, Heads.SPRAY, 0.5).notes)
        self.assertIn("under the 60 % that sprays can reach", poor)
        self.assertIn("4 of 17 cans, rounded down", poor)
        self.assertIn("was not noted", " ".join(audit(cans(*[5.0] * ENOUGH), 60).notes))
        self.assertEqual(len(even().notes), 1)

    def test_refused_with_the_can_named(self) -> None:
        for act, field in (
            (partial(audit, cans(5, 6, 7), 30), "cans"),
            (partial(audit, cans(5, 6, -1, 7), 30), "cans.2"),
            (partial(audit, cans(0, 0, 0, 0), 30), "cans"),
            (partial(audit, cans(5, 6, 7, 8), 0), "minutes"),
            (partial(audit, cans(*[5.0] * 401), 30), "cans"),
            (partial(depth_of, 25, 0), "mouth"),
            (partial(depth_of, -1, 10), "caught"),
            (partial(run_for, even(), 0), "depth"),
            (partial(run_for, even(), 900), "depth"),
        ):
            with self.assertRaises(InputError) as refused:
                act()
            self.assertEqual(refused.exception.field, field)


class Minutes(unittest.TestCase):
    def test_a_quarter_inch_in_half_an_hour(self) -> None:
        """0.25 in in 30 min is 0.5 in/h; half an inch takes an hour (arithmetic)."""
        found = even(depth=0.25 * INCH)
        self.assertAlmostEqual(found.rate / INCH, 0.5)
        run = run_for(found, 0.5 * INCH)
        self.assertAlmostEqual(run.by_mean, 60)
        self.assertAlmostEqual(run.by_quarter, 60)

    def test_an_uneven_zone_runs_longer_but_not_for_its_driest_spot(self) -> None:
        """At a uniformity of 0.7 the multiplier is 1 ÷ 0.82 (arithmetic)."""
        run = run_for(audit(cans(6, 8, 9, 10, 10, 11, 12, 14), 60), 10)
        self.assertAlmostEqual(run.advised / run.by_mean, 1 / 0.82)
        self.assertTrue(run.by_mean < run.advised < run.by_quarter)

    def test_a_zone_with_a_dry_quarter_can_never_water_it(self) -> None:
        run = run_for(audit(cans(0, 10, 10, 10), 60), 5)
        self.assertEqual(run.by_quarter, float("inf"))
        self.assertLess(run.advised, 200)

    def test_cycles_where_it_falls_faster_than_the_soil_drinks(self) -> None:
        """40 mm/h on soil that drinks 10: 3 mm stand after 6 min, so 24 min are 4 times 6, 18 min and more apart."""
        found = soak(24, 40, 10)
        self.assertEqual((found.parts, found.minutes, found.rest), (4, 6, 30))
        self.assertEqual(found.whole, 4 * 6 + 3 * 30)
        slow = soak(24, 40, 4)
        self.assertGreater(slow.rest, 30)

    def test_at_once_where_the_soil_keeps_up(self) -> None:
        for found in (soak(40, 12, 15), soak(5, 40, 10)):
            self.assertEqual((found.parts, found.rest), (1, 0))

    @given(st.floats(1, 200), st.floats(5, 80), st.floats(1, 60), st.floats(0.5, 10))
    def test_what_stands_never_passes_the_pond_and_is_gone_by_the_next(
        self, minutes: float, rate: float, intake: float, pond: float
    ) -> None:
        # A property: what falls less what sinks in.
        found = soak(minutes, rate, intake, pond)
        self.assertAlmostEqual(found.parts * found.minutes, minutes, places=6)
        standing = max(0.0, (rate - intake) * found.minutes / 60)
        self.assertLessEqual(standing, pond * (1 + 1e-6))
        if found.parts > 1:
            self.assertGreaterEqual(intake * found.rest / 60, standing * (1 - 1e-6))
