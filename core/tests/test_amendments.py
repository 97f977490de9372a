"""Soil amendments at the gate: what they do not do, what a soil does not need, and the most that turf stands."""

from dataclasses import replace
from datetime import timedelta

from core.findings import Weight
from core.label.product import Content, Kind, Product
from core.label.rate import Basis, Rate
from core.label.rules import Rules
from core.ledger.history import Applied
from core.schools import House
from core.tests.things import DAY, FEED, GRANULE, GREEN, LAWN, Caught, applied, checked, row

SULFUR = Product("Prills", Kind.AMENDMENT, GRANULE, (Content("S", Basis.S, percent=90),))
GYPSUM = Product("Gypsum", Kind.AMENDMENT, GRANULE, (Content("Ca", Basis.CA, percent=22), Content("S", Basis.S, percent=17)))
WEEDS = replace(FEED, name="Feed and weed", contents=(*FEED.contents, Content("2,4-D", Basis.ACTIVE, percent=1)))
LABEL = row("1 to 10 lb per 1,000 sq ft")


def put_down(days: int) -> Applied:
    """5 lb S/1000 ft², so many days ago."""
    return applied(SULFUR, Rate(5 / 0.9, LABEL.label.highest.unit), DAY - timedelta(days=days))


HIGH, NEUTRAL = replace(LAWN, ph=8.0), replace(LAWN, ph=7.03)


class Amendments(Caught):
    """A tall fescue lawn, which likes pH 5.5 to 6.5 and stands a unit more (`core.soil.ph_tables`); a bentgrass green."""

    def test_gypsum_does_nothing_for_ph(self) -> None:
        self.assertIs(self.finding(checked(GYPSUM, LABEL, 5, HIGH, target="soil pH"), "gypsum-for-ph").act, Weight.WARN)
        self.quiet(checked(GYPSUM, LABEL, 5, HIGH, target="soil structure"), "gypsum-for-ph")
        self.quiet(checked(SULFUR, LABEL, 5, HIGH, target="soil pH"), "gypsum-for-ph")

    def test_sulfur_on_a_soil_that_the_house_leaves(self) -> None:
        found = self.finding(checked(SULFUR, LABEL, 3, NEUTRAL), "sulfur-not-needed")
        self.assertIs(found.act, Weight.WARN)
        self.assertIn("The pH of lawn is 7.03", found.sentence)
        self.quiet(checked(SULFUR, LABEL, 3, HIGH), "sulfur-not-needed")
        self.quiet(checked(SULFUR, LABEL, 3, NEUTRAL, house=House({"ph": "to_ideal"})), "sulfur-not-needed")

    def test_sulfur_where_nobody_knows_the_ph_is_asked(self) -> None:
        self.assertIs(self.finding(checked(SULFUR, LABEL, 3, LAWN), "ph-unknown").act, Weight.ASK)

    def test_the_most_at_once_by_its_ends(self) -> None:
        """5 lb S/1000 ft² on turf, 1 on a green: of a product of 90 % 5.56 and 1.11 lb."""
        for ground, most in ((HIGH, 5 / 0.9), (replace(GREEN, ph=8.0), 1 / 0.9)):
            self.quiet(checked(SULFUR, LABEL, most * 0.999, ground), "sulfur-once")
            found = self.finding(checked(SULFUR, LABEL, most * 1.01, ground), "sulfur-once")
            self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("more than the most at once, 1 lb/1000 ft²", found.sentence)

    def test_the_most_in_a_year_counts_what_went_before(self) -> None:
        """10 lb S/1000 ft² a year on turf: two of 5 and no more."""
        before = tuple(put_down(days) for days in (60, 30))
        found = self.finding(checked(SULFUR, LABEL, 3, HIGH, history=before), "sulfur-year")
        self.assertIs(found.act, Weight.REFUSE)
        self.quiet(checked(SULFUR, LABEL, 3, HIGH, history=before[:1]), "sulfur-year")

    def test_a_sulfate_is_no_sulfur(self) -> None:
        self.quiet(checked(GYPSUM, LABEL, 10, HIGH), "sulfur-once", "sulfur-year", "sulfur-not-needed")

    def test_a_weed_and_feed_on_seedlings(self) -> None:
        young = replace(LAWN, sown_on=DAY - timedelta(days=21))
        self.finding(checked(WEEDS, row("2 to 4 lb/M"), 3, young), "on-seedlings")
        self.quiet(checked(FEED, row("2 to 4 lb/M"), 3, young), "on-seedlings")
        self.quiet(checked(WEEDS, row("2 to 4 lb/M"), 3, LAWN), "on-seedlings")
        told = replace(WEEDS, rules=Rules(seed_after=28))
        self.assertIs(self.finding(checked(told, row("2 to 4 lb/M"), 3, young), "seed-too-young").act, Weight.REFUSE)

    def test_a_fertiliser_with_a_pesticide_in_it_is_bound_by_its_label(self) -> None:
        self.assertTrue(WEEDS.label_binds)
        self.assertFalse(FEED.label_binds)
