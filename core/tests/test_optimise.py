"""The season's optimum: solved instances, brute force on random ones, and what every plan must keep."""

import math
import unittest
from dataclasses import replace
from typing import Any
from unittest.mock import patch

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog

from core.errors import InputError
from core.season.greedy import greedy
from core.season.offers import let_through
from core.season.optimise import optimise
from core.season.problem import Choice, Option, Package, Problem, broken, tally
from core.season.program import Program, Progress

SPOT = {"spot": 1.0}


def searched(problem: Problem) -> float:
    """The least that any plan comes to, by trying every one."""
    every = [(i, d) for d in range(problem.days) for i, o in enumerate(problem.options) if o.may(d)]
    least = tally(problem, []).total

    def on(at: int, chosen: list[Choice]) -> None:
        nonlocal least
        if at == len(every):
            if not broken(problem, chosen):
                least = min(least, tally(problem, chosen).total)
            return
        on(at + 1, chosen)
        more = [*chosen, every[at]]
        if not set(broken(problem, more)) - {"in a row"}:  # a run may still be ended by what comes between
            on(at + 1, more)

    on(0, [])
    return least


def plan_text(problem: Problem, chosen: tuple[Choice, ...], area: str = "A") -> str:
    """A plan of one area as letters, a day each."""
    by_day = {d: problem.options[i].product for i, d in chosen if problem.options[i].area == area}
    return "".join(by_day.get(d, ".") for d in range(problem.days))


def first(**more: Any) -> Problem:
    """Eight weeks, three products: solved by exhaustive search, HiGHS and CP-SAT alike before it came here."""
    options = (
        Option("A", "P", 30, 2, 2, SPOT, ("FRAC 11",), most=4),
        Option("A", "Q", 42, 2, 2, SPOT, ("FRAC 3",), most=4),
        Option("A", "R", 26, 1, 1, SPOT, ("FRAC M05",), most=4),
    )
    worth = {("A", "spot"): np.array([10.0, 60, 80, 50, 90, 70, 60, 40])}
    limits = {"in_a_row": {"FRAC 11": 2, "FRAC 3": 2}} | more
    return Problem(8, options, worth, one_a_day=True, **limits)


def second(**more: Any) -> Problem:
    """Two areas, a fungicide and a regulator kept apart, a lock on B."""
    f, g = {"f": 1.0}, {"g": 1.0}
    options = (
        Option("A", "P", 30, 2, 2, f),
        Option("B", "P", 24, 2, 2, f, days=frozenset({0, 1, 3, 4})),
        Option("A", "G", 20, 2, 2, g),
        Option("B", "G", 16, 2, 2, g, days=frozenset({0, 1, 3, 4})),
    )
    worth = {
        ("A", "f"): np.array([20.0, 40, 50, 45, 30]),
        ("A", "g"): np.array([15.0] * 5),
        ("B", "f"): np.array([10.0, 30, 35, 35, 10]),
        ("B", "g"): np.array([0.0, 12, 12, 12, 12]),
    }
    return Problem(5, options, worth, **({"apart": {("P", "G"): 1}} | more))


def third(**more: Any) -> Problem:
    """A cap of an active, what is on the shelf, and packages to buy."""
    options = (
        Option("A", "P", 5, 2, 2, SPOT, actives={"a": 4.0}, amount=3.0),
        Option("A", "Q", 5, 1, 1, SPOT, actives={"a": 3.0}, amount=2.0),
    )
    worth = {("A", "spot"): np.array([30.0, 50, 70, 40, 60, 20])}
    kept = {
        "caps": {("A", "a"): 10.0},
        "stock": {"P": 4.0, "Q": 1.0},
        "packages": {"P": Package(5.0, 60.0), "Q": Package(4.0, 35.0)},
    }
    return Problem(6, options, worth, one_a_day=True, **(kept | more))


class Solved(unittest.TestCase):
    """Instances whose optimum exhaustive search, HiGHS and CP-SAT agreed on (worked beforehand)."""

    def test_groups_in_a_row(self) -> None:
        for problem, total, texts in (
            (first(), 126, {".P.P.RP.", ".P.RP.P."}),
            (first(in_a_row={}), 120, {"P.P.P.P."}),
            (first(in_a_row={"FRAC 11": 1, "FRAC 3": 2}), 138, None),
            (first(runs={("A", "FRAC 11"): 2}), 138, None),
        ):
            found = optimise(problem)
            self.assertAlmostEqual(found.tally.total, total)
            self.assertTrue(found.proven)
            self.assertEqual(broken(problem, found.chosen), [])
            if texts:
                self.assertIn(plan_text(problem, found.chosen), texts)

    def test_outings_gather_areas(self) -> None:
        for outing, total in ((0.0, 241), (15.0, 291), (40.0, 341)):
            self.assertAlmostEqual(optimise(second(outing=outing)).tally.total, total)
        together = second(outing=15.0, apart={})
        self.assertAlmostEqual(optimise(together).tally.total, 255)
        dear = optimise(second(outing=40.0))
        self.assertEqual({plan_text(second(), dear.chosen, a) for a in "AB"}, {".P.P."})

    def test_a_further_product_on_a_machine_costs_a_change(self) -> None:
        """By hand: one product on both areas costs 10 more than the dearest two of their own, unless a change costs more."""
        options = tuple(
            Option(area, p, cost, 2, 2, SPOT, machine="boom", days=frozenset({0}))
            for area, costs in (("A", {"P": 10.0, "Q": 20.0}), ("B", {"P": 20.0, "Q": 10.0}))
            for p, cost in costs.items()
        )
        worth = {("A", "spot"): np.array([50.0, 50.0]), ("B", "spot"): np.array([50.0, 50.0])}
        for change, total, products in ((0.0, 20 + 15, 2), (8.0, 28 + 15, 2), (15.0, 30 + 15, 1)):
            found = optimise(Problem(2, options, worth, outing=15.0, change=change))
            self.assertAlmostEqual(found.tally.total, total)
            self.assertEqual(len({options[i].product for i, _ in found.chosen}), products)

    def test_of_plans_that_cost_the_same_the_one_that_changes_least(self) -> None:
        """Two products alike in everything: by the plan of before it is the one or the other, and each on its day."""
        options = tuple(Option("A", p, 10.0, 1, 1, SPOT) for p in "PQ")
        alike = Problem(4, options, {("A", "spot"): np.full(4, 30.0)}, one_a_day=True)
        for before in ({(0, 0), (1, 1), (0, 2), (1, 3)}, {(1, 0), (1, 1), (0, 2), (0, 3)}):
            found = optimise(replace(alike, before=frozenset(before)))
            self.assertEqual((set(found.chosen), found.tally.total, found.proven), (before, 40.0, True))
        # What no longer pays is not kept for its own sake: on a day of no worth.
        idle = replace(alike, worth={("A", "spot"): np.array([30.0, 0, 30, 30])}, before=frozenset({(0, 0), (1, 1)}))
        self.assertNotIn((1, 1), optimise(idle).chosen)
        self.assertIn((0, 0), optimise(idle).chosen)

    def test_caps_stock_and_packages(self) -> None:
        found = optimise(third())
        self.assertAlmostEqual(found.tally.total, 100)
        self.assertIn(plan_text(third(), found.chosen), {".P.QQ.", ".QP.Q.", ".QQP.."})
        self.assertAlmostEqual(found.tally.packages, 35)
        free = optimise(third(caps={}))
        self.assertAlmostEqual(free.tally.total, 75)
        self.assertEqual(plan_text(third(), free.chosen), "P.P.P.")


class Properties(unittest.TestCase):
    @staticmethod
    def made(draw: Any) -> Problem:
        days = draw(st.integers(3, 4))
        options = tuple(
            Option(
                area,
                product,
                draw(st.integers(5, 40)),
                draw(st.integers(1, 3)),
                draw(st.integers(1, 3)),
                {"spot": draw(st.sampled_from([1.0, 0.6]))},
                (draw(st.sampled_from(["FRAC 11", "FRAC 3", "FRAC M05"])),),
                {"a": 1.0},
                1.0,
                machine=draw(st.sampled_from(["boom", "can"])),
                hours=float(draw(st.integers(1, 2))),
            )
            for area in "AB"[: draw(st.integers(1, 2))]
            for product in ("P", "Q", *draw(st.sampled_from([(), ("P",)])))
        )
        worth = {(a, "spot"): np.array([float(draw(st.integers(0, 60))) for _ in range(days)]) for a in {o.area for o in options}}
        return Problem(
            days,
            options,
            worth,
            outing=float(draw(st.integers(0, 30))),
            apart={("P", "Q"): draw(st.integers(1, 2))},
            in_a_row={"FRAC 11": 1, "FRAC 3": draw(st.integers(1, 2))},
            runs={("A", "FRAC 3"): draw(st.integers(0, 3))},
            caps={("A", "a"): float(draw(st.integers(1, 4)))},
            stock={"P": float(draw(st.integers(0, 4)))},
            packages={"Q": Package(2.0, 9.0)},
            need={
                (o.area, "spot"): np.array([draw(st.sampled_from([0.0, 0.5, 1.0, 1.5])) for _ in range(days)]) for o in options
            },
            hours=draw(st.sampled_from([None, 2.0, 3.0])),
            change=float(draw(st.sampled_from([0, 0, 5, 20]))),
        )

    @settings(max_examples=40, deadline=None)
    @given(st.data())
    def test_brute_force_agrees_and_every_rule_is_kept(self, data: Any) -> None:
        """The least cost by trying every plan."""
        problem = self.made(data.draw)
        found = optimise(problem)
        self.assertEqual(broken(problem, found.chosen), [])
        self.assertAlmostEqual(found.tally.total, searched(problem), places=6)
        near = greedy(problem)
        self.assertEqual(broken(problem, near.chosen), [])
        self.assertGreaterEqual(near.tally.total, found.tally.total - 1e-6)

    @settings(max_examples=20, deadline=None)
    @given(st.data())
    def test_more_stock_never_costs_more(self, data: Any) -> None:
        """A property."""
        problem = self.made(data.draw)
        more = replace(problem, stock={p: a + 2 for p, a in problem.stock.items()} | {"Q": 2.0})
        self.assertLessEqual(optimise(more).tally.total, optimise(problem).tally.total + 1e-6)

    @settings(max_examples=20, deadline=None)
    @given(st.data())
    def test_the_plan_of_before_costs_nothing(self, data: Any) -> None:
        """Whatever it was, the new one is as cheap as without it, and keeps every rule, whole and an area at a time."""
        problem = self.made(data.draw)
        every = [(i, d) for i, o in enumerate(problem.options) for d in range(problem.days)]
        before = replace(problem, before=frozenset(data.draw(st.lists(st.sampled_from(every), max_size=4))))
        found = optimise(before)
        self.assertEqual(broken(problem, found.chosen), [])
        self.assertAlmostEqual(found.tally.total, optimise(problem).tally.total, places=6)
        with patch("core.season.optimise.WHOLE", 0):
            self.assertEqual(broken(problem, optimise(before).chosen), [])

    @settings(max_examples=20, deadline=None)
    @given(st.data())
    def test_an_area_at_a_time_keeps_every_rule_too_and_its_gap_is_true(self, data: Any) -> None:
        """Against every plan of the same instance, solved whole."""
        problem = self.made(data.draw)
        whole = optimise(problem)
        with patch("core.season.optimise.WHOLE", 0):
            found = optimise(problem)
        self.assertEqual(broken(problem, found.chosen), [])
        self.assertLessEqual(found.tally.total - found.gap, whole.tally.total + 1e-6)
        self.assertGreaterEqual(found.tally.total, whole.tally.total - 1e-6)

    @settings(max_examples=30, deadline=None)
    @given(st.data())
    def test_the_least_is_never_above_the_optimum_however_little_is_known(self, data: Any) -> None:
        """Against scipy's linprog (HiGHS): its own prices prove its optimum, any others prove less."""
        dice = np.random.default_rng(data.draw(st.integers(0, 10_000)))
        columns, rows = int(dice.integers(1, 8)), int(dice.integers(1, 8))
        costs, shares = dice.normal(size=columns), dice.normal(size=(rows, columns))
        model, high = Program(), dice.uniform(0.5, 3, columns)
        for cost, most in zip(costs, high, strict=True):
            model.column(float(cost), float(most), whole=False)
        most = dice.uniform(0.1, 4, rows)
        for row, bound in zip(shares, most, strict=True):
            model.at_most(list(range(columns)), [float(s) for s in row], float(bound))
        best = linprog(costs, shares, most, bounds=list(zip(np.zeros(columns), high, strict=True)))
        self.assertAlmostEqual(model.least(best.ineqlin.marginals), best.fun, places=6)
        self.assertLessEqual(model.least(list(dice.normal(size=rows))), best.fun + 1e-9)
        self.assertEqual(model.least([]), -math.inf)

    def test_a_search_cut_short_knows_the_least_all_the_same(self) -> None:
        """A hundred areas apart from each other, each with the first instance's optimum, in no time at all."""
        one, names = first(), [f"A{n}" for n in range(100)]
        many = replace(
            one,
            options=tuple(replace(o, area=a) for a in names for o in one.options),
            worth={(a, "spot"): one.worth["A", "spot"] for a in names},
        )
        with patch("core.season.optimise.WHOLE", 0):
            found = optimise(many, 0.3)
        self.assertLess(found.gap, math.inf)
        self.assertLessEqual(found.tally.total - found.gap, 100 * optimise(one).tally.total + 1e-6)

    def test_days_are_asked_where_the_answer_turns(self) -> None:
        """Of 300 days with a lock, a closed month and the year's end: the same days as asking every one, by half as many."""
        closed = {*range(40, 54), *range(120, 151), *range(290, 300)}
        asked: list[int] = []

        def let(day: int) -> bool:
            asked.append(day)
            return day not in closed

        days = list(range(0, 300, 3))
        self.assertEqual(let_through(days, let), frozenset(d for d in days if d not in closed))
        self.assertEqual(len(asked), len(set(asked)))
        self.assertLess(len(asked), 0.6 * len(days))
        self.assertEqual((let_through([], let), let_through([5], let), let_through([45], let)), (set(), {5}, set()))

    def test_what_is_fixed_stays_and_is_built_on(self) -> None:
        """What is fixed is in every plan, and one that is fixed dearly still costs."""
        for fixed in ((0, 4), (1, 2)):
            problem = replace(first(), fixed=(fixed,))
            found = optimise(problem)
            self.assertIn(fixed, found.chosen)
            self.assertEqual(broken(problem, found.chosen), [])
            self.assertGreaterEqual(found.tally.total, optimise(first()).tally.total - 1e-6)
            self.assertIn(fixed, greedy(problem).chosen)

    def test_it_tells_how_far_it_is_and_can_be_stopped(self) -> None:
        rng, told = np.random.default_rng(4), list[Progress]()
        options = tuple(
            Option(area, p, 20.0 + n, 14, 10, SPOT, (f"FRAC {n}",), machine="boom")
            for area in "ABC"
            for n, p in enumerate("PQRS")
        )
        worth = {(area, "spot"): rng.random(120) * 9 for area in "ABC"}
        hard = Problem(120, options, worth, outing=10.0, in_a_row={f"FRAC {n}": 1 for n in range(4)})

        def stop(progress: Progress) -> bool:
            told.append(progress)
            return len(told) < 3

        with patch("core.season.optimise.WHOLE", 10_000):
            try:
                found = optimise(hard, 60.0, stop)
            except InputError as none:
                self.assertIn("No plan was found in time", none.sentence)
            else:
                self.assertFalse(found.proven)
        self.assertLess(len(told), 60)

    def test_moving_the_year_by_a_day_moves_the_plan(self) -> None:
        problem = first()
        worth = {k: np.concatenate([[0.0], v]) for k, v in problem.worth.items()}
        later = replace(problem, days=9, worth=worth)
        self.assertAlmostEqual(optimise(later).tally.total, optimise(problem).tally.total)

    def test_nothing_to_plan_with_and_no_time(self) -> None:
        bare = replace(first(), options=())
        self.assertEqual((optimise(bare).chosen, optimise(bare).tally.exposed), ((), 460.0))  # the sum of what the days are worth
        with self.assertRaises(InputError):
            optimise(replace(first(), fixed=((0, 3), (0, 4))))  # inside the interval

    def test_a_run_that_was_too_long_before_ends_no_plan(self) -> None:
        """What the book has done against a rule is done: the group waits until another has covered."""
        found = optimise(replace(first(), runs={("A", "FRAC 11"): 3}))
        mine = plan_text(first(), found.chosen).replace(".", "")
        self.assertNotEqual(mine[0], "P")
        self.assertIn("P", mine)
        self.assertTrue(found.proven)
