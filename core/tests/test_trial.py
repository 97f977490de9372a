"""Trials: strips of one size on any outline, lots within blocks, how little could be shown, and what scores do show."""

import math
import unittest
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon, box
from shapely.ops import unary_union

from core.book.results import outcome, signed_rank
from core.book.trial import MOST_PLOTS, blocks_that_fit, could_show, detectable, lay_out, long_way, lots
from core.errors import InputError

LAWN = box(0, 0, 40, 12)
ELL = Polygon([(0, 0), (40, 0), (40, 10), (10, 10), (10, 30), (0, 30)])
HOLED = Point(0, 0).buffer(15) - Point(4, 3).buffer(3)
OUTLINES = (LAWN, ELL, HOLED, Polygon([(0, 0), (30, 4), (34, 19), (9, 24)]))

SLEEP = list(
    zip((0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2), (1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4), strict=True)
)
"""Hours of sleep gained by two drugs, ten patients: Student, Biometrika 6 (1908), the data set `sleep` of R."""
PENICILLIN = [[89, 88, 97, 94], [84, 77, 92, 79], [81, 87, 87, 85], [87, 92, 89, 84], [79, 81, 80, 88]]
"""Yields of four processes by five blends: Box, Hunter & Hunter, Statistics for Experimenters, the penicillin example."""


class Layouts(unittest.TestCase):
    def test_plots_are_the_ground_in_parts_of_one_size(self) -> None:
        # Nearness alone: a cut comes to 1e-7 of the length.
        for ground in OUTLINES:
            for treatments in (2, 3):
                for direction in (None, 37.0):
                    made = lay_out(ground, treatments, 5, least=1.0, direction=direction)
                    sizes = [p.shape.area for p in made.plots]
                    self.assertLess(max(sizes) / min(sizes) - 1, 1e-3)
                    self.assertAlmostEqual(sum(sizes) / ground.area, 1, places=6)
                    self.assertAlmostEqual(
                        unary_union([p.shape for p in made.plots]).symmetric_difference(ground).area, 0, places=5
                    )
                    self.assertGreaterEqual(made.width, 1.0 - 1e-3)
                    for p in made.plots:
                        self.assertTrue(p.shape.contains(Point(*p.middle)))

    def test_halves_and_strips_of_a_lawn(self) -> None:
        """40 m of 12 m are cut square to its length: halves of 20 m, twelve strips of 3 ⅓ m (arithmetic)."""
        self.assertAlmostEqual(long_way(LAWN), 0)
        half = lay_out(LAWN, 2, 1, least=1.0, blocks=1)
        self.assertEqual([round(p.shape.bounds[0]) for p in half.plots], [0, 20])
        self.assertEqual(blocks_that_fit(LAWN, 3, 0, 3.3), 4)
        self.assertAlmostEqual(lay_out(LAWN, 3, 1, least=3.3).width, 40 / 12, places=3)
        self.assertEqual(blocks_that_fit(LAWN, 3, 90, 3.3), 1)

    def test_each_block_has_every_treatment_once(self) -> None:
        made = lay_out(ELL, 4, 11, least=0.5)
        for block in range(1, made.blocks + 1):
            own = [p for p in made.plots if p.block == block]
            self.assertEqual(sorted(p.treatment for p in own), [0, 1, 2, 3])
            self.assertEqual([p.number for p in own], list(range(own[0].number, own[0].number + 4)))
        self.assertLessEqual(len(made.plots), MOST_PLOTS)

    def test_lots_are_drawn_again_by_their_seed_and_are_fair(self) -> None:
        """Of 3,000 blocks a treatment comes first in a third of each, give or take four standard errors (binomial)."""
        self.assertEqual(lots(3, 6, 42), lots(3, 6, 42))
        self.assertNotEqual(lots(3, 6, 42), lots(3, 6, 43))
        first = [block[0] for block in lots(3, 3000, 7)]
        for t in range(3):
            self.assertAlmostEqual(first.count(t) / 3000, 1 / 3, delta=4 * math.sqrt(2 / 9 / 3000))

    def test_what_does_not_fit_is_refused_by_its_field(self) -> None:
        # A lawn of 40 m by 12 m: 2 strips of 21 m do not fit, 5 blocks of 3 strips of 3 m do not; one treatment is no trial.
        for field, more in (
            ("least", {"treatments": 2, "least": 21.0}),
            ("blocks", {"treatments": 3, "least": 3.0, "blocks": 5}),
            ("blocks", {"treatments": 3, "least": 3.0, "blocks": 0}),
            ("treatments", {"treatments": 1, "least": 1.0}),
            ("treatments", {"treatments": 7, "least": 1.0}),
        ):
            asked: dict[str, Any] = {"seed": 1} | more
            with self.assertRaises(InputError) as caught:
                lay_out(LAWN, **asked)
            self.assertEqual(caught.exception.field, field)


class Detectable(unittest.TestCase):
    def test_pairs_by_the_noncentral_t(self) -> None:
        """In standard deviations of the difference, two-sided 5 %, power 80 %: worked from the noncentral t to two places."""
        for n, size in ((3, 3.26), (4, 2.13), (5, 1.68), (6, 1.43), (8, 1.16), (10, 1.00), (12, 0.89)):
            self.assertAlmostEqual(detectable(n) or 0, size, delta=0.005)

    def test_against_scipys_noncentral_t(self) -> None:
        """Where scipy's own distribution gives a number, it gives this power."""
        from scipy.stats import nct, t

        for blocks, treatments in ((4, 2), (6, 3), (10, 4)):
            df, size = (blocks - 1) * (treatments - 1), detectable(blocks, treatments) or 0
            bar = t.ppf(0.975, df)  # two-sided 5 %, the risk of this house
            off = size * math.sqrt(blocks)
            self.assertAlmostEqual(nct.sf(bar, df, off) + nct.cdf(-bar, df, off), 0.8, places=4)

    def test_one_comparison_can_show_nothing(self) -> None:
        self.assertIsNone(detectable(1))
        self.assertIsNone(could_show(1, 2, 0.5))  # any scatter

    def test_in_marks(self) -> None:
        """Plots that scatter by s differ by s√2: five pairs at half a mark show 1.682 × 0.5 × √2 = 1.19 (arithmetic)."""
        self.assertAlmostEqual(could_show(5, 2, 0.5) or 0, 1.19, delta=0.005)

    def test_it_is_found_as_often_as_is_said(self) -> None:
        """1,000 trials thrown with such a difference, five blocks of three: found in 80 %, give or take four standard errors."""
        draw, size = np.random.default_rng(3), could_show(5, 3, 1.0) or 0
        from scipy.stats import t

        bar, found = t.ppf(0.975, 8), 0  # two-sided 5 % on (5 − 1) × (3 − 1) degrees of freedom
        for _ in range(1000):
            scores = draw.normal(size=(5, 3)) + draw.normal(size=(5, 1)) * 2
            scores[:, 1] += size
            told = outcome(scores)
            found += abs(told.differences[0].mean) / math.sqrt(2 * (told.mse or 0) / 5) > bar
        self.assertAlmostEqual(found / 1000, 0.8, delta=4 * math.sqrt(0.16 / 1000))


class Outcomes(unittest.TestCase):
    def test_pairs(self) -> None:
        """`sleep`: a mean difference of 1.58, t 4.0621, p 0.002833, 95 % from 0.7001 to 2.4599; signed rank exact 0.003906."""
        told = outcome(SLEEP)
        d = told.differences[0]
        self.assertAlmostEqual(d.mean, 1.58)
        self.assertAlmostEqual(math.sqrt(told.f or 0), 4.0621, places=4)
        for found, known in ((d.p, 0.002833), (d.low, 0.7001), (d.high, 2.4599), (d.signed_rank, 0.003906)):
            self.assertAlmostEqual(found or 0, known, delta=6e-5)
        self.assertTrue(d.shown)

    def test_pairs_against_scipy(self) -> None:
        from scipy.stats import ttest_rel

        a, b = zip(*SLEEP, strict=True)
        known = ttest_rel(b, a)
        d = outcome(SLEEP).differences[0]
        self.assertAlmostEqual(d.p or 0, known.pvalue)
        self.assertAlmostEqual(d.low or 0, known.confidence_interval(0.95).low)  # the two-sided 95 % of this house

    def test_blocks(self) -> None:
        """Penicillin: rest 226 on 12 degrees of freedom, F 1.2389, p 0.3387; F of the blends 3.504."""
        told = outcome(PENICILLIN)
        self.assertAlmostEqual((told.mse or 0) * told.df, 226)
        for found, known in ((told.f, 1.2389), (told.p, 0.3387), (told.f_blocks, 3.504)):
            self.assertAlmostEqual(found or 0, known, delta=5e-4)
        self.assertFalse(any(d.shown for d in told.differences))

    def test_ratings(self) -> None:
        """Worked by hand: none, A, B in five blocks: means 5.6, 6.4, 7.0, error 0.1125, F 21.93, p 0.00057, LSD 0.489."""
        told = outcome([[5.5, 6.5, 7], [6, 6.5, 7.5], [5, 6, 6], [6, 7, 7], [5.5, 6, 7.5]])
        self.assertEqual([round(m, 6) for m in told.means], [5.6, 6.4, 7.0])
        for found, known, near in (
            (told.mse, 0.1125, 1e-9),
            (told.f, 21.93, 5e-3),
            (told.p, 0.00057, 5e-6),
            (told.lsd, 0.489, 5e-4),
        ):
            self.assertAlmostEqual(found or 0, known, delta=near)
        self.assertTrue(all(d.shown for d in told.differences))

    def test_five_pairs_never_reach_it_by_ranks(self) -> None:
        """The least p of n pairs is 2 ÷ 2ⁿ: 0.0625 of five (arithmetic)."""
        self.assertEqual(signed_rank([0.8, 1, 0.5, 1.2, 0.9]), 0.0625)
        self.assertIsNone(signed_rank([0.0, 0.0]))

    def test_one_block_has_means_and_no_test(self) -> None:
        told = outcome([[5, 7]])
        self.assertEqual((told.means, told.differences[0].mean), ((5.0, 7.0), 2.0))  # as given
        self.assertIsNone(told.differences[0].p)
        self.assertFalse(told.differences[0].shown)

    def test_scores_that_do_not_scatter_are_no_proof(self) -> None:
        told = outcome([[5, 6]] * 4)  # one mark apart in every block
        self.assertTrue(told.alike)
        self.assertIsNone(told.differences[0].p)
        self.assertFalse(told.differences[0].shown)

    def test_behind_an_f_that_shows_nothing_no_single_one_is_shown(self) -> None:
        """Fisher's protected test: where F does not reach 5 %, an interval that leaves out 0 shows nothing."""
        draw = np.random.default_rng(1)
        seen = 0
        for _ in range(400):
            told = outcome(draw.normal(size=(4, 5)))
            apart = [d for d in told.differences if d.low is not None and d.high is not None and not d.low <= 0 <= d.high]
            if (told.p or 0) >= 0.05:
                seen += bool(apart)
                self.assertFalse(any(d.shown for d in told.differences))
        self.assertGreater(seen, 0, "no such case was thrown")

    @settings(max_examples=40)
    @given(st.lists(st.lists(st.integers(2, 18), min_size=3, max_size=3), min_size=2, max_size=8), st.integers(-9, 9))
    def test_a_mark_more_for_all_changes_nothing(self, twice: list[list[int]], more: int) -> None:
        table = np.array(twice) / 2
        a, b = outcome(table), outcome(table + more)
        self.assertEqual(a.alike, b.alike)
        for x, y in zip(a.differences, b.differences, strict=True):
            self.assertAlmostEqual(x.mean, y.mean)
            self.assertAlmostEqual(x.p or 0, y.p or 0)
