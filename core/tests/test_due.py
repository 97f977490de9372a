"""From weather to a proposal: thresholds, cover, what is due, which product, what each school would have done, scouts."""

import unittest
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from core.disease.model import Risk, risk_of
from core.disease.registry import MODELS
from core.disease.scouting import Report, score
from core.disease.threshold import Care, Level, threshold_of
from core.errors import InputError
from core.label.product import Content, Kind, Package, Product
from core.label.rate import Basis, Rate
from core.label.rules import NONE as PLAIN
from core.label.rules import Incompatible, Intent, Rules
from core.label.targets import includes
from core.ledger.history import Applied
from core.ledger.ledger import plain
from core.season.choose import Candidate, Pick, Wanted, choices, drafts, first_choice
from core.season.cover import cover_of, covered_days, pressures, protects
from core.season.due import Outlook, State, due
from core.season.replay import Season, by_calendar, by_threshold
from core.tests.things import GREEN, LABEL, LB_GAL, SC, SPRAY, applied, row
from core.units import read_quantity

FIRST = date(2031, 6, 1)
NONE = np.zeros(60)
SMITH_KERNS = MODELS["smith_kerns"]


def on(n: int) -> date:
    return FIRST + timedelta(days=n)


def sprayed(n: int, interval: tuple[int | None, int | None] = (14, 28), codes: tuple[str, ...] = ("FRAC 7",)) -> Applied:
    return Applied(on(n), "Spray", Kind.FUNGICIDE, codes, interval=interval)


class Thresholds(unittest.TestCase):
    def test_moved_by_the_turf_and_never_out_of_its_range(self) -> None:
        """Smith and Kerns: 0.20, moved by accounts between 0.15 and 0.40 (extension use)."""
        self.assertEqual(threshold_of(SMITH_KERNS).value, 0.2)
        self.assertLess(threshold_of(SMITH_KERNS, Care(susceptible=Level.HIGH)).value, 0.2)
        for care in (Care(Level.HIGH, Level.LOW, True), Care(Level.LOW, Level.HIGH)):
            self.assertTrue(0.15 <= threshold_of(SMITH_KERNS, care).value <= 0.40)
        self.assertIn(
            "a grass that falls ill easily and the disease seen here lately",
            threshold_of(SMITH_KERNS, Care(Level.HIGH, history=True)).why,
        )

    def test_a_model_whose_threshold_does_not_move_says_so(self) -> None:
        # 14 h: Nutter and others 1983.
        found = threshold_of(MODELS["nutter"], Care(Level.HIGH))
        self.assertEqual((found.value, found.why), (14.0, "the model's own; this one does not move"))

    def test_the_accounts_own_goes_before_and_must_make_sense(self) -> None:
        # 0.33 is what the account typed.
        self.assertEqual(threshold_of(SMITH_KERNS, Care(own=0.33)).value, 0.33)
        for own in (0.0, -1.0, 20.0):
            with self.assertRaises(InputError):
                threshold_of(SMITH_KERNS, Care(own=own))

    def test_classes(self) -> None:
        # 0.2: Smith and others 2018; that it rises from half of it is the house's own.
        told = [risk_of(v, False, 0.2) for v in (0.05, 0.12, 0.2, 0.9)]
        self.assertEqual(told, [Risk.LOW, Risk.RISING, Risk.HIGH, Risk.HIGH])
        self.assertEqual((risk_of(np.nan, True, 0.2), risk_of(np.nan, False, 0.2)), (Risk.OUTSIDE, Risk.TOO_FEW))


class Covering(unittest.TestCase):
    def test_full_in_calm_weather_and_least_under_pressure(self) -> None:
        calm, hard = cover_of(sprayed(5), FIRST, NONE), cover_of(sprayed(5), FIRST, NONE + 1)
        assert calm and hard
        self.assertEqual((calm.until, hard.until), (on(33), on(19)))
        self.assertEqual((calm.least, calm.most), (on(19), on(33)))
        self.assertIn("weather took 14 days", hard.sentence)

    @given(st.lists(st.floats(0, 1), min_size=60, max_size=60), st.integers(1, 20), st.integers(0, 20))
    def test_never_outside_the_label(self, pressure: list[float], least: int, more: int) -> None:
        found = cover_of(sprayed(3, (least, least + more)), FIRST, np.array(pressure))
        assert found
        self.assertTrue(found.least <= found.until <= found.most)

    @given(st.floats(0, 1), st.floats(0, 1))
    def test_more_pressure_never_lengthens_cover(self, one: float, other: float) -> None:
        low, high = sorted((one, other))
        short, long = (cover_of(sprayed(0), FIRST, NONE + p) for p in (high, low))
        assert short and long
        self.assertLessEqual(short.until, long.until)

    def test_it_counts_against_what_its_label_lists_at_the_rate_that_went_down(self) -> None:
        """A snow-mould row from 1 fl oz is not reached by 0.5 fl oz, the dollar-spot row from 0.4 is."""
        rows = (
            row("0.4 to 0.8 fl oz per 1,000 sq ft", target="Dollar spot"),
            row("1 to 1.5 fl oz per 1,000 sq ft", target="Snow moulds"),
        )
        weak, strong = (applied(SPRAY, Rate(r, LABEL.unit)) for r in (0.5, 1.2))
        told = [protects(a, rows, d) for a in (weak, strong) for d in ("dollar_spot", "gray_snow_mould", "rust")]
        self.assertEqual(told, [True, False, False, True, True, False])
        self.assertTrue(protects(applied(SPRAY, Rate(0.39, LABEL.unit)), rows, "dollar_spot"), "2.5 % short is let pass")

    def test_a_label_with_one_end_or_none(self) -> None:
        one = cover_of(sprayed(0, (28, None)), FIRST, NONE + 1)
        assert one
        self.assertEqual(one.until, on(28))
        self.assertIsNone(cover_of(sprayed(0, (None, None)), FIRST, NONE))

    def test_pressure_from_the_model(self) -> None:
        found = pressures(np.array([0.05, 0.1, 0.2, 0.3, 0.9, np.nan]), 0.2)
        np.testing.assert_allclose(found, [0, 0, 0.5, 1, 1, 0])


class WhatIsDue(unittest.TestCase):
    def outlook(self, values: list[float], today: int, outside: bool = False) -> Outlook:
        array = np.array(values)
        return Outlook(FIRST, array, 0.2, today, np.full(len(array), outside))

    def test_quiet_covered_due_late_and_coming(self) -> None:
        low, high = [0.1] * 10, [0.3] * 8
        cover = [c for c in [cover_of(sprayed(8, (14, 14)), FIRST, NONE)] if c]
        for values, today, covers, state, by in (
            (low + [0.1] * 8, 10, [], State.QUIET, None),
            (low + high, 10, [], State.DUE, on(10)),
            (low + high, 12, [], State.LATE, on(12)),
            ([*low, 0.1, 0.1, *high], 10, [], State.COMING, on(11)),
            (low + high, 10, cover, State.COVERED, None),
        ):
            found = due(self.outlook(values, today), covers)
            self.assertEqual((found.state, found.by), (state, by), found.why)

    def test_cover_that_lapses_within_the_forecast(self) -> None:
        cover = cover_of(sprayed(0, (12, 12)), FIRST, NONE)
        assert cover
        found = due(self.outlook([0.3] * 18, 10), [cover])
        self.assertEqual((found.state, found.by), (State.COMING, on(12)))
        self.assertIn("covered to 13 June", found.why)

    def test_waiting_costs_risk_days(self) -> None:
        found = due(self.outlook([0.1] * 10 + [0.3] * 8, 10), [])
        self.assertEqual(found.ahead, (0, 1, 2, 3, 4, 5, 6, 7))
        self.assertIn("Waiting a week leaves 7 risk days unprotected.", found.delay)

    def test_what_is_not_known_makes_nothing_due(self) -> None:
        # No figure to check: one value is not known, the others are low.
        self.assertEqual(due(self.outlook([0.1] * 10 + [np.nan] * 8, 10), []).state, State.UNKNOWN)
        found = due(self.outlook([np.nan] * 18, 10, outside=True), [])
        self.assertEqual(found.state, State.QUIET)
        self.assertIn("outside the range", found.why)

    def test_seen_is_curative_until_something_went_down(self) -> None:
        low = self.outlook([0.1] * 18, 10)
        self.assertTrue(due(low, [], seen=on(8)).curative)
        self.assertEqual(due(low, [], seen=on(8)).state, State.LATE)
        after = cover_of(sprayed(9), FIRST, NONE)
        assert after
        self.assertFalse(due(low, [after], seen=on(8)).curative)

    @given(st.lists(st.floats(0, 0.5), min_size=12, max_size=12), st.lists(st.floats(0, 0.5), min_size=6, max_size=6))
    def test_a_forecast_never_alters_what_has_been(self, past: list[float], ahead: list[float]) -> None:
        one, other = (due(self.outlook(past + more, 11), []) for more in (ahead, [0.0] * 6))
        self.assertEqual(one.exposed, other.exposed)


class Choosing(unittest.TestCase):
    """Invented products against dollar spot on a green."""

    def product(self, name: str, code: str, rules: Rules = PLAIN, price: str = "100") -> Product:
        package = Package(read_quantity("1 gal"), Decimal(price), "USD")
        return Product(
            name,
            Kind.FUNGICIDE,
            SC,
            (Content("an active", Basis.ACTIVE, percent=20),),
            9.2 * LB_GAL,
            (package,),
            codes=(code,),
            rules=rules,
        )

    def candidate(self, name: str, code: str, rules: Rules = PLAIN, price: str = "100", **more: object) -> Candidate:
        given_row = {
            "target": "Dollar spot",
            "grasses": ("creeping_bentgrass",),
            "interval": (14, 21),
            "intent": Intent.PREVENTIVE,
        } | more
        return Candidate(self.product(name, code, rules, price), (row("0.4 to 0.8 fl oz per 1,000 sq ft", **given_row),))

    def chosen(self, *candidates: Candidate, history: tuple[Applied, ...] = (), curative: bool = False) -> list[Pick]:
        return choices(Wanted("dollar_spot", GREEN, on(60), curative), candidates, plain(GREEN, history))

    def used(self, candidate: Candidate, *days: int) -> tuple[Applied, ...]:
        return tuple(applied(candidate.product, Rate(0.5, candidate.rows[0].label.unit), on(n), interval=(14, 21)) for n in days)

    def test_only_what_lists_the_disease(self) -> None:
        other = self.candidate("Other", "FRAC 3", target="Brown patch")
        self.assertEqual([c.candidate.product.name for c in self.chosen(other, self.candidate("One", "FRAC 7"))], ["One"])
        self.assertTrue(includes("snow_mould", "gray_snow_mould") and not includes("leaf_spot", "gray_leaf_spot"))

    def test_another_group_goes_before_the_last_one_and_cost_decides_then(self) -> None:
        a, b, c = self.candidate("A", "FRAC 7"), self.candidate("B", "FRAC 3", price="300"), self.candidate("C", "FRAC 12")
        order = [x.candidate.product.name for x in self.chosen(a, b, c, history=self.used(a, 30))]
        self.assertEqual(order, ["C", "B", "A"])

    def test_each_refusal_quotes_its_rule(self) -> None:
        row_limit = self.candidate("Row", "FRAC 7", Rules(consecutive=2))
        cap = self.candidate("Cap", "FRAC 7", Rules(applications_per_season=2))
        soon = self.candidate("Soon", "FRAC 7")
        grass = self.candidate("Grass", "FRAC 7", grasses=("tall_fescue",))
        apart = self.candidate("Apart", "FRAC 12", Rules(incompatible=(Incompatible("FRAC 3", 7),)))
        near = self.candidate("Near", "FRAC 3")
        for candidate, history, key in (
            (row_limit, self.used(row_limit, 10, 35), "in-a-row-label"),
            (cap, self.used(cap, 10, 35), "season-times"),
            (soon, self.used(soon, 50), "too-soon"),
            (grass, (), "grass-not-listed"),
            (apart, self.used(near, 57), "kept-apart"),
        ):
            found = self.chosen(candidate, history=history)[0]
            self.assertFalse(found.allowed, key)
            self.assertIn(key, [f.key for f in found.refused])
            self.assertTrue(all(f.sentence for f in found.refused))

    def test_preventive_and_curative_rates_are_told_apart(self) -> None:
        plain = self.candidate("Plain", "FRAC 7")
        both = Candidate(
            self.product("Both", "FRAC 3"),
            (
                row("0.4 to 0.8 fl oz per 1,000 sq ft", target="Dollar spot", intent=Intent.PREVENTIVE),
                row("0.9 to 1.2 fl oz per 1,000 sq ft", target="Dollar spot", intent=Intent.CURATIVE),
            ),
        )
        first, second = self.chosen(plain, both, curative=True)
        self.assertEqual((first.candidate.product.name, first.intent, first.allowed), ("Both", Intent.CURATIVE, True))
        self.assertEqual([f.key for f in second.refused], ["preventive-only"])
        self.assertEqual(self.chosen(both)[0].rate.value, 0.4)

    def test_amount_and_cost_are_of_the_whole_ground(self) -> None:
        found = self.chosen(self.candidate("One", "FRAC 7", price="128"))[0]
        assert found.amount and found.cost
        self.assertAlmostEqual(found.amount.to("fl_oz").value, 2.0, places=9)
        self.assertAlmostEqual(float(found.cost), 2.0, places=9)

    def test_the_first_alone_is_the_first_of_all(self) -> None:
        """Over shelves and pasts of every kind: groups, prices and none, caps, intervals, other grasses."""
        apart = Rules(incompatible=(Incompatible("FRAC 3", 7),))
        shelf = [
            self.candidate(f"P{i}", ("FRAC 7", "FRAC 3", "FRAC 12", "")[i % 4], rules, price, **more)
            for i, (rules, price, more) in enumerate(
                (rules, price, more)
                for rules in (PLAIN, Rules(consecutive=1), Rules(applications_per_season=2), apart)
                for price in ("90", "250")
                for more in ({}, {"grasses": ("tall_fescue",)}, {"target": "Brown patch"})
            )
        ]
        bare = [replace(c, product=replace(c.product, name=f"{c.product.name} unpriced", packages=())) for c in shelf[::5]]
        seen = set()
        for some in (shelf, shelf[::4], shelf[1::3], [*bare, *shelf[::4]], shelf[5:6], []):
            for last in range(0, 24, 4):
                for curative in (False, True):
                    past = self.used(shelf[last], 4, 20, 36) if last else ()
                    wanted, ledger = Wanted("dollar_spot", GREEN, on(60), curative), plain(GREEN, past)
                    every = [c for c in choices(wanted, some, ledger) if c.allowed]
                    found = first_choice(wanted, drafts(wanted, some, ledger.house), ledger)
                    self.assertEqual(found, every[0] if every else None)
                    seen.add((found is not None, bool(found and found.warns)))
        self.assertEqual(seen, {(True, False), (True, True), (False, False)})

    def test_why_speaks_of_the_season(self) -> None:
        one = self.candidate("One", "FRAC 7", Rules(applications_per_season=4))
        said = " ".join(self.chosen(one, history=self.used(one, 20))[0].why)
        self.assertIn("FRAC 7 was last used here on 21 June", said)
        self.assertIn("1 of 4 applications a season are used", said)
        self.assertIn("40 days since its last; the label asks for 14", said)


class Schools(unittest.TestCase):
    def season(self, values: np.ndarray) -> Season:
        return Season(FIRST, values, 0.2, FIRST, on(len(values) - 1))

    def test_a_quiet_season_costs_the_calendar_and_not_the_threshold(self) -> None:
        season = self.season(np.full(90, 0.05))
        calendar, model = by_calendar(season, sprayed(0, (14, 28)), Decimal(50)), by_threshold(season, sprayed(0), Decimal(50))
        self.assertEqual((len(calendar.days), calendar.cost, model.days, model.cost), (5, Decimal(250), (), 0))
        self.assertEqual((calendar.unprotected, calendar.risk_days, model.unprotected), (0, 0, 0))

    def test_a_bad_month_needs_the_least_interval_and_the_calendar_leaves_days_bare(self) -> None:
        values = np.full(90, 0.05)
        values[30:60] = 0.5
        season = self.season(values)
        model, calendar = by_threshold(season, sprayed(0), None), by_calendar(season, sprayed(0), None)
        self.assertEqual([(d - FIRST).days for d in model.days], [30, 45])
        self.assertEqual((model.unprotected, model.risk_days, model.cost), (0, 30, None))
        self.assertEqual(calendar.unprotected, int((np.arange(30, 60) > 35).sum() - covered(calendar.days, values, 36)))


def covered(days: tuple[date, ...], values: np.ndarray, begin: int) -> int:
    """Risk days from `begin` on that the given sprays cover, counted afresh."""
    pressure = pressures(values, 0.2)
    covers = [c for d in days if (c := cover_of(sprayed((d - FIRST).days), FIRST, pressure))]
    return int(covered_days(covers, FIRST, len(values))[begin:60].sum())


class Scouts(unittest.TestCase):
    values = np.array([0.1] * 20 + [0.3] * 5 + [0.1] * 35)

    def test_hits_misses_and_clean_turf(self) -> None:
        reports = [Report(on(24), True), Report(on(15), True), Report(on(26), False), Report(on(50), False), Report(on(2), True)]
        found = score(FIRST, self.values, 0.2, reports)
        self.assertEqual((found.hits, found.misses, found.false, found.clean), (1, 2, 1, 1))
        self.assertIn("1 of 3 outbreaks were warned of, 1 of 2 clean reports had a warning", found.sentence)
        self.assertIn("Too few", found.sentence)

    def test_clean_under_cover_says_nothing_and_unknown_weather_neither(self) -> None:
        flags = np.zeros(60, dtype=bool)
        flags[26] = True
        found = score(FIRST, self.values, 0.2, [Report(on(26), False), Report(on(90), True)], flags)
        self.assertEqual((found.covered, found.unknown, found.judged), (1, 1, 0))
        self.assertIn("No scout report", found.sentence)
