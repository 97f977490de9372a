"""Two sites with two stations and two time zones, one site that is no level, and members who see some sites only."""

from datetime import UTC, datetime
from typing import Any
from unittest.mock import patch

from icalendar import Calendar

from greenmeasure.accounts.models import Membership, Site
from greenmeasure.book.models import Application
from greenmeasure.common.clock import local_day
from greenmeasure.ground.models import Area
from greenmeasure.season.models import Planned
from greenmeasure.sky.keeping import keep_forecast, keep_hours
from greenmeasure.sky.models import Station
from greenmeasure.tests.base import AREA, ApiTest
from greenmeasure.tests.sky_base import SkyTest
from greenmeasure.tests.test_due import FUNGICIDES
from greenmeasure.tests.test_walls import endpoints

OSLO = {"name": "Fjord yard", "address": "1 Slip Road", "contact": "the porter", "gate": "code 12", "time_zone": "Europe/Oslo"}


class Sites(ApiTest):
    def site(self, **more: Any) -> Any:
        return self.ask("POST", "sites", OSLO | more, 201)

    def lawn(self, site: int, **more: Any) -> Any:
        return self.ask("POST", "areas", AREA | {"site_id": site} | more, 201)

    def test_an_account_has_one_site_that_needs_no_saying(self) -> None:
        said = self.ask("GET", "sites")
        self.assertEqual([(s["name"], s["time_zone"], s["areas"]) for s in said], [("Site alder", "America/New_York", 1)])
        self.assertEqual(self.ask("POST", "areas", AREA | {"name": "Other"}, 201)["site_id"], said[0]["id"])

    def test_two_sites_may_each_have_a_front_lawn(self) -> None:
        site = self.site()
        self.assertEqual((site["gate"], site["contact"], site["areas"]), ("code 12", "the porter", 0))
        made = self.lawn(site["id"])
        self.assertEqual((made["name"], made["site"]), ("North green", "Fjord yard"))
        self.assertIn("already", self.faults("POST", "areas", AREA | {"site_id": site["id"]})["name"])

    def test_a_part_lies_where_its_whole_lies_and_moves_with_it(self) -> None:
        site = self.site()
        part = self.ask("POST", "areas", AREA | {"name": "Half", "parent_id": self.area.pk, "share": "1/2"}, 201)
        deep = self.ask("POST", "areas", AREA | {"name": "Quarter", "parent_id": part["id"], "share": "1/2"}, 201)
        self.ask("PUT", f"areas/{self.area.pk}", AREA | {"site_id": site["id"]})
        found = {a.name: a.site_id for a in Area.objects.filter(pk__in=[part["id"], deep["id"]])}
        self.assertEqual(found, {"Half": site["id"], "Quarter": site["id"]})

    def test_a_change_that_names_no_site_leaves_it_where_it_lies(self) -> None:
        site = self.site()
        made = self.lawn(site["id"])
        self.assertEqual(self.ask("PUT", f"areas/{made['id']}", AREA | {"note": "x"})["site_id"], site["id"])

    def test_faults_of_a_site(self) -> None:
        self.assertEqual(set(self.faults("POST", "sites", {"name": " ", "time_zone": "America"})), {"name", "time_zone"})
        self.assertIn("already", self.faults("POST", "sites", {"name": "site ALDER"})["name"])
        self.assertEqual(set(self.faults("POST", "areas", AREA | {"name": "x", "site_id": 999})), {"site_id"})

    def test_a_site_is_put_away_when_nothing_lies_on_it(self) -> None:
        site = self.site()
        made = self.lawn(site["id"])
        self.assertIn("Areas lie on", self.ask("DELETE", f"sites/{site['id']}", expect=409)["message"])
        self.ask("DELETE", f"areas/{made['id']}")
        self.ask("DELETE", f"sites/{site['id']}", expect=204)
        self.assertEqual(Site.objects.get(pk=site["id"]).version, site["version"] + 1)
        self.assertEqual(len(self.ask("GET", "sites")), 1)
        only = self.ask("GET", "sites")[0]["id"]
        self.ask("DELETE", f"areas/{self.area.pk}")
        self.assertIn("only site", self.ask("DELETE", f"sites/{only}", expect=409)["message"])

    def test_what_is_closed_is_closed_on_its_own_site(self) -> None:
        winter = {"what": "N", "start": {"month": 11, "day": 1}, "end": {"month": 3, "day": 1}, "why": "a by-law"}
        there = self.lawn(self.site(closed=[winter])["id"])
        for area, closed in ((self.area.pk, False), (there["id"], True)):
            said = self.ask("POST", "reckon/job", self.feed_job(area_id=area, on="2026-12-10"))
            keys = {f["key"] for f in said["parts"][0]["doses"][0]["findings"]}
            self.assertEqual("closed-season" in keys, closed)

    def test_the_book_writes_the_day_of_the_ground(self) -> None:
        """23:30 UTC on 2 July is 19:30 in New York, and 01:30 on the 3rd in Oslo."""
        there = self.lawn(self.site()["id"])
        now = datetime(2026, 7, 2, 23, 30, tzinfo=UTC)
        for area, day in ((self.area.pk, "2026-07-02"), (there["id"], "2026-07-03")):
            with patch("greenmeasure.common.clock.now", return_value=now):
                pk = self.ask("POST", "rounds", self.job(area_id=area), 201)["id"]
                entry = self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})[0]
            self.assertEqual(entry["applied_on"], day)
        oslo = Site.objects.get(name="Fjord yard")
        self.assertEqual(str(local_day(oslo, now)), "2026-07-03")

    def test_geojson_carries_the_site_both_ways(self) -> None:
        site = self.site()
        self.lawn(site["id"])
        out = self.ask("GET", "areas/areas.geojson")
        self.assertEqual({f["properties"]["site"] for f in out["features"]}, {"Site alder", "Fjord yard"})
        feature = {"type": "Feature", "geometry": None, "properties": {"name": "New", "size": 900, "size_unit": "ft2"}}
        for name, act in (("fjord YARD", "add"), ("Nowhere", "refused")):
            feature["properties"]["site"] = name  # type: ignore[index]
            said = self.ask("POST", "areas/geojson/preview", {"text": __import__("json").dumps(feature)})
            self.assertEqual(said["lines"][0]["act"], act)


class TwoStations(SkyTest):
    """A humid station by the harbour and a dry one in another time zone."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        self.oslo = self.ask("POST", "sites", OSLO, 201)["id"]
        self.there = self.ask("POST", "areas", AREA | {"site_id": self.oslo}, 201)["id"]
        for p in FUNGICIDES:
            card = {
                "kind": "fungicide",
                "formulation": "SC",
                "contents": [{"name": "an active", "basis": "active", "amount": 200, "unit": "g/l"}],
            }
            self.ask("POST", "products", card | p, 201)

    def weather(self) -> None:
        """The harbour's hours with the damp taken out of them, at the second station."""
        from dataclasses import replace

        from core.weather.hours import Hour

        here = Station.objects.get(name="Harbour mast")
        self.ask("PUT", f"sky/station?site_id={self.oslo}", {"name": "Fjord mast", "version": None})
        there = Station.objects.get(name="Fjord mast")
        hours = [Hour(r.at, air=r.air, humidity=45.0, rain=0.0, wind=r.wind) for r in here.readings.all()]
        keep_hours(there, hours, "service")
        ahead = list(here.foretold.all())
        told = [Hour(f.at, air=f.air, humidity=45.0, rain=0.0, wind=f.wind, forecast=True) for f in ahead]
        keep_forecast(there, ahead[0].issued, [replace(h) for h in told])

    def test_each_site_has_its_own_sky(self) -> None:
        said = self.ask("GET", f"sky?site_id={self.oslo}")
        self.assertIn("No weather comes in yet", said["fresh"]["sentence"])
        self.weather()
        here, there = self.ask("GET", "sky"), self.ask("GET", f"sky?site_id={self.oslo}")
        self.assertEqual((here["fresh"]["station"], there["fresh"]["station"]), ("Harbour mast", "Fjord mast"))
        self.assertIn("dollar_spot", {r["disease"] for r in here["risks"]})
        self.assertNotIn("dollar_spot", {r["disease"] for r in there["risks"]})
        self.assertEqual({r["area_id"] for r in here["risks"]}, {self.area.pk})

    def test_the_due_list_goes_by_the_weather_of_each_site_and_says_which(self) -> None:
        self.assertIn("Fjord yard: no weather", self.ask("GET", "season/due")["fresh"]["sentence"])
        self.weather()
        lines = [x for x in self.ask("GET", "season/due")["lines"] if x["disease"] == "dollar_spot"]
        self.assertEqual([(x["area_id"], x["site"]) for x in lines], [(self.area.pk, "Site alder")])

    def test_a_site_without_ground_misses_no_weather(self) -> None:
        self.ask("DELETE", f"areas/{self.there}", expect=200)
        said = self.ask("GET", "season/due")["fresh"]["sentence"]
        self.assertNotIn("Fjord yard", said)
        self.assertTrue(said.startswith("Weather measured"), said)

    def test_hours_are_told_on_the_clock_of_the_ground(self) -> None:
        """10:20 UTC is 06:20 in New York and 12:20 in Oslo."""
        self.weather()
        spray = self.ask("GET", "products")[0]["id"]
        for area, hour in ((self.area.pk, 6), (self.there, 12)):
            said = self.ask("POST", "sky/hours", {"area_id": area, "product_ids": [spray]})
            self.assertEqual(said["hours"][0]["hour"], hour)

    def test_a_quiet_hour_is_one_sites_own(self) -> None:
        self.weather()
        body = {"kind": "quiet", "days": list(range(7)), "begin": "00:00", "end": "23:59"}
        self.ask("POST", "sky/rhythms", body | {"site_id": self.oslo}, 201)
        spray = self.ask("GET", "products")[0]["id"]
        for area, quiet in ((self.area.pk, False), (self.there, True)):
            said = self.ask("POST", "sky/hours", {"area_id": area, "product_ids": [spray]})
            self.assertEqual(all("quiet" in {r["key"] for r in h["reasons"]} for h in said["hours"]), quiet)

    def test_a_gauge_is_read_at_the_station_of_its_site(self) -> None:
        self.weather()
        gauge = {"kind": "rain", "value": {"value": 5, "unit": "mm"}, "on": "2026-08-11"}
        self.ask("POST", "sky/readings", gauge | {"site_id": self.oslo}, 201)
        for site, count in (("", 0), (f"?site_id={self.oslo}", 1)):
            self.assertEqual(len(self.ask("GET", f"sky/station{site}")["station"]["by_hand"]), count)

    def test_the_calendar_holds_what_is_planned_on_both(self) -> None:
        self.weather()
        for area in (self.area.pk, self.there):
            Planned.objects.create(
                account=self.account,
                area_id=area,
                disease="dollar_spot",
                product=self.spray,
                begin=datetime(2026, 8, 14, 10, tzinfo=UTC),
                end=datetime(2026, 8, 14, 12, tzinfo=UTC),
                by="x",
                made_at=datetime(2026, 8, 12, 10, tzinfo=UTC),
            )
        answer = self.client.get("/api/accounts/alder/outings/ahead.ics")
        found = [e for e in Calendar.from_ical(answer.content).walk("VEVENT") if e["status"] == "CONFIRMED"]
        self.assertEqual(len(found), 2)


class Limited(ApiTest):
    """A member who is limited to one site sees nothing of the other at any door."""

    def setUp(self) -> None:
        super().setUp()
        self.oslo = self.ask("POST", "sites", OSLO, 201)["id"]
        self.there = self.ask("POST", "areas", AREA | {"site_id": self.oslo, "name": "Fjord lawn"}, 201)["id"]
        self.ask("PUT", "sky/station", {"name": "Harbour mast"})
        pk = self.ask("POST", "rounds", self.job(), 201)["id"]
        self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})
        self.round = self.ask("POST", "rounds", self.job(), 201)["id"]
        self.ask("POST", f"areas/{self.area.pk}/tasks", {"texts": ["Here"]}, 201)
        scout = {"area_id": self.area.pk, "on": "2026-01-02", "what": "dollar_spot", "seen": True}
        self.scouted = self.ask("POST", "scouting", scout, 201)["id"]
        self.limit("applicator")

    def limit(self, role: str) -> None:
        member = next(m for m in self.ask("GET", "members") if m["username"] == f"{role}-alder")
        said = self.ask("PUT", f"members/{member['id']}", {"role": role, "site_ids": [self.oslo]})
        self.assertEqual(said["site_ids"], [self.oslo])
        self.sign_in(role)

    def test_lists_show_what_is_seen(self) -> None:
        self.assertEqual([a["name"] for a in self.ask("GET", "areas")["areas"]], ["Fjord lawn"])
        self.assertEqual([s["id"] for s in self.ask("GET", "sites")], [self.oslo])
        self.assertEqual(self.ask("GET", "rounds"), [])
        self.assertEqual(self.ask("GET", "book")["count"], 0)
        self.assertEqual(self.ask("GET", "tasks"), [])
        today = self.ask("GET", "today")
        self.assertEqual((today["under_way"], today["latest"], today["tasks"]), ([], [], []))
        session = self.client.get("/api/session").json()["accounts"][0]
        self.assertEqual((session["whole"], [s["id"] for s in session["sites"]]), (False, [self.oslo]))
        self.assertNotIn("Test SC", self.client.get("/api/accounts/alder/book/book.csv").getvalue().decode())
        self.assertNotIn("North green", self.client.get("/api/accounts/alder/areas/areas.geojson").content.decode())

    def test_nothing_of_the_other_site_is_found_by_its_number(self) -> None:
        entry = Application.objects.get()
        for method, path in (
            ("GET", f"areas/{self.area.pk}"),
            ("GET", f"rounds/{self.round}"),
            ("GET", f"book/{entry.pk}"),
            ("POST", f"rounds/{self.round}/give-up"),
            ("GET", f"sky/strip?area_id={self.area.pk}"),
            ("GET", f"sky?site_id={self.area.site_id}"),
            ("GET", f"sky/station?site_id={self.area.site_id}"),
            ("GET", f"areas/{self.area.pk}/water"),
        ):
            self.ask(method, path, expect=404)
        self.ask("POST", f"scouting/{self.scouted}/strike", {"why": "the other green"}, 404)
        self.ask("POST", "reckon/job", self.job(), 404)
        self.ask("POST", "reckon/job", self.job(area_id=self.there))

    def test_every_reading_door_with_an_area_in_it_is_shut(self) -> None:
        doors = [p for m, p, _ in endpoints() if m == "GET" and "{area_id}" in p]
        self.assertGreaterEqual(len(doors), 4)
        for path in doors:
            at = path.replace("{account}", "alder").replace("{area_id}", str(self.area.pk)).replace("{disease}", "dollar_spot")
            self.assertIn(self.client.get(at).status_code, (404, 422), path)

    def test_what_was_last_in_a_machine_is_told_whatever_the_site(self) -> None:
        said = self.ask("POST", "reckon/job", self.feed_job(area_id=self.there))
        self.assertEqual(said["machine_findings"][0]["key"], "no-setting")
        self.assertIn("Test SC", self.ask("GET", f"machines/{self.sprayer.pk}")["machine"]["tank"])

    def test_a_manager_of_one_site_does_not_change_what_is_all_of_its(self) -> None:
        self.sign_in("manager")
        body = {"username": "second", "full_name": "Second", "password": "brisk heron gate", "role": "manager"}
        self.ask("POST", "members", body | {"site_ids": [self.oslo]}, 201)
        self.client.login(username="second", password="brisk heron gate")
        self.client.force_login(Membership.objects.get(user__username="second").user, "django.contrib.auth.backends.ModelBackend")
        for method, path in (("POST", "members"), ("POST", "sites"), ("PUT", "house"), ("PUT", f"sites/{self.oslo}")):
            self.ask(method, path, {}, 403)
        self.ask("POST", "areas", AREA | {"name": "Mine", "site_id": self.oslo}, 201)
        self.assertEqual(set(self.faults("POST", "areas", AREA | {"name": "Yours", "site_id": self.area.site_id})), {"site_id"})

    def test_the_last_manager_of_all_of_it_is_not_limited(self) -> None:
        self.sign_in("manager")
        me = next(m for m in self.ask("GET", "members") if m["you"])
        body = {"role": "manager", "site_ids": [self.oslo]}
        self.assertIn("only manager of all", self.ask("PUT", f"members/{me['id']}", body, 409)["message"])
