"""The table of a label's rules: every rule is read, said, checked and shown from its one row, and none is dropped in silence."""

import unittest
from dataclasses import fields, replace
from typing import Any

from core.errors import InputError
from core.findings import Weight
from core.label.groups import read_codes
from core.label.product import Content
from core.label.product import Kind as ProductKind
from core.label.rate import Basis
from core.label.rules import Leaf, Rules
from core.label.table import BY_KEY, RULES, UNITS_OF, Checked, Kind, read, said
from core.ledger.history import Applied
from core.tests.things import DAY, LABEL, SPRAY, Caught, checked, row
from core.weather.windows import needs_of

SAMPLES: dict[Kind, Any] = {
    Kind.RATE: "2 fl oz per 1,000 sq ft",
    Kind.ACTIVE_RATE: "1 lb ai per acre",
    Kind.COUNT: 3,
    Kind.LEAF: "dry",
    Kind.HELPER: "needed",
    Kind.DROPLETS: "medium",
    Kind.NAMES: "HRAC 4; an oil",
    Kind.LINE: "Keep off until dry",
    Kind.TEXT: "Shake well",
    Kind.DAY: "2025-02-03",
    Kind.APART: [{"what": "an oil", "days": 14, "note": ""}],
}
GARBAGE: dict[Kind, Any] = {
    Kind.RATE: "4 blobs per paddock",
    Kind.ACTIVE_RATE: "2 fl oz per 1,000 sq ft",
    Kind.COUNT: "many",
    Kind.LEAF: "soggy",
    Kind.HELPER: "perhaps",
    Kind.DROPLETS: "large",
    Kind.NAMES: 7,
    Kind.LINE: 7,
    Kind.TEXT: {"a": 1},
    Kind.DAY: "the third",
    Kind.APART: [{"days": 3}],
}


def sample(kind: Kind) -> Any:
    return {"value": "5", "unit": UNITS_OF[kind][0]} if kind.quantity else SAMPLES[kind]


def garbage(kind: Kind) -> Any:
    return {"value": "5", "unit": "furlong"} if kind.quantity else GARBAGE[kind]


class EveryRule(unittest.TestCase):
    def test_is_read_into_its_place_and_said(self) -> None:
        for rule in RULES:
            with self.subTest(rule.key):
                found = read({rule.key: sample(rule.kind)})
                self.assertEqual(found.faults, ())
                self.assertNotEqual(getattr(found.rules, rule.stands), getattr(Rules(), rule.stands))
                self.assertEqual(len(said({rule.key: sample(rule.kind)})), 1)

    def test_that_cannot_be_read_is_a_fault_a_sentence_and_a_stop(self) -> None:
        for rule in RULES:
            with self.subTest(rule.key):
                found = read({rule.key: garbage(rule.kind)})
                self.assertEqual([f.field.split(".")[0] for f in found.faults], [rule.key])
                self.assertEqual(len(found.rules.unreadable), 1)
                self.assertIn("cannot be read", said({rule.key: garbage(rule.kind)})[0].text)
                checks = checked(replace(SPRAY, rules=found.rules), row(LABEL), 0.6)
                stops = [f for f in checks.findings if f.key == "rule-unreadable"]
                self.assertEqual([f.act for f in stops], [Weight.REFUSE])
                self.assertIn(rule.field, stops[0].sentence)

    def test_has_a_place_in_what_the_core_calls_rules_and_none_is_without_a_row(self) -> None:
        places = {f.name for f in fields(Rules)} - {"unreadable"}
        self.assertEqual({r.stands for r in RULES}, places)
        self.assertEqual(len(BY_KEY), len(RULES))

    def test_that_the_hours_check_moves_what_is_asked_of_them(self) -> None:
        plain = needs_of(Rules(), "x", True)
        for rule in RULES:
            if rule.checked is Checked.HOURS:
                given = {rule.key: sample(rule.kind)}
                if rule.key == "water_in_delay":  # how long the water may wait says something only where water is asked for
                    given["water_in_depth"] = {"value": "5", "unit": "mm"}
                self.assertNotEqual(replace(needs_of(read(given).rules, "x", True), why={}), replace(plain, why={}), rule.key)

    def test_an_unknown_key_is_told_and_stops_too(self) -> None:
        found = read({"moon_phase": "full"})
        self.assertEqual([f.field for f in found.faults], ["moon_phase"])
        self.assertEqual(len(found.rules.unreadable), 1)

    def test_one_that_is_empty_is_not_ruled(self) -> None:
        for empty in ("", "  ", None, [], {"value": "", "unit": "h"}, {"value": None, "unit": "h"}):
            self.assertEqual(read({r.key: empty for r in RULES}).rules, Rules())

    def test_zero_is_a_rule(self) -> None:
        # 0 h is what was typed.
        self.assertEqual(read({"water_in_delay": {"value": "0", "unit": "h"}}).rules.water_in_delay, 0.0)

    def test_ends_that_cross(self) -> None:
        low, high = {"value": "20", "unit": "degC"}, {"value": "50", "unit": "degF"}
        found = read({"temperature_low": low, "temperature_high": high})
        self.assertEqual([f.field for f in found.faults], ["temperature_high"])

    def test_both_ends_are_said_in_one_sentence(self) -> None:
        given = {"wind_low": {"value": 2, "unit": "mph"}, "wind_high": {"value": "8", "unit": "mph"}, "leaf": "wet"}
        self.assertEqual([s.text for s in said(given)], ["Wind 2 mph to 8 mph.", "Leaf wet."])
        self.assertEqual(read(given).rules.leaf, Leaf.WET)


class ActiveCaps(Caught):
    """A season's cap of an active binds each content that it names, not the first."""

    PAIR = replace(
        SPRAY,
        contents=(Content("boscalid", Basis.ACTIVE, percent=10), Content("pyraclostrobin", Basis.ACTIVE, percent=20)),
        codes=("FRAC 7", "FRAC 11"),
    )

    def lines(self, typed: str) -> dict[str, float | None]:
        found = read({"active_per_season": typed}, ("boscalid", "pyraclostrobin"))
        self.assertEqual(found.faults, ())
        budget = checked(replace(self.PAIR, rules=found.rules), row(LABEL), 0.6).budget
        return {x.what: x.cap for x in budget.lines if x.key.startswith("active:")}

    def test_without_a_name_it_binds_each(self) -> None:
        self.assertEqual(self.lines("1 lb ai per acre"), {"boscalid": 1.0, "pyraclostrobin": 1.0})

    def test_by_a_name_it_binds_that_one(self) -> None:
        self.assertEqual(self.lines("pyraclostrobin 1 lb ai per acre"), {"boscalid": None, "pyraclostrobin": 1.0})

    def test_several_by_their_names(self) -> None:
        caps = self.lines("Boscalid: 0.5 lb ai per acre; pyraclostrobin: 0.9 lb ai per acre")
        self.assertEqual(caps, {"boscalid": 0.5, "pyraclostrobin": 0.9})

    def test_the_second_one_refuses(self) -> None:
        """0.6 fl oz/1000 ft² of 9.2 lb/gal at 20 % is 0.3757 lb ai/acre (arithmetic): above 0.3."""
        found = read({"active_per_season": "pyraclostrobin 0.3 lb ai per acre"})
        over = checked(replace(self.PAIR, rules=found.rules), row(LABEL), 0.6)
        self.assertIs(self.finding(over, "season-active").act, Weight.REFUSE)
        self.assertIn("pyraclostrobin", self.finding(over, "season-active").sentence)

    def test_a_name_that_is_not_in_it_is_asked_back(self) -> None:
        found = read({"active_per_season": "thiram 1 lb ai per acre"}, ("boscalid", "pyraclostrobin"))
        self.assertIn("boscalid, pyraclostrobin", found.faults[0].remedy)


class Codes(Caught):
    """A code alone is of the scheme of its kind of product."""

    REGULATOR = replace(SPRAY, kind=ProductKind.GROWTH_REGULATOR, codes=("Class A",))

    def test_by_kind(self) -> None:
        for kind, text, code in (
            ("growth_regulator", "A", "Class A"),
            ("growth_regulator", "class B", "Class B"),
            ("herbicide", "4", "HRAC 4"),
            ("insecticide", "28", "IRAC 28"),
            ("fungicide", "3 + 11", "FRAC 3"),
            ("herbicide", "FRAC 3", "FRAC 3"),
        ):
            self.assertEqual(read_codes(text, scheme=ProductKind(kind).scheme)[0], code)
        with self.assertRaises(InputError):
            read_codes("the strong one", scheme="Class")

    def past(self, name: str, *codes: str) -> list[Applied]:
        return [Applied(DAY.replace(day=1), name, ProductKind.GROWTH_REGULATOR, codes, interval=(21, 28))]

    def test_a_regulator_without_a_class_is_asked_for_it_and_not_taken_for_another(self) -> None:
        for plan, before in ((self.REGULATOR, ()), (replace(self.REGULATOR, codes=()), ("Class B",))):
            found = checked(plan, row(LABEL), 0.6, history=self.past("Other", *before))
            self.assertIs(self.finding(found, "class-unknown").act, Weight.ASK)
            self.quiet(found, "two-regulators")

    def test_two_classes_still_warn_and_one_is_quiet(self) -> None:
        other = checked(self.REGULATOR, row(LABEL), 0.6, history=self.past("Other", "Class B"))
        self.assertIs(self.finding(other, "two-regulators").act, Weight.WARN)
        same = checked(self.REGULATOR, row(LABEL), 0.6, history=self.past("Other", "Class A"))
        self.quiet(same, "two-regulators")
        self.quiet(same, "class-unknown")
