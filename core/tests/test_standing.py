"""What calibrations are worth on a day, and what was last in a tank. Limits and steps are common practice, no source."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from core.errors import InputError
from core.findings import Weight
from core.job import Form, Machine, MachineKind, check_machine
from core.job.machine import check_match
from core.label.product import FORMULATIONS, Kind, Printed, Product
from core.machines.residue import CleanStep, Held, Residue, before_load, missing, needed, screens
from core.machines.runs import Trust
from core.machines.standing import Test, Use, drifted, expiry, spraying, spreading
from core.tests.things import FEED, SPRAY
from core.units import read_quantity

MAY, NOVEMBER = date(2026, 5, 4), date(2026, 11, 20)
RINSE, CLEANER, SCREENS = CleanStep.RINSE, CleanStep.CLEANER, CleanStep.SCREENS
OTHER = replace(FEED, name="Other", id=8)
FEED = replace(FEED, name="Feed", id=7)
WEEDS = Product("Weeds SL", Kind.HERBICIDE, FORMULATIONS["SL"])


def keys(found: list) -> list[str]:  # type: ignore[type-arg]
    return [f.key for f in found]


class Spraying(unittest.TestCase):
    good = Test(MAY, 0.05, date(2026, 11, 2), nozzle="6 × 04 red")

    def said(self, test: Test | None, nozzle: str = "6 × 04 red", on: date = date(2026, 6, 1), uses: list[Use] | None = None):  # type: ignore[no-untyped-def]
        return spraying("Boom", test, nozzle, on, uses or [])

    def test_a_fresh_one_with_the_same_nozzle_says_nothing(self) -> None:
        self.assertEqual(self.said(self.good), [])

    def test_an_output_that_was_only_typed(self) -> None:
        self.assertEqual(keys(self.said(None)), ["not-calibrated"])

    def test_it_runs_out_the_day_after_its_last(self) -> None:
        self.assertEqual(self.said(self.good, on=date(2026, 11, 2)), [])
        found = self.said(self.good, on=date(2026, 11, 3))
        self.assertEqual(keys(found), ["calibration-old"])
        self.assertIn("4 May 2026", found[0].sentence)

    def test_half_a_year_unless_said_otherwise(self) -> None:
        self.assertEqual(expiry(MAY), date(2026, 11, 2))

    def test_another_nozzle_and_none_noted(self) -> None:
        self.assertEqual(keys(self.said(self.good, "6 × 05 brown")), ["other-nozzle"])
        self.assertIn("none is noted", self.said(self.good, "")[0].sentence)
        self.assertEqual(self.said(replace(self.good, nozzle=""), ""), [])

    def test_runs_that_disagree_and_a_single_run(self) -> None:
        self.assertEqual(keys(self.said(replace(self.good, trust=Trust.DIFFER))), ["runs-differ"])
        self.assertEqual(self.said(replace(self.good, trust=Trust.ONE))[0].act, Weight.NOTE)

    def test_drift_needs_two_rounds_to_one_side(self) -> None:
        """+8 and +10 % have a mean of 9 %; +8 and −1 % tell nothing (arithmetic)."""
        self.assertIsNone(drifted(1.0, [1.2]))
        self.assertIsNone(drifted(1.0, [1.08, 0.99]))
        self.assertIsNone(drifted(1.0, [1.03, 1.04]))
        self.assertAlmostEqual(drifted(1.0, [1.08, 1.10]) or 0, 0.09)
        self.assertAlmostEqual(drifted(1.0, [0.90, 0.92]) or 0, -0.09)
        uses = [Use(date(2026, 5, 20), 0.054), Use(date(2026, 5, 27), 0.055)]
        found = self.said(self.good, uses=uses)
        self.assertEqual(keys(found), ["drifting"])
        self.assertIn("9 % more", found[0].sentence)

    def test_rounds_before_the_calibration_do_not_count(self) -> None:
        old = [Use(date(2026, 4, 1), 0.07), Use(date(2026, 4, 8), 0.07)]
        self.assertEqual(self.said(self.good, uses=old), [])


class Spreading(unittest.TestCase):
    tests = [Test(MAY, 5.0, NOVEMBER, FEED.id, setting=4), Test(MAY, 9.0, NOVEMBER, FEED.id, setting=6)]

    def at(self, rate: float, product: Product = FEED, tests: list[Test] | None = None, on: date = MAY, skewed: bool = False):  # type: ignore[no-untyped-def]
        return spreading("Cart", product, rate, self.tests if tests is None else tests, on, skewed=skewed)

    def test_straight_between_two_tests(self) -> None:
        """7 lies half way from 5 to 9, so the setting half way from 4 to 6 (arithmetic)."""
        found = self.at(7.0)
        self.assertEqual((found.setting, found.findings), (5.0, ()))

    def test_never_beyond_them_and_which_way_to_test(self) -> None:
        for rate, word in ((4.9, "less than any tested"), (9.1, "more than any tested")):
            found = self.at(rate)
            self.assertIsNone(found.setting)
            self.assertIn(word, found.findings[0].sentence)

    def test_another_products_tests_are_never_borrowed(self) -> None:
        found = self.at(7.0, OTHER)
        self.assertIsNone(found.setting)
        self.assertEqual(keys(list(found.findings)), ["no-setting"])
        self.assertIn("no guide", found.findings[0].sentence)
        self.assertNotIn("no guide", self.at(7.0, OTHER, []).findings[0].sentence)

    def test_tests_that_contradict_one_another(self) -> None:
        found = self.at(7.0, tests=[*self.tests, Test(MAY, 8.0, NOVEMBER, FEED.id, setting=7)])
        self.assertIsNone(found.setting)
        self.assertIn("disagree", found.findings[0].sentence)

    def test_old_only_when_all_of_them_are(self) -> None:
        # The days are made up.
        fresh = Test(MAY, 7.1, date(2027, 5, 1), FEED.id, setting=5)
        late = date(2026, 12, 1)
        self.assertEqual(keys(list(self.at(7.0, on=late).findings)), ["calibration-old"])
        self.assertEqual(self.at(7.0, tests=[*self.tests, fresh], on=late).findings, ())

    def test_what_the_bag_prints_is_told_apart_from_a_test(self) -> None:
        printed = replace(FEED, printed=(Printed("broadcast", "5 1/2"), Printed("drop", "7")))
        rotary, drop = ("broadcast", "broadcast spreader"), ("drop", "drop spreader")
        for form, text in ((rotary, "5 1/2"), (drop, "7")):
            found = spreading("Cart", printed, 7.0, [], MAY, form=form)
            self.assertEqual((found.setting, found.printed, keys(list(found.findings))), (None, text, ["printed-setting"]))
        self.assertIn("setting 7 for a drop spreader", found.findings[0].sentence)
        self.assertEqual(keys(list(spreading("Cart", printed, 7.0, [], MAY).findings)), ["no-setting"])
        # An own test goes before it: half way from 4 to 6.
        self.assertEqual(spreading("Cart", printed, 7.0, self.tests, MAY, form=rotary).setting, 5.0)

    def test_a_skewed_pattern_is_said(self) -> None:
        # Any rate inside the tests does.
        self.assertEqual(keys(list(self.at(7.0, skewed=True).findings)), ["skewed"])


class InTheTank(unittest.TestCase):
    held = Held(None, "Weeds SL", Kind.HERBICIDE, True, MAY)

    def after(self, *steps: CleanStep, kind: Kind = Kind.HERBICIDE):  # type: ignore[no-untyped-def]
        return before_load(Residue((replace(self.held, kind=kind, cleaned=steps),)), [SPRAY], "Can")

    def test_a_herbicide_is_refused_until_every_step_is_done(self) -> None:
        """Three rinses, one of them before the cleaner, and the screens washed (common practice, no source)."""
        for steps in ((), (RINSE, RINSE, RINSE), (RINSE, CLEANER, RINSE), (RINSE, CLEANER, SCREENS, RINSE)):
            found = self.after(*steps)
            self.assertEqual([f.act for f in found], [Weight.REFUSE], steps)
        self.assertEqual(self.after(RINSE, CLEANER, SCREENS, RINSE, RINSE), [])

    def test_the_same_product_again_asks_for_nothing(self) -> None:
        self.assertEqual(before_load(Residue((self.held,)), [WEEDS], "Can"), [])

    def test_a_fungicide_warns_and_a_feed_notes(self) -> None:
        self.assertEqual(self.after(kind=Kind.FUNGICIDE)[0].act, Weight.WARN)
        self.assertEqual(self.after(kind=Kind.FERTILISER)[0].act, Weight.NOTE)
        self.assertEqual(self.after(RINSE, kind=Kind.FERTILISER), [])

    def test_a_hopper_is_brushed_out(self) -> None:
        self.assertEqual(needed(Kind.FERTILISER, sprayed=False), (CleanStep.BRUSH,))
        dry = Held(None, "Old feed", Kind.HERBICIDE, False, MAY)
        self.assertEqual(before_load(Residue((dry,)), [FEED], "Cart")[0].act, Weight.WARN)

    def test_another_filling_cleans_nothing(self) -> None:
        """The worst stays until it is cleaned of that: a herbicide of May under two fungicides."""
        later = [Held(None, name, Kind.FUNGICIDE, True, MAY + timedelta(days=d)) for d, name in ((9, "One"), (5, "Two"))]
        found = Residue((*later, self.held))
        self.assertEqual((found.last.name, found.worst.name), ("One", "Weeds SL"))
        self.assertIs(before_load(found, [SPRAY], "Can")[0].act, Weight.REFUSE)
        self.assertIn("Weeds SL", before_load(found, [SPRAY], "Can")[0].sentence)
        clean = (RINSE, CLEANER, SCREENS, RINSE, RINSE)
        done = Residue((*(replace(h, cleaned=clean) for h in later), replace(self.held, cleaned=clean)))
        self.assertEqual(before_load(done, [SPRAY], "Can"), [])

    def test_nothing_known_says_nothing(self) -> None:
        self.assertEqual(before_load(None, [SPRAY], "Can"), [])

    def test_what_is_missing_keeps_its_order_and_its_count(self) -> None:
        self.assertEqual(missing((RINSE, CLEANER, RINSE), (RINSE,)), (CLEANER, RINSE))
        self.assertEqual(missing((RINSE, RINSE), (RINSE, RINSE, RINSE)), ())

    def test_screens_out_for_dispersible_granules_only(self) -> None:
        self.assertIn("screens", screens(FORMULATIONS["WG"]))
        self.assertEqual(screens(FORMULATIONS["SC"]), "")


class Forms(unittest.TestCase):
    def test_a_form_is_of_its_kind(self) -> None:
        for form in Form:
            capacity = read_quantity("4 lb" if form.kind is MachineKind.SPREADER else "4 gal")
            check_machine(Machine("m", form.kind, capacity, form=form))
            other = MachineKind.SPRAYER if form.kind is MachineKind.SPREADER else MachineKind.SPREADER
            with self.assertRaises(InputError):
                check_machine(Machine("m", other, capacity, form=form))

    def test_what_goes_through_what(self) -> None:
        hose = Machine("Hose", MachineKind.SPRAYER, read_quantity("1 qt"), form=Form.HOSE_END)
        drop, cast = (Machine("S", MachineKind.SPREADER, read_quantity("20 lb"), form=f) for f in (Form.DROP, Form.BROADCAST))
        powder = Product("Powder", Kind.AMENDMENT, FORMULATIONS["WP"])
        for product, machine in ((SPRAY, hose), (powder, hose), (powder, drop)):
            check_match(product, machine)
        for product, machine in ((FEED, hose), (powder, cast), (SPRAY, drop)):
            with self.subTest(product.name), self.assertRaisesRegex(InputError, "Pick a"):
                check_match(product, machine)
