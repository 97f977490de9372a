"""The ledger: what lies on which ground, how runs and clocks go, and what must hold of every verdict."""

import unittest
from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from hypothesis import given, settings
from hypothesis import strategies as st

from core.findings import Weight
from core.label.product import Kind
from core.label.rate import Rate
from core.label.rules import Incompatible, Rules
from core.ledger.gate import Checked, Plan, check
from core.ledger.history import Applied, Holds, Place, Standing, next_season
from core.ledger.ledger import Here, ledger_of
from core.ledger.locks import Forbidden, edges, locked, locks_of
from core.ledger.places import Grounds, Tract
from core.rates.kinds import in_kind
from core.schools import House
from core.tests.things import DAY, FEED, GREEN, LABEL, LAWN, SPRAY, Caught, applied, checked, past, row
from core.units import read_quantity

SEVEN = replace(
    SPRAY,
    name="Seven",
    codes=("FRAC 7",),
    rules=Rules(consecutive=2, applications_per_season=3, incompatible=(Incompatible("FRAC 3", 7),)),
)
THREE = replace(SPRAY, name="Three", codes=("FRAC 3",))
MULTI = replace(SPRAY, name="Multi", codes=("FRAC M05",))
SPACED = row(LABEL, interval=(14, 28))


def whole(area: int = 1) -> Place:
    return Place(area)


def at(product: object, days: int, place: Place, **more: object) -> Applied:
    """An application of 0.6 fl oz/1000 ft², so many days before the day, at a place."""
    on = DAY - timedelta(days=days)
    return replace(applied(product, Rate(0.6, LABEL.unit), on), place=place, **more)


def tracts(parts: Sequence[float] = (), **more: object) -> Grounds:
    """A green of 5,000 ft² (1) with parts of so many ft² (2, 3 …), each as the green itself but for `more`."""
    found = {1: Tract(1, GREEN)}
    for i, size in enumerate(parts):
        ground = replace(GREEN, name=f"part {i + 1}", size=read_quantity(f"{size} sq ft"), **more)
        found[i + 2] = Tract(i + 2, ground, 1)
    return Grounds(found)


def held(grounds: Grounds, every: Sequence[Applied], place: Place | None = None, job: Sequence[Applied] = ()) -> Checked:
    """Seven at 0.6 fl oz/1000 ft² on the green, or a place, today."""
    rate, where = Rate(0.6, LABEL.unit), place or whole()
    meant = replace(applied(SEVEN, rate, DAY, interval=SPACED.interval), place=where, application="this")
    plan = Plan(SEVEN, SPACED, rate, meant, (SPACED,))
    return check(plan, ledger_of(grounds, where, every, job, Here(House(), UTC)))


def keys(found: Checked, act: Weight = Weight.REFUSE) -> set[str]:
    return {f.key for f in found.findings if f.act is act}


products = st.sampled_from([SEVEN, THREE, MULTI])
standings = st.sampled_from([Standing.BOOKED, Standing.UNDER_WAY, Standing.PLANNED])
pasts = st.lists(
    st.builds(
        lambda product, days, standing: at(product, days, whole(), standing=standing), products, st.integers(-40, 90), standings
    ),
    max_size=8,
)


class Properties(unittest.TestCase):
    """What holds of any past; the figures are drawn."""

    @settings(deadline=None)
    @given(pasts, st.randoms())
    def test_the_order_of_entry_does_not_matter(self, every: list[Applied], dice: object) -> None:
        mixed = list(every)
        dice.shuffle(mixed)  # type: ignore[attr-defined]
        self.assertEqual(held(tracts(), every).findings, held(tracts(), mixed).findings)

    @settings(deadline=None)
    @given(pasts, st.lists(st.integers(100, 900), min_size=1, max_size=4))
    def test_splitting_a_ground_into_parts_changes_no_verdict(self, every: list[Applied], parts: list[int]) -> None:
        one, cut = held(tracts(), every), held(tracts(parts), every)
        self.assertEqual({(f.key, f.act) for f in one.findings}, {(f.key, f.act) for f in cut.findings})

    @settings(deadline=None)
    @given(pasts, products, st.integers(-40, 0))
    def test_adding_what_is_planned_never_allows_more(self, every: list[Applied], product: object, days: int) -> None:
        more = [*every, at(product, days, whole(), standing=Standing.PLANNED)]
        before, after = held(tracts(), every), held(tracts(), more)
        self.assertLessEqual(keys(before), keys(after))

    @settings(deadline=None)
    @given(st.floats(0.01, 50))
    def test_a_rate_there_and_back_in_another_kind(self, value: float) -> None:
        rate = Rate(value, row("1 lb per 1,000 sq ft").label.unit)
        nitrogen = row("1 lb N per 1,000 sq ft").label.unit
        self.assertAlmostEqual(in_kind(FEED, in_kind(FEED, rate, nitrogen), rate.unit).value / value, 1, places=9)


hours = st.one_of(st.none(), st.integers(1, 60).map(float))
holds = st.builds(Holds, dry=hours, mow=hours, walk=hours, seed=st.none(), water=hours)
started = datetime(2026, 6, 9, 4, tzinfo=UTC)
timed = st.lists(
    st.builds(
        lambda quarters, holds, leaf, soak, clock: replace(
            at(SEVEN, 0, whole(), holds=holds, stays_on_leaf=leaf, watered_in=soak),
            on=(begun := started + timedelta(minutes=15 * quarters)).date(),
            at=begun if clock else None,
        ),
        st.integers(-200, 400),
        holds,
        st.booleans(),
        st.booleans(),
        st.booleans(),
    ),
    max_size=4,
)


class Edges(unittest.TestCase):
    """What `locked` says of a plan changes at its edges alone, or with the day; the figures are drawn."""

    @settings(deadline=None)
    @given(timed, holds, st.booleans(), st.booleans())
    def test_between_two_edges_of_a_day_nothing_changes(self, past: list[Applied], own: Holds, leaf: bool, soak: bool) -> None:
        plan = replace(at(THREE, 0, whole()), holds=own, stays_on_leaf=leaf, watered_in=soak)
        changes, said, last = edges(plan, past, UTC), None, None
        for n in range(4 * 24):  # every hour of four days
            now = started + timedelta(hours=n)
            found = locked(THREE, replace(plan, on=now.date(), at=now), past, UTC)
            if last and last.date() == now.date() and not any(last <= e <= now for e in changes):
                self.assertEqual(found, said, now)
            said, last = found, now


class OneGround(Caught):
    """Wholes, parts and zones by hand: 14 days apart, so that what lies on the ground is refused after 5."""

    def soon(self, grounds: Grounds, every: Sequence[Applied], place: Place | None = None) -> bool:
        return "too-soon" in keys(held(grounds, every, place))

    def test_a_whole_lies_on_its_parts_and_a_part_on_its_whole(self) -> None:
        grounds = tracts([1000, 1000])
        on_part, on_whole = [at(SEVEN, 5, whole(2))], [at(SEVEN, 5, whole())]
        self.assertEqual([self.soon(grounds, on_part, whole(n)) for n in (1, 2, 3)], [True, True, False])
        self.assertEqual([self.soon(grounds, on_whole, whole(n)) for n in (1, 2, 3)], [True, True, True])

    def test_a_zone_lies_beside_the_others(self) -> None:
        core = [at(SEVEN, 5, Place(1, "core", treated=100.0))]
        beside, inside = Place(1, "surround", treated=300.0), Place(1, " Core", treated=100.0)
        self.assertEqual([self.soon(tracts(), core, p) for p in (None, inside, beside)], [True, True, False])

    def test_some_of_a_ground_may_be_any_of_it_and_lies_beside_its_parts_where_it_can(self) -> None:
        # The green has 464.5 m² (5,000 ft²), its part 92.9 m²: 371.6 m² are none of it.
        for treated, on_part in ((100.0, False), (371.0, False), (372.0, True)):
            some = [at(SEVEN, 5, Place(1, some=True, treated=treated))]
            self.assertTrue(self.soon(tracts([1000]), some))
            self.assertEqual(self.soon(tracts([1000]), some, whole(2)), on_part, treated)

    def test_a_job_that_treats_a_part_for_itself_treats_the_rest_beside_it(self) -> None:
        both = [at(SEVEN, 5, Place(1, "the rest", treated=371.0), application="a"), at(THREE, 5, whole(2), application="a")]
        self.assertFalse(self.soon(tracts([1000]), both, whole(2)))

    def test_spots_lie_on_spots_alone(self) -> None:
        """65 m² (700 ft²) in spots of the green yesterday: the rest is free, and the spots are to be left out."""
        spots = Place(1, some=True, treated=65.0, spots=True)
        yesterday = [at(SEVEN, 1, spots, application="a")]
        for place in (whole(), spots, Place(1, "core", treated=100.0)):
            found = held(tracts(), yesterday, place)
            self.assertFalse(keys(found))
            said = next(f for f in found.findings if f.key == "too-soon")
            self.assertIs(said.act, Weight.WARN)
            self.assertRegex(said.sentence, "^On the spots of .*9 June.*Leave those spots out.$")

    def test_spots_of_a_whole_may_lie_on_its_parts_and_on_what_overlaps_it(self) -> None:
        spots, beside = Place(1, some=True, treated=65.0, spots=True), Place(2, some=True, treated=65.0, spots=True)
        grounds = tracts([1000, 1000])
        self.assertIn("too-soon", keys(held(grounds, [at(SEVEN, 1, spots)], whole(2)), Weight.WARN))
        self.assertIn("too-soon", keys(held(grounds, [at(SEVEN, 1, beside)]), Weight.WARN))
        self.assertNotIn("too-soon", keys(held(grounds, [at(SEVEN, 1, beside)], whole(3)), Weight.WARN))

    def test_what_lies_on_the_whole_lies_on_its_spots(self) -> None:
        spots = Place(1, some=True, treated=65.0, spots=True)
        self.assertTrue(self.soon(tracts(), [at(SEVEN, 5, whole())], spots))

    def test_spots_do_not_count_against_what_the_lawn_may_have(self) -> None:
        """Two applications a season: two rounds of spots warn on the spots, the lawn still has both."""
        capped = replace(SEVEN, rules=Rules(applications_per_season=2))
        rate = Rate(0.6, LABEL.unit)
        plan = Plan(capped, row(LABEL), rate, replace(applied(capped, rate), place=whole(), application="this"), (row(LABEL),))
        place = Place(1, some=True, treated=65.0, spots=True)
        past_ones = [at(capped, days, place, application=f"a{days}") for days in (30, 60)]
        found = check(plan, ledger_of(tracts(), whole(), past_ones, (), Here(House(), UTC)))
        self.assertFalse(keys(found))
        spent = [at(capped, days, whole(), application=f"b{days}") for days in (30, 60)]
        self.assertTrue(keys(check(plan, ledger_of(tracts(), whole(), spent, (), Here(House(), UTC)))))

    def test_two_products_of_one_job_on_spots_are_held_against_each_other(self) -> None:
        spots = Place(1, some=True, treated=65.0, spots=True)
        with_it = at(SEVEN, 0, spots, application="this", standing=Standing.SAME_JOB)
        self.assertIn("twice-in-a-job", keys(held(tracts(), [], spots, [with_it])))

    def test_a_ring_of_parents_ends(self) -> None:
        ring = Grounds({1: Tract(1, GREEN, 2), 2: Tract(2, GREEN, 1)})
        self.assertTrue(self.soon(ring, [at(SEVEN, 5, whole(2))]))

    def test_areas_that_overlap_by_their_outlines(self) -> None:
        grounds = Grounds({1: Tract(1, GREEN, None, frozenset({2})), 2: Tract(2, LAWN, None, frozenset({1}))})
        self.assertTrue(self.soon(grounds, [at(SEVEN, 5, whole(2))]))

    def test_a_whole_and_its_part_in_one_job_are_dosed_twice(self) -> None:
        # 0.6 + 0.6 = 1.2 fl oz/1000 ft² on the part, over the label's 0.8.
        part = at(SEVEN, 0, whole(2), application="this", standing=Standing.SAME_JOB)
        found = self.finding(held(tracts([1000]), [], whole(), [part]), "twice-in-a-job")
        self.assertIs(found.act, Weight.REFUSE)
        self.assertIn("1.2 fl oz/1000 ft² in all", found.sentence)
        rest = held(tracts([1000]), [], Place(1, "rest", treated=371.0), [part])
        self.quiet(rest, "twice-in-a-job")

    def test_every_parts_own_facts_are_asked(self) -> None:
        listed = replace(SPACED, grasses=("creeping_bentgrass",))
        rate = Rate(0.6, LABEL.unit)
        plan = Plan(SEVEN, listed, rate, replace(applied(SEVEN, rate), place=whole()), (listed,))
        for grass, refused in (("bermudagrass", True), ("creeping_bentgrass", False)):
            bears = ledger_of(tracts([1000], grass=grass), whole(), [])
            self.assertEqual(check(plan, bears).refused, refused, grass)


class Clocks(Caught):
    """Locks by hand, on a green in New York."""

    ZONE = ZoneInfo("America/New_York")
    TEN = datetime(2031, 6, 10, 14, tzinfo=UTC)  # 10:00 there

    def test_a_lock_runs_from_the_clock_of_the_application(self) -> None:
        done = replace(past(SPRAY, days=0)[0], at=self.TEN, holds=Holds(dry=48, mow=6, walk=4, seed=21))
        found = {x.what: x.until(self.ZONE) for x in locks_of([done], self.ZONE)}
        self.assertEqual(
            found,
            {
                Forbidden.WALK: "Tue 10 Jun, 14:00",
                Forbidden.MOW: "Tue 10 Jun, 16:00",
                Forbidden.WATER: "Thu 12 Jun, 10:00",
                Forbidden.SEED: "1 July",
            },
        )

    def test_where_only_the_day_is_known_it_holds_from_its_end(self) -> None:
        done = replace(past(SPRAY, days=0)[0], holds=Holds(dry=2))
        self.assertEqual([x.until(self.ZONE) for x in locks_of([done], self.ZONE)], ["Wed 11 Jun, 02:00"])

    def test_over_the_change_of_the_clocks_48_hours_are_48(self) -> None:
        # US clocks go back on 2 November 2031 at 02:00: 10:00 on the 1st and 48 h more is 09:00 on the 3rd.
        done = replace(past(SPRAY, days=0)[0], at=datetime(2031, 11, 1, 14, tzinfo=UTC), holds=Holds(dry=48))
        self.assertEqual(locks_of([done], self.ZONE)[0].until(self.ZONE), "Mon 3 Nov, 09:00")

    def test_whose_label_binds_refuses_by_whichever_product_it_would_be_broken(self) -> None:
        soak = replace(FEED, rules=Rules(water_in_depth=6.0, water_in_delay=24.0))
        leaf = replace(past(SPRAY, days=0)[0], holds=Holds(dry=48), stays_on_leaf=True)
        found = self.finding(checked(soak, row("1 to 3 lb/M"), 2, LAWN, history=(leaf,)), "washes-off")
        self.assertIs(found.act, Weight.REFUSE)
        iron = replace(leaf, kind=Kind.IRON)
        found = self.finding(checked(soak, row("1 to 3 lb/M"), 2, LAWN, history=(iron,)), "washes-off")
        self.assertIs(found.act, Weight.WARN)

    def test_the_season_after_a_leap_day(self) -> None:
        self.assertEqual(str(next_season(datetime(2028, 2, 29).date())), "2029-02-28")

    def test_ground_that_people_are_kept_off_is_walked_in_gear(self) -> None:
        early = replace(past(SPRAY, days=0)[0], holds=Holds(walk=4))
        self.assertIs(self.finding(checked(THREE, row(LABEL), 0.6, GREEN, history=(early,)), "walked-on").act, Weight.WARN)


class Runs(Caught):
    """Two in a row of a group, by the label: by the day and the ground."""

    def run_of(self, *every: Applied) -> bool:
        return "in-a-row-label" in keys(held(tracts(), every))

    def test_pairs_on_one_day_do_not_break_each_others_runs(self) -> None:
        for partner in (THREE, MULTI):
            pairs = [at(p, days, whole()) for days in (30, 15) for p in (SEVEN, partner)]
            self.assertTrue(self.run_of(*pairs))

    def test_a_day_of_another_group_breaks_it_and_a_plan_of_one_does_not(self) -> None:
        twice = [at(SEVEN, 40, whole()), at(SEVEN, 30, whole())]
        self.assertTrue(self.run_of(*twice))
        self.assertFalse(self.run_of(*twice, at(MULTI, 15, whole())))
        self.assertTrue(self.run_of(*twice, at(MULTI, 15, whole(), standing=Standing.PLANNED)))

    def test_what_is_dated_after_counts_in_its_place(self) -> None:
        self.assertFalse(self.run_of(at(SEVEN, -20, whole())))
        self.assertTrue(self.run_of(at(SEVEN, 20, whole()), at(SEVEN, -20, whole())))

    def test_a_refusal_names_what_is_not_in_the_book_yet(self) -> None:
        every = [at(SEVEN, 40, whole()), at(SEVEN, 20, whole(), standing=Standing.UNDER_WAY)]
        found = self.finding(held(tracts(), every), "in-a-row-label")
        self.assertIn("Seven under way since 21 May", found.sentence)
