"""What a plan is made of and beside: expected risk, offers of a shelf, reasons, other schools, runs of what is planned."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

import numpy as np

from core.label.product import Content, Kind
from core.label.rate import Basis
from core.label.rules import Incompatible, Intent
from core.ledger.history import Applied, Standing
from core.ledger.rotation import apart_days, in_a_row
from core.schools import PLAIN
from core.season.choose import Candidate
from core.season.expected import Spell, expected, foretold
from core.season.offers import NITROGEN, feeds, offers
from core.season.problem import Option, Problem, hours, tally
from core.season.reasons import reasons
from core.season.rivals import by_calendar, by_threshold, fared
from core.tests.things import FEED, GREEN, SPRAY, row

SPOT = {"spot": 1.0}


class Expected(unittest.TestCase):
    """By hand: shares of years."""

    def test_the_share_of_years_in_which_a_day_was_at_risk(self) -> None:
        """1 of 2 years on 1 June, 2 of 2 on the 2nd, and one of one where the other year knows nothing."""
        spells = [Spell(date(2024, 6, 1), np.array([1.0, 1.0, np.nan])), Spell(date(2025, 6, 1), np.array([0.0, 1.0, 1.0]))]
        found = expected(spells, date(2026, 6, 1), 4)
        np.testing.assert_allclose(found[:3], [0.5, 1.0, 1.0])
        self.assertTrue(np.isnan(found[3]))

    def test_a_leap_day_goes_by_the_day_before_where_no_year_had_one(self) -> None:
        """28 February was at risk in 1 of 1 years."""
        found = expected([Spell(date(2027, 2, 28), np.array([1.0]))], date(2028, 2, 28), 2)
        np.testing.assert_allclose(found, [1.0, 1.0])

    def test_what_is_known_and_foretold_stands_in_the_place_of_the_years(self) -> None:
        """Two days told, one of them not known."""
        found = foretold(np.array([0.5, 0.5, 0.5]), Spell(date(2026, 5, 31), np.array([1.0, 0.0, np.nan])), date(2026, 6, 1))
        np.testing.assert_allclose(found, [0.0, 0.5, 0.5])


class Beside(unittest.TestCase):
    """Twelve days, an area, two products: by hand."""

    @staticmethod
    def problem() -> Problem:
        options = (
            Option("A", "P", 10.0, 4, 4, SPOT, ("FRAC 3",), days=frozenset({0, 3, 6, 9}), machine="boom", hours=1.0),
            Option("A", "Q", 14.0, 6, 4, SPOT, ("FRAC 7",), days=frozenset({0, 3, 6, 9}), machine="boom", hours=1.0),
        )
        return Problem(12, options, {("A", "spot"): np.full(12, 5.0)}, outing=2.0, in_a_row={"FRAC 3": 1, "FRAC 7": 1})

    risk = {("A", "spot"): np.array([0.0, 0, 0, 1, 1, 1, 1, 1, 1, 0, 0, 0])}

    def test_the_calendar_keeps_cover_from_the_first_usual_day_to_the_last(self) -> None:
        """P (4 days) on day 3; on day 6 it covers still; on day 9 no risk is usual any more."""
        self.assertEqual(by_calendar(self.problem(), self.risk), ((0, 3),))
        long = {("A", "spot"): np.ones(12)}
        self.assertEqual(by_calendar(self.problem(), long), ((0, 0), (1, 6)))  # day 3 is covered, and P may not follow itself

    def test_the_threshold_waits_for_risk_and_knows_only_what_has_been(self) -> None:
        late = {("A", "spot"): np.array([0.0, 0, 0, 0, 1, 1, 1, 1, 0, 0, 0, 0])}
        self.assertEqual(by_threshold(self.problem(), late), ((0, 6),))
        self.assertEqual(by_threshold(self.problem(), {("A", "spot"): np.zeros(12)}), ())

    def test_how_a_plan_fares_in_a_year(self) -> None:
        """P on day 3 covers 3 to 6 of six risk days: two are bare, at 10."""
        found = fared(self.problem(), ((0, 3),), self.risk)
        self.assertEqual((found.applications, found.bare, found.cost), (1, 2.0, 10.0))

    def test_why_this_why_then_why_not_that(self) -> None:
        """P on 3 earns 20 of worth less 12; Q in its place 30 less 16; a day before covers as much; P cannot follow itself."""
        problem = self.problem()
        found = reasons(problem, ((0, 3),), (0, 3))
        self.assertAlmostEqual(found.without.more, 8.0)
        self.assertAlmostEqual(found.instead[0].more, -6.0)  # 30 - 16 against 20 - 12
        assert found.before and found.after
        self.assertAlmostEqual(found.before.more, 0.0)
        self.assertEqual(found.before.choice, (0, 0))
        two = reasons(problem, ((0, 0), (1, 6)), (1, 6))
        self.assertEqual(two.instead[0].broken, ("in a row",))
        whole = tally(problem, ((0, 0), (1, 6))).total
        self.assertAlmostEqual(two.without.more, tally(problem, ((0, 0),)).total - whole)

    def test_hours_of_a_day(self) -> None:
        """Two of an hour each."""
        self.assertEqual(hours(self.problem(), ((0, 3), (1, 3))), {3: 2.0})


class Planned(unittest.TestCase):
    """A year's plan stands on itself; what is done does not stand on plans."""

    @staticmethod
    def down(on: date, code: str, standing: Standing = Standing.PLANNED) -> Applied:
        return Applied(on, code, Kind.FUNGICIDE, (code,), standing=standing)

    def test_what_is_planned_between_ends_a_run_for_a_plan_alone(self) -> None:
        """Two of FRAC 3 with FRAC 7 between, all of them planned."""
        first = date(2026, 5, 1)
        past = [self.down(first, "FRAC 3"), self.down(first + timedelta(days=14), "FRAC 7")]
        plan = self.down(first + timedelta(days=28), "FRAC 3")
        self.assertEqual(in_a_row(plan, past), {"FRAC 3": 1})
        self.assertEqual(in_a_row(replace(plan, standing=Standing.BOOKED), past), {"FRAC 3": 2})

    def test_labels_keep_things_apart_whichever_comes_first(self) -> None:
        """Ten days on one label, two on the other."""
        a = replace(self.down(date(2026, 5, 1), "FRAC 3"), apart=(Incompatible("FRAC 7", 10),))
        b = replace(self.down(date(2026, 5, 1), "FRAC 7"), apart=(Incompatible("FRAC 3", 2),))
        self.assertEqual((apart_days(a, b), apart_days(b, a)), (10, 10))
        self.assertEqual(apart_days(b, replace(b, product="other")), 0)


class Offered(unittest.TestCase):
    def test_each_product_once_for_each_thing_that_it_does(self) -> None:
        """Of two rows that do the same, the one with less; a curative row is none: the middle of 14 and 28 days is 21."""
        rows = (
            row("0.4 fl oz per 1,000 sq ft", target="Dollar spot", interval=(14, 28)),
            row("0.6 fl oz per 1,000 sq ft", target="Dollar spot", interval=(14, 28)),
            row("0.8 fl oz per 1,000 sq ft", target="Brown patch", intent=Intent.CURATIVE),
        )
        found = offers(GREEN, [Candidate(SPRAY, rows)], ["dollar_spot", "brown_patch"], True, PLAIN)
        self.assertEqual([(o.index, o.covers, o.lasts, o.least) for o in found], [(0, {"dollar_spot": 1.0}, 21, 14)])

    def test_what_feeds_by_its_nitrogen_over_the_days_it_feeds(self) -> None:
        """Quick nitrogen feeds for 35 days: 0.5 lb/1000 ft² are 2.44 g/m² (NIST Handbook 44), 0.0697 g/m² a day."""
        found = offers(GREEN, [Candidate(FEED, (row("0.5 lb N per 1,000 sq ft"),))], [], True, PLAIN)
        self.assertEqual(found[0].lasts, 35)
        self.assertAlmostEqual(found[0].covers[NITROGEN], 0.0697, places=4)
        self.assertEqual(offers(GREEN, [Candidate(FEED, (row("0.5 lb N per 1,000 sq ft"),))], [], False, PLAIN), [])
        half = replace(FEED, contents=(Content("N", Basis.N, percent=20, slow_percent=10),))
        self.assertEqual(feeds(half), 52)  # half of it slow: 35 × 1.5
