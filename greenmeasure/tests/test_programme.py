"""The season's programme: steps, their turns against the book and the gate, moved and skipped, outlines, a copied year."""

from datetime import date, datetime
from itertools import pairwise
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from greenmeasure.programme.models import Step, StepTurn
from greenmeasure.sky.watching import all_watched, spells_of
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE, ApiTest
from greenmeasure.tests.planned import make_station

NOW = datetime(2026, 5, 20, 10, 20, tzinfo=ZoneInfo("America/New_York"))


SNOW = {"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "target": "Snow mould"}


class ProgrammeTest(ApiTest):
    """On 20 May 2026."""

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)

    def step(self, expect: int = 201, rate: float | None = 0.5, **more: Any) -> dict[str, Any]:
        when = {"timing": "every", "begin": "2026-05-01", "end": "2026-09-30", "every": "28"} | more.pop("when", {})
        product: dict[str, Any] = {"product_id": self.feed.pk}
        if rate:
            product["rate"] = {"value": rate, "unit": "lb/kft2:N"}
        body = {"name": "Feed", "when": when, "products": [product], "area_ids": [self.area.pk], "why": "Little and often."}
        made: dict[str, Any] = self.ask("POST", "programme/steps", body | more, expect)
        return made

    def fed(self, on: str) -> None:
        job = self.feed_job(on=on, clock="07:30")
        used = {"used": [{"amount": {"value": "10", "unit": "lb"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)

    def turns(self, year: int = 2026) -> list[dict[str, Any]]:
        return [t for a in self.ask("GET", f"programme?year={year}")["areas"] for t in a["turns"]]


def made_in(made: dict[str, Any]) -> dict[str, Any]:
    """A step as it was told, as its form sends it again."""
    products = [{"product_id": p["product_id"], "target": p["target"]} for p in made["products"]]
    when = made["when"] | {"every": str(made["when"]["every"])}
    return {"name": made["name"], "when": when, "products": products, "area_ids": made["area_ids"], "version": made["version"]}


class Steps(ProgrammeTest):
    def test_a_snow_mould_spray_needs_no_station_and_follows_one(self) -> None:
        """15 November is the outline's; with weather the day is that of the year before, which is in November or near it."""
        self.ask("POST", "products", FUNGICIDE | {"name": "Snow SC", "rates": [SNOW]}, 201)
        self.ask("POST", "programme/outlines", {"key": "snow_late", "year": 2026}, 201)
        (turn,) = self.turns()
        self.assertEqual((turn["begin"], turn["stand"]), ("2026-11-15", "later"))
        self.assertIn("no weather is known", turn["why"])
        (step,) = self.ask("GET", "programme")["steps"]
        self.assertEqual((step["when"]["cold"], step["when"]["timing"]), ({"value": "42.8", "unit": "degF"}, "cold"))
        make_station(self.account, self.area.site, NOW, 520)
        self.account.touch()
        (turn,) = self.turns()
        self.assertIn("falls under 43 °F, about", turn["why"])
        self.assertIn("By the calendar it would be 15 November.", turn["why"])
        self.assertTrue("2026-10-18" <= turn["begin"] <= "2026-12-10", turn["begin"])

    def test_the_money_of_a_year_against_what_is_allowed(self) -> None:
        """Ten pounds at 2 USD a pound are spent; five feedings of 0.5 lb of N, 2.5 lb of the product, are to come; by hand."""
        self.ask("PUT", f"products/{self.feed.pk}", FEED | {"packages": [{"value": 50, "unit": "lb", "price": "100.00"}]})
        self.step()
        self.fed("2026-05-06")
        total = self.ask("GET", "programme")["money"]["total"]
        self.assertEqual(total["text"], "20.00 USD spent, 175.00 to come")  # 2.5 lb × 7 × 2 USD × 5
        told = self.ask("POST", "programme/money", {"year": 2026, "amount": "$1,200"})["money"]
        self.assertEqual((told["allowed"], told["currency"]), ("1200.00", "USD"))
        self.assertIn("1,200.00 allowed, 1,005.00 left", told["total"]["text"])
        told = self.ask("POST", "programme/money", {"year": 2026, "amount": "150"})["money"]
        self.assertIn("45.00 more than allowed", told["total"]["text"])
        self.assertEqual(set(self.faults("POST", "programme/money", {"year": 2026, "amount": "much"})), {"amount"})
        self.assertEqual(self.ask("GET", "programme?year=2027")["money"], {"allowed": "", "currency": "USD", "total": None})
        self.assertEqual(self.ask("POST", "programme/money", {"year": 2026})["money"]["allowed"], "")

    def test_a_turn_is_a_job_on_every_area_that_may_have_it(self) -> None:
        """Three areas have the turn open; one was sprayed 12 days ago, within the least interval of 14 of the label."""
        rates = [{"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "interval_low": 14, "interval_high": 28}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rates})
        south, west = (self.ask("POST", "areas", AREA | {"name": n}, 201)["id"] for n in ("South green", "West green"))
        mix = [{"product_id": self.spray.pk, "rate": {"value": 0.5, "unit": "fl_oz/kft2"}}]
        dated = {"timing": "dated", "begin": "2026-05-20"}
        made = self.step(area_ids=[self.area.pk, south, west], when=dated, products=mix)
        job = self.job(on="2026-05-08", clock="07:30", area_id=west)
        used = {"used": [{"amount": {"value": "4.2", "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        told = self.ask("GET", f"programme/steps/{made['id']}/job?area_id={self.area.pk}&number=0")
        self.assertEqual([p["area_id"] for p in told["job"]["parts"]], [self.area.pk, south])
        self.assertIn("West green is left out: ", told["notes"][0])
        self.assertIn("the label's least interval is 14", told["notes"][0])
        self.assertEqual(told["job"]["machine_id"], self.sprayer.pk)
        dose = told["job"]["parts"][0]["doses"][0]
        self.assertEqual((dose["rate"], dose["row_id"]), ({"value": "0.5", "unit": "fl_oz/kft2"}, self.spray.rates.get().pk))
        # 0.5 fl oz a 1000 ft² are 3.5 fl oz on each 7,000 ft².
        said = self.ask("POST", "reckon/job", told["job"])
        self.assertEqual([p["doses"][0]["amount"] for p in said["parts"]], ["3.5 fl oz", "3.5 fl oz"])
        self.ask("GET", f"programme/steps/{made['id']}/job?area_id={self.area.pk}&number=9", expect=422)
        bare = self.step(rate=None, products=[], area_ids=[self.area.pk])
        self.ask("GET", f"programme/steps/{bare['id']}/job?area_id={self.area.pk}&number=0", expect=409)

    def test_a_step_at_a_diseases_threshold_goes_by_the_watch_of_the_ground(self) -> None:
        """Its turns are days on which the watch of the area is at risk, so many days apart (a property)."""
        when = {"timing": "threshold", "begin": "2026-03-01", "end": "2026-11-30", "every": "21", "disease": "dollar_spot"}
        spray = [{"product_id": self.spray.pk, "target": "dollar_spot"}]
        made = self.step(when=when, products=spray)
        self.assertIn("dollar spot passes its threshold, 21 days apart at the least", made["when_text"])
        (waits,) = self.turns()
        self.assertEqual((waits["stand"], waits["begin"]), ("waiting", None))
        made = self.ask("PUT", f"programme/steps/{made['id']}", made_in(made))
        make_station(self.account, self.area.site, NOW.replace(month=9), 400)
        self.account.touch()
        with patch("greenmeasure.common.clock.now", return_value=NOW.replace(month=9)):
            begins = [date.fromisoformat(t["begin"]) for t in self.turns() if t["begin"]]
        self.assertGreater(len(begins), 2)
        self.assertTrue(all((b - a).days >= 21 for a, b in pairwise(begins)), begins)
        (watch,) = (w for w in all_watched(self.account)[self.area.pk] if w.disease == "dollar_spot")
        spell = spells_of(self.account, self.area.site_id)[watch.model.key, watch.threshold.value]
        self.assertTrue(all(spell.risky[(on - spell.first).days] == 1 for on in begins))
        self.assertEqual(set(self.faults("POST", "programme/steps", self.body(when | {"disease": ""}))), {"when.disease"})
        self.assertEqual(set(self.faults("POST", "programme/steps", self.body(when | {"disease": "hay"}))), {"when.disease"})

    def body(self, when: dict[str, Any]) -> dict[str, Any]:
        return {"name": "Spray", "when": when, "area_ids": [self.area.pk]}

    def test_an_empty_year_says_how_to_begin(self) -> None:
        found = self.ask("GET", "programme")
        self.assertIn("Start from an outline", found["sentence"])
        self.assertEqual((found["year"], found["areas"], found["steps"]), (2026, [], []))

    def test_a_year_says_how_often_one_is_out_and_what_labels_allow(self) -> None:
        """Six turns, one of them done; the label allows four a season."""
        rules = {"rules": {"applications_per_season": 4}}
        self.ask("PUT", f"products/{self.feed.pk}", FEED | rules)
        self.step()
        self.fed("2026-05-06")
        area = self.ask("GET", "programme")["areas"][0]
        self.assertEqual(area["outings"], "1 day out so far and 5 days to come")
        told = {x["name"]: x["text"] for x in area["totals"]}
        self.assertEqual(told["Test 20-0-10"], "1 done, 5 to come; 4 a season allowed; that is more than its label allows")

    def test_a_step_gives_turns_that_stand_against_the_book(self) -> None:
        """The rate is the one that was typed."""
        made = self.step()
        self.assertEqual(made["mix"], "Test 20-0-10, 0.5 lb N/1000 ft²")
        self.assertEqual(made["when_text"], "Every 28 days from 1 May to 30 September")
        found = self.ask("GET", "programme")
        self.assertEqual(found["sentence"], "2026: 1 step on 1 area; 1 late. Feed on North green comes first.")
        stands = [t["stand"] for t in found["areas"][0]["turns"]]
        self.assertEqual(stands, ["late", "coming", "later", "later", "later", "later"])
        self.fed("2026-05-06")
        first = self.turns()[0]
        self.assertEqual((first["stand"], first["day"]), ("done", "on 6 May"))
        self.assertNotIn("late", [t["stand"] for t in self.turns()])

    def test_the_year_brings_and_costs(self) -> None:
        """Six turns of 0.5 lb N/1000 ft² are 3 lb; of a 20 % product on 7,000 ft² 17.5 lb each."""
        self.step()
        year = self.ask("GET", "programme")["areas"][0]
        nitrogen = year["totals"][0]
        self.assertEqual((nitrogen["name"], nitrogen["text"]), ("Nitrogen", "0 done, 3 lb/1000 ft² to come; usual 2 to 5"))
        needs = self.ask("GET", "stores")
        feed = next(x for x in needs["lines"] if x["product"] == "Test 20-0-10")
        self.assertEqual(feed["planned"], "87.5 lb")  # what is over is no plan any more: five of the six

    def test_a_planned_feeding_counts_in_the_ledger(self) -> None:
        """Ten turns of 0.9 lb are dated; the plan stands for the next of them: nine are 8.1 lb, with 0.5 lb now 8.6."""
        self.step(rate=0.9, when={"every": "14", "begin": "2026-05-25"})
        found = self.ask("POST", "reckon/job", self.feed_job())
        dose = found["parts"][0]["doses"][0]
        line = next(b for b in dose["budget"] if b["key"] == "nutrient:N")
        self.assertEqual((line["used_text"], line["over"]), ("8.1", True))
        self.assertIn("N would come to 8.6 lb N/1000 ft² this season", dose["findings"][0]["sentence"])

    def test_by_what_kind_of_ground(self) -> None:
        self.ask("POST", "areas", AREA | {"name": "Lawn", "grass": "tall_fescue", "use": "lawn"}, 201)
        made = self.step(area_ids=[], grass="tall_fescue")
        self.assertEqual(made["where"], "All the ground of tall fescue")
        self.assertEqual({t["area"] for t in self.turns()}, {"Lawn"})

    def test_bad_input_names_every_field(self) -> None:
        when = {"timing": "every", "begin": "2026-05-01", "end": "2026-04-01", "every": "28"}
        body = {"name": " ", "when": when, "products": [{"product_id": 999}], "area_ids": [999], "grass": "moss"}
        found = self.faults("POST", "programme/steps", body)
        self.assertEqual(set(found), {"name", "when.end", "products.0.product_id", "area_ids.0", "grass"})
        soil = {"timing": "soil", "begin": "2026-03-01", "end": "2026-05-01"}
        self.assertEqual(set(self.faults("POST", "programme/steps", body | {"when": soil})) & {"when.soil"}, {"when.soil"})
        self.assertEqual(Step.objects.count(), 0)

    def test_two_steps_may_not_wait_for_each_other(self) -> None:
        first = self.step()
        event = {"timing": "event", "begin": "2026-05-01", "end": "2026-09-30", "offset": "7"}
        second = self.step(name="Iron", when=event, after_id=first["id"])
        self.assertEqual([t["begin"] for t in self.turns() if t["name"] == "Iron"][:2], ["2026-05-08", "2026-06-05"])
        said = self.faults("PUT", f"programme/steps/{first['id']}", self.form(first, when=event, after_id=second["id"]))
        self.assertIn("would wait for each other", said["after_id"])
        self.assertIn("“Iron”", said["after_id"])

    def form(self, made: dict[str, Any], **more: Any) -> dict[str, Any]:
        kept = {k: made[k] for k in ("version", "name", "area_ids", "why")}
        return kept | {"when": made["when"], "products": [{"product_id": self.feed.pk}]} | more

    def test_a_change_from_an_old_version_is_told(self) -> None:
        made = self.step()
        self.ask("PUT", f"programme/steps/{made['id']}", self.form(made, name="Spoon feed"))
        answer = self.ask("PUT", f"programme/steps/{made['id']}", self.form(made, name="Another"), 409)
        self.assertIn("name", {c["field"] for c in answer["changes"]})

    def test_put_away_and_back(self) -> None:
        made = self.step()
        self.ask("DELETE", f"programme/steps/{made['id']}", expect=204)
        self.assertEqual(self.turns(), [])
        self.ask("POST", f"programme/steps/{made['id']}/back")
        self.assertEqual(len(self.turns()), 6)

    def test_what_it_goes_by(self) -> None:
        year = self.ask("POST", "programme/events", {"name": "Club day", "on": "2026-06-20"}, 201)
        event = year["events"][0]["id"]
        when = {"timing": "event", "begin": "2026-01-01", "end": "2026-12-31", "offset": "-5"}
        self.step(when=when, event_id=event)
        self.assertEqual(self.turns()[0]["begin"], "2026-06-15")
        self.ask("DELETE", f"programme/events/{event}", expect=204)
        self.assertEqual((self.turns()[0]["begin"], self.turns()[0]["stand"]), (None, "waiting"))

    def test_an_applicator_moves_and_a_viewer_reads(self) -> None:
        made = self.step()
        self.sign_in("applicator")
        self.ask("POST", "programme/steps", {"name": "x", "when": {"timing": "dated", "begin": "2026-05-01"}}, 403)
        where = {"step_id": made["id"], "area_id": self.area.pk, "number": 1}
        self.ask("POST", "programme/turns", where | {"on": "2026-06-02"})
        self.sign_in("viewer")
        self.ask("POST", "programme/turns", where | {"skipped": True}, 403)
        self.ask("GET", "programme")


class Turns(ProgrammeTest):
    def setUp(self) -> None:
        super().setUp()
        self.made = self.step()
        self.where = {"step_id": self.made["id"], "area_id": self.area.pk, "number": 1}

    def test_moved_skipped_and_taken_back(self) -> None:
        self.ask("POST", "programme/turns", self.where | {"on": "2026-06-03", "why": "Away."})
        second = self.turns()[1]
        self.assertEqual((second["begin"], second["moved"]), ("2026-06-03", True))
        self.assertIn("Moved to 3 June: Away. It was due from 29 May.", second["why"])
        self.ask("POST", "programme/turns", self.where | {"skipped": True, "why": "It rained for a week."})
        self.assertEqual(next(t for t in self.turns() if t["number"] == 1)["stand"], "skipped")
        self.ask("POST", "programme/turns", self.where)
        self.assertEqual((self.turns()[1]["begin"], StepTurn.objects.count()), ("2026-05-29", 0))

    def test_what_is_done_stays(self) -> None:
        self.fed("2026-05-06")
        said = self.faults("POST", "programme/turns", self.where | {"number": 0, "on": "2026-05-12"})
        self.assertIn("stands in the book", said["on"])

    def test_no_such_turn_and_days_far_off(self) -> None:
        self.assertIn("number", self.faults("POST", "programme/turns", self.where | {"number": 90}))
        self.assertIn("on", self.faults("POST", "programme/turns", self.where | {"on": "2029-01-01"}))

    def test_the_gate_refuses_a_day_inside_of_the_labels_interval(self) -> None:
        """The label's least interval of 14 days, after what is booked and before what is meant."""
        rows = [{"use": "dollar spot", "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "interval_low": "14", "interval_high": "21"}]
        self.rule_label(rates=rows)
        spray = {"timing": "every", "begin": "2026-05-25", "end": "2026-07-01", "every": "21"}
        made = self.step(name="Spray", rate=None, when=spray, products=[{"product_id": self.spray.pk}])
        where = {"step_id": made["id"], "area_id": self.area.pk, "number": 1}
        self.assertEqual([t["refused"] for t in self.turns() if t["name"] == "Spray"], [[], []])
        looked = self.ask("POST", "programme/turns/look", where | {"on": "2026-06-02"})
        self.assertIn("least interval is 14", looked["refused"][0]["sentence"])
        answer = self.ask("POST", "programme/turns", where | {"on": "2026-06-02"}, 422)
        self.assertIn("least interval is 14", str(answer))
        self.assertEqual(StepTurn.objects.count(), 0)
        self.ask("POST", "programme/turns", where | {"on": "2026-06-10"})

    def rule_label(self, **more: Any) -> None:
        from greenmeasure.tests.base import FUNGICIDE

        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | more)


class Years(ProgrammeTest):
    def test_an_outline_becomes_steps_with_products_of_the_shelf(self) -> None:
        """The rate is the outline's own, `core.season.outlines`."""
        offered = self.ask("GET", "programme/options")["outlines"]
        self.assertTrue(offered[0]["fits"])
        self.assertTrue(all(o["source"] for o in offered))
        found = self.ask("POST", "programme/outlines", {"key": "cool_base", "year": 2026}, 201)
        self.assertEqual([s["name"] for s in found["steps"]], ["Spring base", "Liquid boost", "Autumn base"])
        self.assertIn("Test 20-0-10, 0.75 lb N/1000 ft²", found["steps"][0]["mix"])
        said = self.faults("POST", "programme/outlines", {"key": "warm_lawn", "year": 2026})
        self.assertIn("None of the ground", said["area_ids"])
        self.assertIn("key", self.faults("POST", "programme/outlines", {"key": "nothing", "year": 2026}))

    def test_a_year_is_copied_and_what_differs_is_told(self) -> None:
        first = self.step()
        self.step(
            name="Iron", when={"timing": "event", "begin": "2026-05-01", "end": "2026-09-30", "offset": "7"}, after_id=first["id"]
        )
        found = self.ask("POST", "programme/copies", {"from_year": 2026, "year": 2027}, 201)
        feed, iron = found["steps"]
        self.assertEqual((feed["when"]["begin"], feed["differs"], iron["after_id"]), ("2027-05-01", "", feed["id"]))
        self.assertIn("year", self.faults("POST", "programme/copies", {"from_year": 2026, "year": 2027}))
        self.assertIn("from_year", self.faults("POST", "programme/copies", {"from_year": 2020, "year": 2021}))
        when = {"timing": "every", "begin": "2027-05-01", "end": "2027-09-30", "every": "21"}
        body = {"version": feed["version"], "name": "Feed", "when": when, "area_ids": [self.area.pk]}
        changed = self.ask("PUT", f"programme/steps/{feed['id']}", body)
        self.assertIn("Was: test 20-0-10", changed["differs"])


class SoilSteps(ProgrammeTest):
    """A pH plan's steps in the programme, with the shelf's sulfur, its rate the plan's and held by the gate."""

    plan = {"texture": "sand", "start": "2026-05-20", "target": "6.5", "purity": "90"}

    def setUp(self) -> None:
        super().setUp()
        for spot in ("a", "b", "c"):
            reading = {"spot": spot, "taken_on": "2026-05-01", "ph": 7.5}
            self.ask("POST", f"areas/{self.area.pk}/soil", reading, 201)

    def sulfur(self) -> None:
        card = {
            "name": "Sulfur 90",
            "kind": "amendment",
            "formulation": "GR",
            "contents": [{"name": "S", "basis": "S", "amount": 90, "unit": "%"}],
            "rates": [{"phrase": "1 to 5 lb per 1,000 sq ft", "target": "Soil pH"}],
        }
        self.ask("POST", "products", card, 201)

    def test_they_become_steps_of_their_years_once(self) -> None:
        self.sulfur()
        told = self.ask("POST", f"areas/{self.area.pk}/ph", self.plan)
        body = {"area_id": self.area.pk, "plan": self.plan}
        for _ in range(2):  # pressed again it takes its own place
            self.ask("POST", "programme/soil", body, 201)
        made = Step.objects.filter(name="Sulfur for the pH")
        self.assertEqual(sorted(s.when["begin"] for s in made), sorted(s["on"] for s in told["steps"]))
        turns = [t for year in {s.year for s in made} for t in self.turns(year) if t["name"] == "Sulfur for the pH"]
        self.assertEqual(len(turns), len(told["steps"]))
        self.assertEqual([t["refused"] for t in turns if t["refused"]], [])
        self.assertIn("lb/1000 ft²", turns[0]["mix"])

    def test_without_a_product_or_a_need_it_says_so(self) -> None:
        body = {"area_id": self.area.pk, "plan": self.plan}
        told = self.ask("POST", "programme/soil", body, 422)
        self.assertIn("no elemental sulfur on the shelf", told["message"])
        self.ask("POST", "programme/soil", {"area_id": self.area.pk, "plan": self.plan | {"target": "7.5"}}, 422)
        self.assertEqual(Step.objects.count(), 0)
