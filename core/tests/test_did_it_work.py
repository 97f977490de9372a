"""Forecasts held against looks, what came of applications, what became of plans."""

import math
import unittest
from datetime import date, timedelta
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from core.book.after import How
from core.book.effect import Became, Use, became, effect_of
from core.book.skill import ENOUGH, Case, Looks, Share, best_of, looks_at, thresholds_of
from core.disease.model import Risk
from core.disease.registry import MODELS

FINLEY = Looks(28, 72, 23, 2680)
"""Tornado forecasts of 1884: Finley, as told by Murphy 1996, Weather and Forecasting 11:3-20."""
DAY = date(2031, 6, 1)


class Skill(unittest.TestCase):
    def test_finley(self) -> None:
        """Murphy 1996: found 0.5490, false 0.7200, false rate 0.0262, skill 0.5229, bias 1.961; and 0.4138 to 0.6773."""
        for found, known in (
            (FINLEY.found.value, 0.5490),
            (FINLEY.false_share.value, 0.7200),
            (FINLEY.false_rate.value, 0.0262),
            (FINLEY.skill, 0.5229),
        ):
            self.assertAlmostEqual(found or 0, known, places=4)
        self.assertAlmostEqual(FINLEY.bias or 0, 1.961, places=3)
        for found, known in zip(FINLEY.found.interval, (0.4138, 0.6773), strict=True):
            self.assertAlmostEqual(found, known, places=4)
        for found, known in zip(FINLEY.skill_interval or (0, 0), (0.386, 0.660), strict=True):
            self.assertAlmostEqual(found, known, places=3)

    def test_a_small_table(self) -> None:
        """9, 6, 3, 62: found 0.75 (0.468 to 0.911), false 0.40 (0.198 to 0.643), skill 0.662 (worked by hand)."""
        small = Looks(9, 6, 3, 62)
        self.assertEqual(small.found.value, 0.75)
        self.assertAlmostEqual(small.skill or 0, 0.662, places=3)
        for share, ends in ((small.found, (0.468, 0.911)), (small.false_share, (0.198, 0.643))):
            for found, known in zip(share.interval, ends, strict=True):
                self.assertAlmostEqual(found, known, places=3)

    def test_none_of_five(self) -> None:
        """0 of 5: 0 to 0.4345 (Wilson 1927, by hand)."""
        low, high = Share(0, 5).interval
        self.assertEqual(low, 0)
        self.assertAlmostEqual(high, 0.4345, places=4)
        self.assertIsNone(Share(0, 0).value)
        self.assertEqual(Share(0, 0).interval, (0.0, 1.0))

    @given(st.integers(0, 60), st.integers(1, 60))
    def test_wilson_against_scipy(self, part: int, more: int) -> None:
        from scipy.stats import binomtest

        of = part + more
        known = binomtest(part, of).proportion_ci(0.95, method="wilson")  # the 95 % of this house
        low, high = Share(part, of).interval
        self.assertAlmostEqual(low, known.low, places=6)
        self.assertAlmostEqual(high, known.high, places=6)

    def test_too_few_say_how_many_it_takes(self) -> None:
        self.assertEqual(Looks(3, 1, 1, 8).lacking, (6, 1))
        self.assertFalse(Looks(3, 1, 1, 8).enough)
        self.assertTrue(Looks(6, 4, 4, 6).enough)
        half = Share(ENOUGH // 2, ENOUGH).interval
        self.assertLess(half[1] - half[0], 0.53)  # twice the ±26 % that is told (Wilson)

    def test_another_threshold(self) -> None:
        cases = [Case(v / 10, v >= 4) for v in range(20)]  # seen from 0.4 on: 4 not, 16 seen
        self.assertEqual(looks_at(cases, 0.4), Looks(16, 0, 0, 4))
        self.assertEqual(looks_at(cases, 0.6), Looks(14, 0, 2, 4))
        self.assertEqual(looks_at(cases, 0.2), Looks(16, 2, 0, 2))

    def test_the_best_threshold_is_told_only_of_enough_cases(self) -> None:
        cases = [Case(v / 20, v >= 12) for v in range(24)]  # 12 seen, 12 not
        tried = [(t, looks_at(cases, t)) for t in (0.3, 0.6, 0.9)]
        self.assertEqual(best_of(tried), 0.6)
        self.assertIsNone(best_of([(t, looks_at(cases[8:], t)) for t in (0.3, 0.6)]))

    def test_thresholds_stay_within_what_a_model_may_be_moved_to(self) -> None:
        for model in MODELS.values():
            tried = thresholds_of(model, model.threshold)
            self.assertIn(model.threshold, tried)
            if model.yes_or_no:
                self.assertEqual(len(tried), 1)
            low, high = model.moves or (0, math.inf)
            self.assertTrue(all(low <= x <= high for x in tried))

    @given(st.lists(st.tuples(st.floats(0, 1), st.booleans()), max_size=40), st.floats(0.05, 0.95))
    def test_every_look_is_counted_once(self, given_: list[tuple[float, bool]], threshold: float) -> None:
        looks = looks_at([Case(v, s) for v, s in given_], threshold)
        self.assertEqual(looks.seen + looks.unseen, len(given_))
        if looks.skill is not None and looks.skill_interval:
            self.assertTrue(looks.skill_interval[0] - 1e-9 <= looks.skill <= looks.skill_interval[1] + 1e-9)


class Effects(unittest.TestCase):
    def use(self, day: int, cover: int | None = 14, ground: int = 1, cost: str | None = "20", **more: object) -> Use:
        on = DAY + timedelta(days=day)
        until = None if cover is None else on + timedelta(days=cover)
        return Use(ground, on, 100.0, until, cost=None if cost is None else Decimal(cost), **more)

    def test_cost_of_a_protected_day(self) -> None:
        """Two covers of 14 days, ten days apart, are 24 days on one ground and 28 on two: 40 ÷ 24 = 1.67 (by hand)."""
        found = effect_of([self.use(0), self.use(10)])
        self.assertEqual((found.protected, found.cost), (24, 40))
        self.assertEqual(round(found.per_day or 0, 2), Decimal("1.67"))
        self.assertEqual(effect_of([self.use(0), self.use(10, ground=2)]).protected, 28)
        self.assertEqual(round(found.per_day_on(50) or 0, 3), Decimal("0.833"))  # half of its 100 m²

    def test_what_is_not_known_is_not_made_up(self) -> None:
        self.assertIsNone(effect_of([self.use(0), self.use(20, cost=None)]).cost)
        self.assertIsNone(effect_of([self.use(0, cover=None)]).per_day)
        self.assertIsNone(effect_of([]).cost)

    def test_lapses_and_answers_are_counted(self) -> None:
        uses = [
            self.use(0, looks=(False, True), pressure=Risk.HIGH, answers=(How.BETTER,)),
            self.use(20, looks=(False,), pressure=Risk.LOW, answers=(How.CLEAN, How.SAME)),
        ]
        found = effect_of(uses)
        self.assertEqual((found.clear.part, found.clear.of, found.lapses), (2, 3, 1))
        self.assertEqual(found.pressure, {Risk.HIGH: 1, Risk.LOW: 1})
        self.assertEqual(sum(found.answers.values()), 3)
        self.assertFalse(found.enough)

    def test_what_became_of_a_plan(self) -> None:
        """A window of three days: done in it, two days late, 14 days late, too late to be it, taken back, still ahead."""
        begin, end = DAY, DAY + timedelta(days=2)

        def on(day: int) -> list[date]:
            return [DAY + timedelta(days=day)]

        late = DAY + timedelta(days=40)
        for done, today, dropped, known in (
            (on(1), late, None, Became.DONE),
            (on(4), late, None, Became.LATE),
            (on(16), late, None, Became.LATE),
            (on(17), late, None, Became.SKIPPED),
            (on(-1), late, None, Became.SKIPPED),
            ([], late, begin, Became.DROPPED),
            (on(1), late, begin, Became.DONE),
            ([], late, late, Became.SKIPPED),
            ([], end, None, Became.AHEAD),
        ):
            self.assertEqual(became(begin, end, done, today, dropped)[0], known)
