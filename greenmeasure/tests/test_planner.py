"""The plan that is made: within every rule of the gate, with its reasons, taken into steps, and made anew round what is kept."""

import json
from datetime import date, datetime, timedelta
from itertools import pairwise
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from greenmeasure.programme.models import Step
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import FEED, ApiTest
from greenmeasure.tests.planned import SHELF, make_shelf, make_station

NOW = datetime(2026, 3, 20, 10, 20, tzinfo=ZoneInfo("America/New_York"))
TUESDAY = 1


class PlannerTest(ApiTest):
    """On 20 March 2026, with 400 days of made-up weather before it, two fungicides and a fertiliser on the shelf."""

    weather = True

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)
        self.spray.delete()
        make_shelf(self.account)
        price = {"packages": [{"value": 50, "unit": "lb", "price": "40.00"}]}
        rates = {"rates": [{"phrase": "0.3 to 0.6 lb N per 1,000 sq ft", "interval_low": 28}]}
        self.ask("PUT", f"products/{self.feed.pk}", FEED | price | rates)

    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        if cls.weather:
            make_station(cls.account, cls.area.site, NOW)

    def events(self, expect: int = 200, **ask: Any) -> list[dict[str, Any]]:
        """The lines of a plan's answer."""
        body = {"year": 2026} | ask
        path = f"/api/accounts/{self.account.slug}/plans/make"
        answer: Any = self.client.post(path, json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, expect, getattr(answer, "content", ""))
        if expect != 200:
            return [json.loads(answer.content)]
        return [json.loads(line) for line in b"".join(answer.streaming_content).splitlines()]

    def plan(self, **ask: Any) -> dict[str, Any]:
        every = self.events(**ask)
        self.assertEqual([e["error"] for e in every if "error" in e], [])
        found: dict[str, Any] = next(e["plan"] for e in every if "plan" in e)
        return found

    def take(self, plan: dict[str, Any], expect: int = 201, **ask: Any) -> Any:
        return self.ask("POST", "plans/take", {"ask": {"year": 2026} | ask, "choices": plan["choices"]}, expect)

    def days(self, plan: dict[str, Any], product: str) -> list[date]:
        wanted = Product.objects.get(name=product).pk
        return sorted(date.fromisoformat(c["on"]) for c in plan["choices"] if c["product_id"] == wanted)


class Made(PlannerTest):
    def test_it_keeps_every_rule_of_the_labels(self) -> None:
        """Least intervals of 14 and 28 days; 4 and 3 a season; 7 days apart; no group three times in a row; on Tuesdays."""
        found = self.plan()
        alpha, beta = self.days(found, "Alpha SC"), self.days(found, "Beta SC")
        feed = self.days(found, "Test 20-0-10")
        self.assertTrue(alpha and beta and feed)
        self.assertLessEqual(len(alpha), 4)
        self.assertLessEqual(len(beta), 3)
        for mine, least in ((alpha, 14), (beta, 14), (feed, 28)):
            self.assertTrue(all((b - a).days >= least for a, b in pairwise(mine)), mine)
        self.assertTrue(all(abs((a - b).days) >= 7 for a in alpha for b in beta))
        order = [name for _, name in sorted([(d, "a") for d in alpha] + [(d, "b") for d in beta])]
        self.assertNotIn("aaa", "".join(order))
        self.assertNotIn("bbb", "".join(order))
        self.assertEqual({d.weekday() for d in (*alpha, *beta, *feed)}, {TUESDAY})
        self.assertIn("No plan within the rules costs less", found["proof"])
        self.assertEqual(found["contradictions"], [])

    def test_it_tells_how_far_it_is_then_the_plan_then_how_it_fares(self) -> None:
        every = self.events()
        shares = [e["progress"]["share"] for e in every if "progress" in e]
        self.assertEqual(shares, sorted(shares))
        kinds = [next(iter(e)) for e in every if "progress" not in e]
        self.assertEqual(kinds, ["plan", "exam"])
        exam = {r["key"]: r for r in every[-1]["exam"]}
        self.assertEqual(set(exam), {"plan", "calendar", "none", "threshold"})
        self.assertLess(exam["plan"]["middle"], exam["none"]["middle"])
        for row in exam.values():
            self.assertTrue(row["low"] <= row["middle"] <= row["high"])

    def test_each_choice_says_why_this_why_then_and_why_not_that(self) -> None:
        found = self.plan(feed=False)
        choices = [c for o in found["outings"] for c in o["choices"]]
        self.assertTrue(all("Covers" in c["why"] and "Leaving it out loses" in c["why"] for c in choices))
        told = [o["text"] for c in choices for o in c["others"]]
        self.assertTrue(any("USD more" in x for x in told), told)
        self.assertTrue(any(x.startswith("against ") for x in told), told)
        self.assertEqual(found["sentence"].split(" ")[0], str(len(choices)))

    def test_other_schools_stand_beside_it_and_none_of_them_is_cheaper_with_its_risk(self) -> None:
        found = self.plan()
        rivals = {r["key"]: r for r in found["rivals"]}
        self.assertEqual(set(rivals), {"plan", "greedy", "calendar", "threshold", "none"})
        self.assertEqual(rivals["none"]["applications"], 0)
        self.assertLess(rivals["plan"]["bare_share"], rivals["none"]["bare_share"])

    def test_less_product_where_that_is_wished(self) -> None:
        """What acts, by weight, is never more than in the cheapest plan."""
        cheap, little = self.plan(feed=False), self.plan(feed=False, wish="product")
        weight = [float(next(r for r in p["rivals"] if r["key"] == "plan")["product"].split()[0]) for p in (cheap, little)]
        self.assertLessEqual(weight[1], weight[0])
        self.assertIn("kg", little["sentence"])

    def test_days_off_hours_and_weekdays_are_kept_to(self) -> None:
        off = [{"begin": "2026-06-01", "end": "2026-07-31"}]
        found = self.plan(off=off, weekdays=[0, 3])
        days = {date.fromisoformat(c["on"]) for c in found["choices"]}
        self.assertTrue(days)
        self.assertTrue(all(d.weekday() in (0, 3) and d.month not in (6, 7) for d in days))
        for outing in self.plan(hours="0.9")["outings"]:
            self.assertEqual(len({c["area_id"] for c in outing["choices"]}), 1)

    def test_the_shelf_is_enough_where_nothing_may_be_bought(self) -> None:
        """None in stock, then some: more stock never costs more, risk counted, and no more is planned than there is."""
        self.assertEqual(self.plan(buy=False, feed=False)["choices"], [])
        alpha = Product.objects.get(name="Alpha SC")
        lot = {"number": "A1", "left": {"value": 6, "unit": "fl_oz"}}
        self.ask("POST", f"products/{alpha.pk}/lots", lot, 201)
        found = self.plan(buy=False, feed=False)
        self.assertEqual({c["product_id"] for c in found["choices"]}, {alpha.pk})
        amounts = [c["amount"] for o in found["outings"] for c in o["choices"]]
        self.assertLessEqual(sum(float(a.split()[0]) for a in amounts), 6.0)

    def test_a_closed_season_is_kept_out_of(self) -> None:
        """Nitrogen closed from 1 June to 31 August: a rule of the site that refuses."""
        site = self.area.site
        site.closed = [{"what": "N", "start": [6, 1], "end": [8, 31], "why": "County"}]
        site.save()
        self.account.touch("ground", "sky")
        self.account.touch()
        days = self.days(self.plan(protect=False), "Test 20-0-10")
        self.assertTrue(days)
        self.assertFalse([d for d in days if d.month in (6, 7, 8)])

    def test_what_cannot_be_covered_says_what_would_have_to_give(self) -> None:
        """Where nobody goes out but in August, the people; where an application must cover thirty risk days, what it costs."""
        off = [{"begin": "2026-03-21", "end": "2026-07-31"}, {"begin": "2026-09-01", "end": "2026-12-31"}]
        found = self.plan(off=off, feed=False)
        told = [b["why"] for b in found["bare"] if b["why"]]
        self.assertIn("Nobody goes out on a day that would cover them.", told)
        dear = [b["why"] for b in self.plan(feed=False, risk_days="30")["bare"]]
        self.assertTrue(any("worth less than it costs" in w for w in dear), dear)

    def test_what_the_model_does_not_know_the_gate_keeps_out(self) -> None:
        """A label keeps the two apart by 40 days, cover lasts 21: a plan made without knowing it passes the gate all the same."""
        beta = Product.objects.get(name="Beta SC")
        beta.rules["incompatible"][0]["days"] = 40
        beta.save()
        self.account.touch("shelf")
        with patch("greenmeasure.planner.facts.apart_days", return_value=0):
            found = self.plan(feed=False)
        one, other = self.days(found, "Alpha SC"), self.days(found, "Beta SC")
        self.assertTrue(one or other)
        self.assertTrue(all(abs((a - b).days) >= 40 for a in one for b in other), (one, other))
        self.take(found, feed=False)

    def test_nobody_listening_ends_it(self) -> None:
        from greenmeasure.planner.facts import ask_in
        from greenmeasure.planner.making import made
        from greenmeasure.planner.schemas import PlanAskIn

        making = made(self.account, ask_in(self.account, PlanAskIn(year=2026)))
        next(making)
        making.close()
        self.assertEqual(list(making), [])


class Faults(PlannerTest):
    weather = False

    def test_each_field_at_fault_is_named(self) -> None:
        for ask, field in (
            ({"year": 2025}, "year"),
            ({"year": 2028}, "year"),
            ({"weekdays": []}, "weekdays"),
            ({"protect": False, "feed": False}, "protect"),
            ({"risk_days": "0"}, "risk_days"),
            ({"risk_days": "soon"}, "risk_days"),
            ({"hours": "30"}, "hours"),
            ({"outing": "-3"}, "outing"),
            ({"labour": "much"}, "labour"),
            ({"area_ids": [999_999]}, "area_ids.0"),
            ({"off": [{"begin": "2026-06-02", "end": "2026-06-01"}]}, "off.0.end"),
        ):
            told = self.events(422, **ask)[0]
            self.assertIn(field, [f["field"] for f in told["fields"]], ask)

    def test_without_weather_it_feeds_alone_and_says_what_it_needs(self) -> None:
        found = self.plan()
        self.assertTrue(any("has no weather" in n for n in found["notes"]), found["notes"])
        self.assertTrue(any("No weather tells" in n for n in found["notes"]))
        self.assertEqual({c["product_id"] for c in found["choices"]}, {self.feed.pk})

    def test_what_has_no_price_is_not_weighed_by_cost(self) -> None:
        bare = SHELF[0] | {"name": "Gamma SC", "packages": []}
        save_product(self.account, ProductIn(**bare))
        make_station(self.account, self.area.site, NOW)
        found = self.plan(feed=False)
        self.assertTrue(any(n.startswith("Gamma SC has no price") for n in found["notes"]))


class Taken(PlannerTest):
    def test_a_plan_becomes_steps_that_stand_against_no_rule(self) -> None:
        plan = self.plan()
        told = self.take(plan)
        turns = [t for a in told["areas"] for t in a["turns"]]
        self.assertEqual(len(turns), len(plan["choices"]))
        self.assertEqual([t["refused"] for t in turns if t["refused"]], [])
        self.assertEqual(set(Step.objects.values_list("made", flat=True)), {True})
        self.assertEqual(self.plan()["change"], "Nothing changes against the plan that stands.")
        self.take(self.plan())
        self.assertEqual(Step.objects.count(), len(plan["choices"]))  # it takes the place of the first

    def test_what_was_moved_by_hand_is_kept_unless_released(self) -> None:
        plan = self.plan(feed=False)
        self.take(plan, feed=False)
        step = Step.objects.order_by("pk")[1]
        where = {"step_id": step.pk, "area_id": self.area.pk, "number": 0}
        begin = date.fromisoformat(step.when["begin"])
        free = begin + timedelta(days=1)
        self.ask("POST", "programme/turns", where | {"on": str(free), "why": "A match"})
        again = self.plan(feed=False)
        self.assertNotIn(str(free), [c["on"] for c in again["choices"]])
        self.take(again, feed=False)
        self.assertTrue(Step.objects.filter(pk=step.pk).exists())
        released = self.plan(feed=False, release=True)
        self.assertIn("Against the plan that stands", released["change"])
        self.take(released, feed=False, release=True)
        self.assertFalse(Step.objects.filter(pk=step.pk).exists())

    def test_what_is_done_is_fixed_and_what_comes_is_planned_round_it(self) -> None:
        """A spray put down a day early: the next of it comes a label's interval later, and it is planned no more."""
        self.take(self.plan(feed=False), feed=False)
        alpha = Product.objects.get(name="Alpha SC")
        row = alpha.rates.get()
        on = NOW.date() - timedelta(days=2)
        job = {
            "mix": [{"product_id": alpha.pk, "target": "Dollar spot"}],
            "machine_id": self.sprayer.pk,
            "parts": [{"area_id": self.area.pk, "doses": [{"row_id": row.pk, "rate": {"value": "0.4", "unit": "fl_oz/kft2"}}]}],
            "on": str(on),
            "clock": "07:30",
        }
        used = {"used": [{"amount": {"value": "2.8", "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        again = self.plan(feed=False)
        self.assertTrue(all((d - on).days >= 14 for d in self.days(again, "Alpha SC")))
        self.assertLessEqual(len(self.days(again, "Alpha SC")), 3)  # of four a season

    def test_a_choice_that_the_gate_refuses_by_now_keeps_nothing(self) -> None:
        plan = self.plan(feed=False)
        alpha = Product.objects.get(name="Alpha SC")
        first = self.days(plan, "Alpha SC")[0]
        step: dict[str, Any] = {"name": "By hand", "when": {"timing": "dated", "begin": str(first - timedelta(days=3))}}
        step |= {"products": [{"product_id": alpha.pk, "target": "Dollar spot"}], "area_ids": [self.area.pk]}
        self.ask("POST", "programme/steps", step, 201)
        told = self.take(plan, 422, feed=False)
        self.assertIn("may not go down", told["message"])
        self.assertEqual(Step.objects.count(), 1)
        again = self.plan(feed=False)  # round the step that was set by hand
        self.assertTrue(all(abs((d - (first - timedelta(days=3))).days) >= 14 for d in self.days(again, "Alpha SC")))

    def test_steps_that_contradict_each_other_are_named_both(self) -> None:
        alpha = Product.objects.get(name="Alpha SC")
        for name, on in (("One", "2026-06-02"), ("Other", "2026-06-05")):
            step: dict[str, Any] = {"name": name, "when": {"timing": "dated", "begin": on}}
            step |= {"products": [{"product_id": alpha.pk, "target": "Dollar spot"}], "area_ids": [self.area.pk]}
            self.ask("POST", "programme/steps", step, 201)
        told = self.plan(feed=False)["contradictions"]
        self.assertEqual(len(told), 2)
        self.assertIn("One on North green, 2 June", told[0])
        self.assertIn("5 June", told[0])

    def test_a_step_that_somebody_changed_is_theirs(self) -> None:
        self.take(self.plan(feed=False), feed=False)
        step = Step.objects.order_by("pk")[0]
        told = next(s for s in self.ask("GET", "programme")["steps"] if s["id"] == step.pk)
        body: dict[str, Any] = {k: told[k] for k in ("version", "name", "area_ids", "why")}
        body["products"] = [{"product_id": p["product_id"], "target": p["target"]} for p in told["products"]]
        self.ask("PUT", f"programme/steps/{step.pk}", body | {"when": {"timing": "dated", "begin": told["when"]["begin"]}})
        self.assertFalse(Step.objects.get(pk=step.pk).made)
        self.take(self.plan(feed=False), feed=False)
        self.assertTrue(Step.objects.filter(pk=step.pk).exists())

    def test_who_may_only_look_makes_plans_and_takes_none(self) -> None:
        plan = self.plan(feed=False)
        self.sign_in("viewer")
        self.assertTrue(self.plan(feed=False)["choices"])
        self.take(plan, 403, feed=False)
