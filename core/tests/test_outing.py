"""An outing's order: against every order of small instances, and what the rules of labels make of a morning."""

import unittest
from collections.abc import Sequence
from dataclasses import replace
from itertools import combinations, pairwise, permutations, product
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from core.label.product import FORMULATIONS, Kind, Product
from core.label.rules import Leaf, Rules
from core.outing.between import Apart, Asked, asked
from core.outing.driving import minutes_between, shortest
from core.outing.gather import Want, gathered
from core.outing.jobs import Doing, Job, Leg, Span, Stop, apart, meet, spans_of
from core.outing.order import Morning, Order
from core.outing.sequence import sequence

REGULATOR = Product("Regulator", Kind.GROWTH_REGULATOR, FORMULATIONS["SC"], rules=Rules(rain_after=1, mow_after=2))
IRON = Product("Iron", Kind.IRON, FORMULATIONS["SL"], rules=Rules(rain_after=4, leaf=Leaf.DRY))
GRANULES = Product("Granules", Kind.FERTILISER, FORMULATIONS["GR"], rules=Rules(water_in_depth=6, water_in_delay=8))
SOIL = Product("Soil", Kind.FUNGICIDE, FORMULATIONS["SC"], rules=Rules(water_in_depth=6, water_in_delay=3, reentry=1))


def job(key: str, doing: Doing, *products: Product, on: str = "g", long: int = 30, **more: Any) -> Job:
    """A job on one ground after the other."""
    fit = more.pop("fit", None)
    return Job(key, doing, (Leg("home", tuple(Stop(g, long, fit) for g in on)),), products, **more)


def morning(*jobs: Job, begin: int = 360, end: int = 1200, **more: Any) -> Morning:
    return Morning(jobs, begin, end, more.pop("travel", {}), **more)


def clock(found: Order) -> dict[str, Span]:
    return {t.job: (t.begin, t.end) for t in found.legs}


class Mornings(unittest.TestCase):
    def test_granules_then_water_then_what_must_stay_dry(self) -> None:
        """By hand: granules 6:00, water 6:30 to 6:45, dry again 8:45; iron at once would keep the water off until 11:00."""
        jobs = (
            job("iron", Doing.SPRAY, IRON),
            job("granules", Doing.SPREAD, GRANULES),
            job("water", Doing.WATER, hands=False, serves=("granules",), long=15),
        )
        found = sequence(morning(*jobs))
        self.assertEqual(clock(found), {"granules": (360, 390), "water": (390, 405), "iron": (525, 555)})
        self.assertEqual((found.left, found.gave, found.end, found.proven), ((), (), 555, True))
        early = replace(jobs[0], legs=(Leg("home", (Stop("g", 30, ((360, 450),)),)),))
        self.assertEqual(
            clock(sequence(morning(early, *jobs[1:]))), {"granules": (360, 390), "iron": (390, 420), "water": (660, 675)}
        )

    def test_practice_gives_way_to_a_label(self) -> None:
        """The iron has only the first hour, and its four dry hours are too long for granules spread before it: they go last."""
        soon = replace(GRANULES, rules=replace(GRANULES.rules, water_in_delay=3))
        found = sequence(
            morning(
                job("iron", Doing.SPRAY, IRON, fit=((360, 395),)),
                job("granules", Doing.SPREAD, soon),
                job("water", Doing.WATER, hands=False, serves=("granules",), long=15),
            )
        )
        at = clock(found)
        self.assertEqual([r.key for r in found.gave], ["granules-first"])
        self.assertEqual(at["iron"], (360, 390))
        self.assertEqual(at["water"], (630, 645))
        self.assertGreaterEqual(at["granules"][1], at["water"][1] - 180)

    def test_the_mower_before_or_after(self) -> None:
        """Two hours without the mower after the regulator: mown first, it is over at 7:00; nothing asks for hours before it."""
        found = sequence(morning(job("regulator", Doing.SPRAY, REGULATOR), job("mow", Doing.MOW)))
        self.assertEqual(clock(found), {"mow": (360, 390), "regulator": (390, 420)})
        wants = replace(REGULATOR, rules=replace(REGULATOR.rules, mow_before=4))
        after = sequence(morning(job("regulator", Doing.SPRAY, wants), job("mow", Doing.MOW)))
        self.assertEqual(clock(after), {"regulator": (360, 390), "mow": (510, 540)})

    def test_people_come_back_when_the_label_lets_them(self) -> None:
        water = job("water", Doing.WATER, hands=False, serves=("soil",))
        found = sequence(morning(job("soil", Doing.SPRAY, SOIL), water, job("mow", Doing.MOW)))
        at = clock(found)
        self.assertEqual((at["mow"], at["soil"], at["water"]), ((360, 390), (390, 420), (420, 450)))
        two = sequence(morning(job("soil", Doing.SPRAY, SOIL), job("iron", Doing.SPRAY, IRON)))
        self.assertEqual(clock(two), {"iron": (360, 390), "soil": (390, 420)})

    def test_a_machine_is_cleaned_between_two_mixes(self) -> None:
        """Ready 10, spray 30, clean 20, then the next: 6:00 + 10 + 30 + 20 + 10 + 30 + 20 = 8:00."""
        more: dict[str, Any] = {"machine": "boom", "ready": 10, "clean": 20}
        found = sequence(morning(job("a", Doing.SPRAY, REGULATOR, **more), job("b", Doing.SPRAY, IRON, on="h", **more)))
        self.assertEqual(found.end, 480)
        both = sequence(morning(job("a", Doing.SPRAY, REGULATOR, **more), job("b", Doing.SPRAY, IRON, on="h", **more), people=2))
        self.assertEqual(both.end, 480)
        other = sequence(
            morning(
                job("a", Doing.SPRAY, REGULATOR, **more),
                job("b", Doing.SPRAY, IRON, on="h", **more | {"machine": "can"}),
                people=2,
            )
        )
        self.assertEqual(other.end, 420)

    def test_only_in_hours_that_are_fit(self) -> None:
        found = sequence(morning(job("iron", Doing.SPRAY, IRON, on="gh", fit=((400, 470),)), job("mow", Doing.MOW, on="gh")))
        self.assertEqual(clock(found)["iron"], (400, 460))
        self.assertEqual(clock(found)["mow"], (460, 520))
        never = sequence(morning(job("iron", Doing.SPRAY, IRON, on="gh", fit=((400, 450),)), job("mow", Doing.MOW)))
        self.assertEqual([(x.job, x.hours) for x in never.left], [("iron", True)])

    def test_two_that_contradict_are_named_with_the_rule(self) -> None:
        """The soil product wants water within three hours, and the iron shut the leaf for four; the day ends before that."""
        found = sequence(
            morning(
                job("iron", Doing.SPRAY, IRON, weight=3, fit=((360, 400),)),
                job("soil", Doing.SPRAY, SOIL, weight=1, fit=((360, 450),)),
                job("water", Doing.WATER, hands=False, serves=("soil",)),
                end=700,
            )
        )
        self.assertEqual(set(clock(found)), {"iron"})
        (left,) = found.left
        self.assertEqual((left.job, left.against), ("soil", "iron"))
        self.assertIn("4 h", left.rule.text if left.rule else "")

    def test_what_a_rule_keeps_apart_is_never_on_one_day(self) -> None:
        jobs = (job("a", Doing.SPRAY, REGULATOR, weight=1), job("b", Doing.SPRAY, IRON, weight=2))
        found = sequence(morning(*jobs, apart=(Apart("a", "b", "Not on one day."),)))
        self.assertEqual(set(clock(found)), {"b"})
        self.assertEqual((found.left[0].against, found.left[0].rule and found.left[0].rule.text), ("b", "Not on one day."))

    def test_a_mix_is_used_up_within_its_life(self) -> None:
        legs = tuple(Leg(f"yard {n}", (Stop(f"{n}", 40),)) for n in range(5))
        ways = {(f"yard {a}", f"yard {b}"): 20 for a in range(5) for b in range(5) if a != b}
        long = Job("iron", Doing.SPRAY, legs, (IRON,), ready=10, life=300)
        self.assertEqual(sequence(morning(long, travel=ways)).end, 360 + 10 + 5 * 40 + 4 * 20)
        short = sequence(morning(replace(long, life=270), travel=ways))
        self.assertEqual((len(short.legs), short.end), (4, 360 + 10 + 4 * 40 + 3 * 20))
        self.assertEqual([(x.life, x.hours) for x in short.left], [(True, False)], "the fifth yard is left, for the mix's life")

    def test_where_not_all_can_be_done_as_much_is_done_as_can_be(self) -> None:
        """One of three yards has no fit hour, and one lawn of another has its own: the rest goes, each leg in its hours."""
        legs = (
            Leg("a", (Stop("a1", 30),)),
            Leg("b", (Stop("b1", 30, ()),)),
            *apart(Leg("c", (Stop("c1", 30, ((360, 700),)), Stop("c2", 30, ((800, 900),)))), 1200),
        )
        found = sequence(morning(Job("iron", Doing.SPRAY, legs, (IRON,))))
        self.assertEqual([(legs[t.leg].stops[0].ground, t.begin) for t in found.legs][-1], ("c2", 800))
        self.assertEqual([(x.leg, x.hours) for x in found.left], [(1, True)])
        self.assertEqual([t.leg for t in found.legs if t.leg == 1], [])

    def test_sites_are_driven_to_in_turn(self) -> None:
        """Two jobs in two yards half an hour apart: one drive, not three. 4 × 30 + 30."""
        ways = {("a", "b"): 30, ("b", "a"): 30}
        jobs = [
            Job(key, doing, (Leg("a", (Stop("a1", 30),)), Leg("b", (Stop("b1", 30),))), (made,))
            for key, doing, made in (("granules", Doing.SPREAD, GRANULES), ("regulator", Doing.SPRAY, REGULATOR))
        ]
        found = sequence(morning(*jobs, travel=ways))
        self.assertEqual(found.end, 360 + 150)
        self.assertIn([t.leg for t in found.legs], ([0, 0, 1, 1], [1, 1, 0, 0]))
        self.assertEqual([t.job for t in found.legs], ["granules", "regulator"] * 2)

    def test_hours_are_spans(self) -> None:
        self.assertEqual(spans_of([True, True, False, True], 360), ((360, 480), (540, 600)))
        self.assertEqual(meet([(0, 10), (20, 30)], [(5, 25)]), [(5, 10), (20, 25)])
        self.assertEqual(Leg("s", (Stop("g", 10, ((0, 30),)), Stop("h", 10, ((15, 40),)))).begins(100), ((5, 21),))


def kept(m: Morning, begins: dict[str, int], rules: list[Asked]) -> bool:
    """Whether jobs of one stop each keep every rule at some times."""
    stops = {j.key: j.legs[0].stops[0] for j in m.jobs if j.key in begins}
    ends = {k: begins[k] + stops[k].minutes for k in stops}
    for k, s in stops.items():
        if begins[k] < m.begin or ends[k] > m.end:
            return False
        if s.fit is not None and not any(a <= begins[k] and ends[k] <= b for a, b in s.fit):
            return False
    for a, b in combinations(stops, 2):
        apart = ends[a] <= begins[b] or ends[b] <= begins[a]
        if not apart:
            return False
    meet = [r for r in rules if r.first in stops and r.second in stops and not r.practice]
    follow = [r for r in meet if stops[r.first].ground == stops[r.second].ground and ends[r.first] <= begins[r.second]]
    for r in follow:
        if r.never or begins[r.second] - ends[r.first] < r.least:
            return False
        if r.most is not None and ends[r.second] - ends[r.first] > r.most:
            return False
    return True


class Everything(unittest.TestCase):
    """Against every time of every job, on instances small enough for that; minutes stand for quarters of an hour."""

    @settings(max_examples=40, deadline=None)
    @given(st.data())
    def test_no_order_does_more_or_ends_earlier(self, data: Any) -> None:
        draw = data.draw
        names, end = "abc", 9
        made = [
            Product(n, Kind.IRON, FORMULATIONS["SL"], rules=Rules(reentry=draw(st.sampled_from([None, 1 / 60, 2 / 60]))))
            for n in names
        ]
        jobs = tuple(
            Job(
                n,
                Doing.SPRAY,
                (
                    Leg(
                        "home",
                        (
                            Stop(
                                draw(st.sampled_from("gh")),
                                draw(st.integers(1, 3)),
                                draw(st.sampled_from([None, ((0, 5),), ((1, 3), (5, 9)), ((4, 9),)])),
                            ),
                        ),
                    ),
                ),
                (p,),
                weight=float(draw(st.integers(1, 3))),
            )
            for n, p in zip(names, made, strict=True)
        )
        apart = (Apart("a", "b", "Apart."),) if draw(st.booleans()) else ()
        same = jobs[0].grounds == jobs[1].grounds
        m = Morning(jobs, 0, end, {}, apart=apart)
        rules = asked(jobs, apart)
        best = (-1.0, 0)
        for picked in product(*[[None, *range(end)] for _ in jobs]):
            begins = {j.key: b for j, b in zip(jobs, picked, strict=True) if b is not None}
            if apart and same and {"a", "b"} <= set(begins):
                continue
            if kept(m, begins, rules):
                over = max((b + next(j for j in jobs if j.key == k).legs[0].minutes for k, b in begins.items()), default=0)
                best = max(best, (sum(j.weight for j in jobs if j.key in begins), -over))
        found = sequence(m)
        at = {t.job: t.begin for t in found.legs}
        self.assertTrue(kept(m, at, rules))
        self.assertEqual((sum(j.weight for j in jobs if j.key in at), -found.end), best)
        self.assertEqual({x.job for x in found.left} | set(at), set(names))

    def test_what_does_not_depend_changes_nothing_but_times(self) -> None:
        jobs = (job("a", Doing.SPRAY, IRON, on="g"), job("b", Doing.SPREAD, GRANULES, on="h"), job("c", Doing.MOW, on="i"))
        one, other = sequence(morning(*jobs)), sequence(morning(*reversed(jobs)))
        self.assertEqual((one.end, len(one.legs), one.left), (other.end, len(other.legs), other.left))
        self.assertEqual(sequence(morning(*jobs)), one)


class Gathering(unittest.TestCase):
    def test_the_same_mix_from_the_same_machine_is_one_job(self) -> None:
        def want(key: str, ground: str, mix: str, **more: Any) -> Want:
            return Want(key, ground, more.pop("site", "club"), (mix,), Doing.SPRAY, "boom", **more)

        found = gathered(
            [
                want("spot on 1", "1", "P", rate=2.0, turn=2),
                want("patch on 1", "1", "P", rate=3.0, weight=3.0, turn=2),
                want("spot on 2", "2", "P", rate=2.0, turn=1),
                want("growth on 2", "2", "R", weight=0.5),
                want("spot on 3", "3", "P", rate=2.0, site="yard"),
            ]
        )
        self.assertEqual([[w.key for w in g.wants] for g in found], [["spot on 2", "patch on 1", "spot on 3"], ["growth on 2"]])
        self.assertEqual([w.key for w in found[0].of("1")], ["patch on 1", "spot on 1"])
        self.assertEqual(found[0].weight, 5)
        self.assertEqual(gathered([]), [])

    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.sampled_from("123"), st.sampled_from("PQ"), st.integers(1, 3)), max_size=12))
    def test_nothing_is_lost_and_no_ground_is_in_a_job_twice(self, every: list[tuple[str, str, int]]) -> None:
        wants = [Want(f"{n}", g, "s", (p,), Doing.SPRAY, rate=r) for n, (g, p, r) in enumerate(every)]
        found = gathered(wants)
        self.assertEqual(sorted(w.key for g in found for w in (*g.wants, *g.along)), sorted(w.key for w in wants))
        for g in found:
            grounds = [w.ground for w in g.wants]
            self.assertEqual(len(grounds), len(set(grounds)))
            self.assertTrue(all(w.rate >= x.rate for w in g.wants for x in g.along if x.ground == w.ground))


class Driving(unittest.TestCase):
    def test_minutes_between_two_places(self) -> None:
        """A tenth of a degree along a meridian at 41° is 11.106 km (Karney's geodesic): × 1.3 at 35 km/h, and 4 min more."""
        self.assertEqual(minutes_between((41.0, -72.6), (41.1, -72.6)), 4 + 25)
        self.assertEqual(minutes_between((41.0, -72.6), (41.0, -72.6)), 4)

    @settings(max_examples=30, deadline=None)
    @given(st.integers(3, 6), st.randoms(use_true_random=False))
    def test_the_shortest_way_is_the_shortest_of_all(self, count: int, dice: Any) -> None:
        """Against every order of few sites."""
        sites = [f"{n}" for n in range(count)]
        ways = {(a, b): dice.randint(1, 60) for a in sites for b in sites if a != b}
        found = shortest(sites, ways)
        self.assertEqual(sorted(found), sites)

        def long(order: Sequence[str]) -> int:
            return sum(ways[a, b] for a, b in pairwise(order))

        self.assertEqual(long(found), min(long(o) for o in permutations(sites)))

    def test_legs_are_turned_where_that_ends_earlier(self) -> None:
        """The middle one has its fit hour last: the way is turned for it, and its legs are told in the order done."""
        ways = {(a, b): abs(int(a) - int(b)) * 10 for a in "012" for b in "012" if a != b}
        legs = tuple(Leg(s, (Stop(f"g{s}", 10, ((600, 700),) if s == "1" else None),)) for s in "012")
        found = sequence(morning(Job("a", Doing.SPRAY, legs, ready=5, clean=5), travel=ways, begin=560))
        self.assertEqual([t.leg for t in found.legs][-1], 1)
        self.assertEqual(found.legs[0].ready, found.legs[0].begin - 5)
        self.assertEqual(found.legs[-1].cleaned, found.legs[-1].end + 5)

    def test_by_hand_and_by_whom(self) -> None:
        """Two jobs on two grounds: either first, as it was put; two people each do one at once."""
        jobs = (job("a", Doing.SPRAY, on="g"), job("b", Doing.SPRAY, on="h"))
        for order in (("a", "b"), ("b", "a")):
            found = sequence(morning(*jobs, order=order))
            self.assertEqual(tuple(t.job for t in found.legs), order)
        both = sequence(morning(*jobs, people=2))
        self.assertEqual((both.end, {t.who for t in both.legs}), (390, {0, 1}))

    def test_an_order_by_hand_that_a_rule_forbids_names_both(self) -> None:
        """The iron must stay dry for four hours and the soil product wants water within three: iron first is none."""
        jobs = (
            job("iron", Doing.SPRAY, IRON, weight=2),
            job("soil", Doing.SPRAY, SOIL),
            job("water", Doing.WATER, hands=False, serves=("soil",), long=15),
        )
        self.assertEqual(sequence(morning(*jobs, end=600)).left, ())
        (left,) = sequence(morning(*jobs, end=600, order=("iron", "soil"))).left
        self.assertEqual((left.job, left.against, left.placed), ("soil", "iron", True))
