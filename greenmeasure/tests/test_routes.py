"""A contractor's sites: routes by days, the ways between them, their year on one page, and outings over several of them."""

from datetime import date, datetime, timedelta
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from greenmeasure.accounts.models import Site
from greenmeasure.kit.models import Machine
from greenmeasure.outings.asked import scarce, still_wanted
from greenmeasure.outings.models import Way
from greenmeasure.sky.models import Station
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE
from greenmeasure.tests.sky_base import SkyTest
from greenmeasure.tests.test_outings import LOOKED, NOW, OutingTest


class Yards(OutingTest):
    """Six yards besides the account's own site, each with a lawn."""

    def setUp(self) -> None:
        super().setUp()
        self.yards = [
            self.ask("POST", "sites", {"name": f"Yard {n}", "time_zone": "America/New_York"}, 201)["id"] for n in range(6)
        ]
        self.lawns = [self.ask("POST", "areas", AREA | {"name": "Front lawn", "site_id": site}, 201)["id"] for site in self.yards]

    def route(self, expect: int = 201, **more: Any) -> Any:
        return self.ask("POST", "outings/routes", {"name": "Harbour", "days": [2], "site_ids": self.yards[:3]} | more, expect)


class Routes(Yards):
    def test_a_route_is_in_driving_order_and_its_minutes_can_be_said(self) -> None:
        a, b, c = self.yards[:3]
        for one, other, minutes in ((a, c, 5), (c, b, 5), (a, b, 60)):
            self.ask("POST", "outings/ways", {"one_id": other, "other_id": one, "minutes": minutes})
        made = self.route()
        self.assertIn(made["site_ids"], ([a, c, b], [b, c, a]))
        self.assertEqual([(leg["minutes"], leg["said"]) for leg in made["legs"]], [(5, True), (5, True)])
        self.assertEqual(made["text"], "Wednesdays: 3 sites, 10 min between them")
        self.ask("POST", "outings/ways", {"one_id": a, "other_id": c, "minutes": None})
        self.assertEqual(Way.objects.count(), 2)
        found = self.ask("GET", "outings/routes")
        self.assertEqual([r["name"] for r in found["routes"]], ["Harbour"])
        self.assertEqual(len(found["loose"]), 4)

    def test_a_site_is_on_one_route_and_faults_name_their_field(self) -> None:
        made = self.route()
        again = self.faults("POST", "outings/routes", {"name": "Hill", "site_ids": self.yards[2:]})
        self.assertIn("Yard 2 is on the route Harbour already", again["site_ids"])
        self.assertEqual(set(self.faults("POST", "outings/routes", {"name": "harbour", "site_ids": []})), {"name", "site_ids"})
        self.assertEqual(set(self.faults("POST", "outings/routes", {"name": "Hill", "site_ids": [987654]})), {"site_ids.0"})
        self.assertEqual(
            self.ask("POST", "outings/ways", {"one_id": self.yards[0], "other_id": self.yards[0], "minutes": 3}, 422)["fields"][
                0
            ]["field"],
            "other_id",
        )
        body = {"name": "Harbour", "days": [], "site_ids": self.yards[:2], "version": made["version"]}
        changed = self.ask("PUT", f"outings/routes/{made['id']}", body)
        self.assertEqual((len(changed["site_ids"]), changed["text"][:7]), (2, "Any day"))
        self.ask("PUT", f"outings/routes/{made['id']}", body, 409)
        self.ask("DELETE", f"outings/routes/{made['id']}", expect=204)
        self.route(name="Hill", site_ids=self.yards)

    def test_ways_are_told_by_where_stations_stand(self) -> None:
        """A tenth of a degree of latitude is 11.1 km: 4 + 11.1 × 1.3 / 35 × 60 = 28.8, up to 29 min."""
        for n, site in enumerate(self.yards[:2]):
            Station.objects.create(account=self.account, site_id=site, name=f"Mast {n}", latitude=41 + n / 10, longitude=-72.6)
        self.account.touch("sky")
        made = self.route(site_ids=self.yards[:3])
        legs = {frozenset((leg["one_id"], leg["other_id"])): (leg["minutes"], leg["said"]) for leg in made["legs"]}
        self.assertNotIn(frozenset(self.yards[:2]), legs, "20 min by the third is shorter")
        both = self.ask(
            "PUT", f"outings/routes/{made['id']}", {"name": "Two", "site_ids": self.yards[:2], "version": made["version"]}
        )
        self.assertEqual([(leg["minutes"], leg["said"]) for leg in both["legs"]], [(29, False)])

    def test_what_is_due_waits_for_the_day_of_its_route(self) -> None:
        """20 May 2026 is a Wednesday; Yard 0 is driven to on Wednesdays, Yard 1 on Thursdays."""
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", *self.lawns[:2])
        self.route(name="Wednesday", site_ids=self.yards[:1])
        self.route(name="Thursday", days=[3], site_ids=self.yards[1:2])
        found = self.propose(on="2026-05-20")
        self.assertEqual([d["text"] for d in found["dues"]], ["Colour on Front lawn, Yard 0"])
        self.assertEqual(found["notes"][-1], "1 more due on the route Thursday, which is driven on Thursdays.")
        self.assertEqual({s["name"] for s in found["sites"]}, {"Yard 0"})
        self.assertEqual({s["name"] for s in self.propose(on="2026-05-21")["sites"]}, {"Yard 1"})
        asked = self.propose(on="2026-05-20", site_ids=self.yards[:2])
        self.assertEqual({s["name"] for s in asked["sites"]}, {"Yard 0", "Yard 1"}, "a site that is named is driven to")


class Drive(Yards):
    def test_six_yards_are_driven_to_once_each_with_the_ways_between(self) -> None:
        for n in range(5):
            self.ask("POST", "outings/ways", {"one_id": self.yards[n], "other_id": self.yards[n + 1], "minutes": 5})
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", *self.lawns)
        found = self.propose()
        kinds = [a["kind"] for a in found["acts"] if a["kind"] in ("spread", "drive")]
        self.assertEqual(kinds, ["spread", "drive"] * 5 + ["spread"])
        order = [s["area_id"] for a in found["acts"] if a["kind"] == "spread" for s in a["stops"]]
        self.assertIn(order, (self.lawns, self.lawns[::-1]))
        drives = [a for a in found["acts"] if a["kind"] == "drive"]
        self.assertEqual({(datetime.fromisoformat(a["end"]) - datetime.fromisoformat(a["begin"])).seconds for a in drives}, {300})

    def test_the_year_of_all_sites_and_a_site_on_its_page(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", *self.lawns[:2])
        year = self.ask("GET", "outings/sites")
        self.assertEqual(year["sentence"], "7 sites: something is due at 2.")
        self.assertEqual(
            [(s["name"], s["due"], s["turns"]) for s in year["sites"][:3]],
            [("Yard 0", 1, 1), ("Yard 1", 1, 1), ("Site alder", 0, 0)],
        )
        made = self.take(site_ids=self.yards[:1], go=True)
        stop = next(s for a in made["acts"] for s in a["stops"])
        self.ask("POST", f"outings/{made['id']}/stops/{stop['id']}/skip", {"why": "Locked gate"})
        page = self.ask("GET", f"outings/sites/{self.yards[0]}")
        self.assertEqual([(x["text"], x["skipped"]) for x in page["past"]], [("Skipped Front lawn: Locked gate", True)])
        self.assertEqual([o["id"] for o in page["outings"]], [made["id"]])
        self.assertEqual(
            [d.split(":")[0] for d in page["due"]], ["Colour on Front lawn, Yard 0"], "what was skipped is due again"
        )
        self.ask("GET", "outings/sites/987654", expect=404)
        row = next(s for s in self.ask("GET", "outings/sites")["sites"] if s["name"] == "Yard 0")
        self.assertEqual(row["next"], "Today, Wed 20 May 2026")

    def test_facts_of_a_site_go_with_the_outing(self) -> None:
        site = self.ask("GET", "sites")[1]
        body = {k: site[k] for k in ("name", "time_zone", "version")} | {"agreed": "Four feeds", "tell": "The day before"}
        self.ask("PUT", f"sites/{site['id']}", body)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", self.lawns[0])
        self.assertEqual([(s["agreed"], s["tell"]) for s in self.propose()["sites"]], [("Four feeds", "The day before")])

    def test_a_filling_takes_as_long_as_its_site_says(self) -> None:
        """A 4 gal tank at 1 gal per 1,000 ft² is filled twice on 7,000 ft²: the second in 12 min, ours, or 30 min as said."""
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", self.lawns[0])

        def long() -> float:
            (act,) = (a for a in self.propose()["acts"] if a["kind"] == "spray")
            return (datetime.fromisoformat(act["end"]) - datetime.fromisoformat(act["begin"])).seconds / 60

        before, site = long(), self.ask("GET", "sites")[1]
        body = {k: site[k] for k in ("name", "time_zone", "version")} | {"water": "Tap by the gate", "fill_minutes": 30}
        self.ask("PUT", f"sites/{site['id']}", body)
        self.assertEqual(long() - before, 18)
        self.assertEqual(self.propose()["sites"][0]["water"], "Tap by the gate, 30 min a filling")
        self.assertEqual(set(self.faults("PUT", f"sites/{site['id']}", body | {"fill_minutes": 900})), {"fill_minutes"})

    def test_records_of_one_site(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", self.lawns[0], self.area.pk)
        made = self.take(go=True)
        sheet = self.ask("POST", f"outings/{made['id']}/jobs/0/start", LOOKED, 201)
        self.ask("POST", f"rounds/{sheet['id']}/finish", {"used": [{"amount": {"value": "7", "unit": "fl_oz"}}]})
        self.assertEqual(len(self.ask("GET", "proof/records")["records"]), 2)
        self.assertEqual(len(self.ask("GET", f"proof/records?site_id={self.yards[0]}")["records"]), 1)
        for paper in ("sheet", "gate", "notes"):
            answer = self.client.get(f"/api/accounts/alder/proof/outings/{made['id']}/{paper}.pdf")
            self.assertEqual((answer.status_code, answer.content[:5]), (200, b"%PDF-"), paper)


class ByHand(OutingTest):
    """What people change of an outing: its order, its products, what it is made of, who and what goes on."""

    def jobs(self, **more: Any) -> list[str]:
        return [j["title"] for j in self.propose(**more)["jobs"]]

    def test_jobs_are_put_after_each_other_by_hand(self) -> None:
        """Granules on one ground and iron on another: either may come first."""
        north, court, _ = self.grounds
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", north)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", court)
        keys = {j["title"]: j["key"] for j in self.propose()["jobs"]}
        iron, feed = keys["Spray Iron SL"], keys["Spread Soaked 20-0-0"]
        self.assertEqual(self.jobs(order=[iron, feed]), ["Spray Iron SL", "Spread Soaked 20-0-0"])
        self.assertEqual(self.jobs(order=[feed, iron]), ["Spread Soaked 20-0-0", "Spray Iron SL"])
        self.assertEqual(self.take(order=[iron, feed])["jobs"][0]["title"], "Spray Iron SL")

    def test_an_order_that_a_label_forbids_is_told_with_the_rule(self) -> None:
        """The granules are watered in within two hours, and the iron must stay dry for four: never the iron first."""
        soon = {"water_in_depth": {"value": 0.25, "unit": "in"}, "water_in_delay": {"value": 2, "unit": "h"}}
        self.ask("PUT", f"products/{self.granules}", FEED | {"name": "Soaked 20-0-0", "rules": soon})
        north = self.grounds[0]
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", north)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", north)
        keys = {j["title"]: j["key"] for j in self.propose()["jobs"]}
        found = self.propose(order=[keys["Spray Iron SL"], keys["Spread Soaked 20-0-0"]], clock="18:00")
        self.assertEqual(len(found["left"]), 1)
        self.assertIn("Not in the order that you put it in with", found["left"][0]["why"])

    def test_the_same_as_on_another_day(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        first = self.take(go=True)
        self.assertEqual(self.propose()["acts"], [])
        again = self.propose(like=first["id"], on="2026-05-27")
        self.assertEqual(again["acts"][1]["where"], first["acts"][1]["where"])
        self.assertEqual(again["dues"][0]["text"], "Colour on Court")
        made = self.take(like=first["id"], on="2026-05-27")
        self.assertEqual(made["jobs"][0]["asked"]["mix"], first["jobs"][0]["asked"]["mix"])
        self.assertEqual(self.propose(422, like=987654)["fields"][0]["field"], "like")

    def test_it_stands_still_and_goes_on_in_order_anew(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        made = self.take(go=True, crew="Tomas and Wren")
        path = f"outings/{made['id']}"
        self.assertEqual(made["crew"], "Tomas and Wren")
        self.ask("POST", f"{path}/go-on", {}, 409)
        self.assertEqual(self.ask("POST", f"{path}/pause", {"why": "gusts"})["paused"], "Stopped since 06:20: gusts.")
        self.ask("POST", f"{path}/pause", {"why": "rain"}, 409)
        self.at(NOW + timedelta(hours=2))
        on = self.ask("POST", f"{path}/go-on", {})
        self.assertEqual((on["paused"], on["acts"][0]["time"][:5]), ("", "08:20"))
        self.ask("POST", f"{path}/jobs/0/skip", {"why": "Too windy"})
        for c in self.ask("GET", path)["closing"]:
            self.ask("POST", f"{path}/closing", {"key": c["key"], "done": True})
        self.assertIn("06:20–08:20: stopped, gusts", self.ask("POST", f"{path}/finish", {})["over"])

    def test_a_second_person_takes_half_of_the_rest(self) -> None:
        self.morning()
        made = self.take(go=True)
        self.assertEqual({a["who"] for a in made["acts"] if a["kind"] != "water"}, {0})
        both = self.ask("POST", f"outings/{made['id']}/again", {"people": 2})
        self.assertEqual(both["people"], 2)
        self.assertEqual({a["who"] for a in both["acts"] if a["kind"] in ("spread", "spray")}, {0, 1})
        self.ask("POST", f"outings/{made['id']}/again", {"people": 9}, 422)

    def test_another_machine_takes_a_job_over_and_the_tanks_follow(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        made = self.take(go=True)
        path, job = f"outings/{made['id']}", made["jobs"][0]
        other = next((m for m in job["machines"] if m["key"] != str(job["machine_id"])), None)
        if other is None:
            first = Machine.objects.get(pk=job["machine_id"])
            first.pk, first.name, first.capacity_value = None, "Spare sprayer", first.capacity_value * 2
            first.save()
            other = next(m for m in self.ask("GET", path)["jobs"][0]["machines"] if m["text"] == "Spare sprayer")
        changed = self.ask("POST", f"{path}/jobs/0/machine", {"machine_id": int(other["key"])})
        self.assertEqual(changed["jobs"][0]["machine"], other["text"])
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.assertEqual(sheet["sheet"]["machine"], other["text"])
        self.ask("POST", f"{path}/jobs/0/machine", {"machine_id": job["machine_id"]}, 409)

    def test_what_was_left_is_told_and_a_cleaning_counts_by_itself(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        made = self.take(go=True)
        path = f"outings/{made['id']}"
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.ask("POST", f"rounds/{sheet['id']}/finish", {"used": [{"amount": {"value": "10.5", "unit": "fl_oz"}}]})
        told = self.ask("POST", f"{path}/closing", {"key": "left", "done": True}, 422)
        self.assertEqual(told["fields"][0]["field"], "note")
        self.ask("POST", f"{path}/closing", {"key": "left", "done": True, "note": "1 gal, onto the rough"})
        cleaning = next(c for c in self.ask("GET", path)["closing"] if c["machine_id"])
        self.assertFalse(cleaning["done"])
        self.ask("POST", f"machines/{cleaning['machine_id']}/cleanings", {"steps": ["rinse"]}, 201)
        after = {c["key"]: c for c in self.ask("GET", path)["closing"]}
        self.assertEqual((after[cleaning["key"]]["done"], after["left"]["note"]), (True, "1 gal, onto the rough"))
        for key, c in after.items():
            if not c["done"]:
                self.ask("POST", f"{path}/closing", {"key": key, "done": True})
        over = self.ask("POST", f"{path}/finish", {})
        self.assertTrue(any("1 gal, onto the rough" in x for x in over["over"]))
        self.assertEqual(len(over["applications"]), 3)


class WaterAfter(OutingTest):
    def test_water_for_what_is_down_is_put_in_order_anew_within_its_hours(self) -> None:
        """Granules down at 06:20, watered in within eight hours: put in order at 13:00, the water comes by 14:20."""
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", self.area.pk)
        made = self.take(go=True)
        path = f"outings/{made['id']}"
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.ask("POST", f"rounds/{sheet['id']}/finish", {"used": [{"amount": {"value": "14", "unit": "lb"}}]})
        self.at(NOW + timedelta(hours=6, minutes=40))
        again = self.ask("POST", f"{path}/again", {})
        water = next(a for a in again["acts"] if a["kind"] == "water")
        self.assertEqual(water["time"][:5], "13:00")
        self.assertLessEqual(water["time"][-5:], "14:20")
        self.ask("POST", f"{path}/jobs/1/done", {})
        self.ask("POST", f"{path}/again", {}, 409)


class Regular(OutingTest):
    """What comes back every week: the mower at its hours, and hours that a site keeps free of water."""

    def rhythm(self, kind: str, begin: str, end: str, area: int | None = None) -> None:
        body = {"kind": kind, "days": [2], "begin": begin, "end": end, "why": "", "area_id": area}
        self.ask("POST", "sky/rhythms", body, 201)

    def test_the_mower_comes_at_its_hours_and_the_iron_keeps_clear(self) -> None:
        wants = {"mow_before": {"value": 1, "unit": "h"}}
        iron = FUNGICIDE | {"name": "Iron SL", "kind": "iron", "formulation": "SL", "rules": wants}
        self.ask("PUT", f"products/{self.iron}", iron)
        self.rhythm("mow", "06:30", "07:30", self.area.pk)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", self.area.pk)
        acts = {a["kind"]: a for a in self.propose()["acts"]}
        self.assertEqual(acts["mow"]["time"], "06:30–07:30")
        self.assertGreaterEqual(acts["spray"]["time"][:5], "08:30")

    def test_water_keeps_out_of_the_hours_that_a_site_keeps_free(self) -> None:
        self.rhythm("quiet", "06:00", "09:00")
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", self.area.pk)
        water = next(a for a in self.propose()["acts"] if a["kind"] == "water")
        self.assertGreaterEqual(water["time"][:5], "09:00")


ASKED = (("GET", "outings/sites", None), ("POST", "outings/propose", {}), ("GET", "outings/week", None))


class Many(OutingTest):
    def test_forty_sites_of_five_areas_ask_no_more_often_than_two(self) -> None:
        """The year of all sites, what is proposed and the week: as many questions to the database at forty sites as at two."""

        def asked() -> list[int]:
            counts = []
            for method, path, body in ASKED:
                self.account.touch()
                with CaptureQueriesContext(connection) as found:
                    self.ask(method, path, body)
                counts.append(len(found))
            return counts

        grounds = [self.area.pk]

        def grow(count: int) -> None:
            for n in range(Site.objects.count(), count):
                site = self.ask("POST", "sites", {"name": f"Yard {n}"}, 201)["id"]
                lawns = [AREA | {"name": f"Lawn {k}", "site_id": site} for k in range(5)]
                grounds.extend(self.ask("POST", "areas", x, 201)["id"] for x in lawns)

        grow(2)
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", *grounds)
        few = asked()
        grow(8)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", *grounds)
        for one, other in zip(few, asked(), strict=True):
            self.assertLessEqual(other, one)


class SameNames(Yards):
    def test_lawns_of_one_name_are_told_apart_and_are_not_one_another(self) -> None:
        """Two lawns of 7,000 ft² that are both called Front lawn: 14,000 ft² in one job, and each is named with its yard."""
        said = self.ask("POST", "reckon/job", self.feed_job(area_id=self.lawns[0]))
        job = self.feed_job(area_id=self.lawns[0])
        job["parts"] = [*job["parts"], job["parts"][0] | {"area_id": self.lawns[1]}]
        both = self.ask("POST", "reckon/job", job)
        self.assertEqual(both["area"], "14,000 ft²")
        self.assertIn("Front lawn, Yard 0 and Front lawn, Yard 1", both["headline"])
        self.assertIn("Front lawn, Yard 0", said["headline"])
        twice = self.feed_job(area_id=self.lawns[0])
        twice["parts"] = twice["parts"] * 2
        self.ask("POST", "reckon/job", twice, 422)


class Swapped(SkyTest):
    """A humid August: dollar spot on a green, and two fungicides that list it."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        bare = {
            "kind": "fungicide",
            "formulation": "SC",
            "density": {"value": 9, "unit": "lb/gal"},
            "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
            "rules": {},
        }
        spot = {"target": "Dollar spot", "interval_low": 14, "interval_high": 28}
        self.made = {
            name: self.ask(
                "POST", "products", bare | {"name": name, "group_code": code, "rates": [spot | {"phrase": phrase}]}, 201
            )
            for name, code, phrase in (
                ("Seven SC", "FRAC 7", "0.3 to 0.5 fl oz per 1,000 sq ft"),
                ("Three SC", "FRAC 3", "1 to 2 fl oz per 1,000 sq ft"),
            )
        }

    def test_another_product_for_a_disease_and_one_that_is_for_none_of_it(self) -> None:
        found = self.ask("POST", "outings/propose", {})
        (due,) = found["dues"]
        names = {int(o["key"]): o["text"] for o in due["others"]} | {due["product_id"]: due["product"]}
        self.assertLessEqual({"Seven SC", "Three SC"}, set(names.values()))
        other = next(pk for pk, name in names.items() if name in self.made and pk != due["product_id"])
        swaps = [{"key": due["key"], "product_id": other}]
        swapped = self.ask("POST", "outings/propose", {"swaps": swaps})
        self.assertEqual([j["title"] for j in swapped["jobs"]], [f"Spray {names[other]}"])
        taken = self.ask("POST", "outings", {"swaps": swaps}, 201)
        self.assertEqual(taken["jobs"][0]["asked"]["mix"][0]["product_id"], other)
        self.ask("POST", f"outings/{taken['id']}/give-up", {})
        feed = self.faults("POST", "outings/propose", {"swaps": [{"key": due["key"], "product_id": self.feed.pk}]})
        self.assertEqual(set(feed), {"swaps.0.product_id"})

    def test_what_has_hours_on_that_day_alone_counts_for_more(self) -> None:
        (due,) = still_wanted(self.account)
        on = date(2026, 8, 5)
        self.assertEqual(scarce(due, on, {on}).want.weight, 2 * due.want.weight)
        self.assertEqual(scarce(due, on, {on, on + timedelta(days=1)}), due)
