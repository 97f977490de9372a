"""Locks: what must not happen on a ground, until when, told on Today and on the area's page, and kept by the hours."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest.mock import patch

from core.weather.windows import Fit
from greenmeasure.outings.models import Outing, OutingStop
from greenmeasure.outings.morning import hours_for
from greenmeasure.outings.repeat import left_of
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE
from greenmeasure.tests.sky_base import NOW, SkyTest

DRY = {"rain_after": {"value": 48, "unit": "h"}, "mow_after": {"value": 6, "unit": "h"}}
SOAK = {"water_in_depth": {"value": 0.1, "unit": "in"}, "water_in_delay": {"value": 6, "unit": "h"}}


class Locks(SkyTest):
    """06:20 on Wednesday 12 August in New York: a leaf product has just gone down on the green."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": DRY})
        begun = self.ask("POST", "rounds", self.job(), 201)
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})

    def locks(self, path: str = "sky/locks", **more: Any) -> dict[str, str]:
        query = "&".join(f"{k}={v}" for k, v in more.items())
        return {x["what"]: x["until_text"] for x in self.ask("GET", f"{path}?{query}")}

    def test_each_lock_has_its_end_on_the_grounds_clock(self) -> None:
        # 06:20 and 48 h, 06:20 and 6 h.
        want = {"water": "Fri 14 Aug, 06:20", "mow": "Wed 12 Aug, 12:20"}
        self.assertEqual(self.locks(), want)
        self.assertEqual(self.locks(area_id=self.area.pk), want)
        said = [x["sentence"] for x in self.ask("GET", "today")["locks"]]
        self.assertIn("No water on North green until Fri 14 Aug, 06:20: Test SC (on 12 August) must stay dry.", said)

    def test_a_part_is_locked_with_its_whole_and_another_area_is_not(self) -> None:
        part = AREA | {"name": "Collar", "parent_id": self.area.pk, "size": {"value": "900", "unit": "ft2"}}
        collar = self.ask("POST", "areas", part, 201)
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)
        self.assertEqual(set(self.locks(area_id=collar["id"])), {"water", "mow"})
        self.assertEqual(self.locks(area_id=bank["id"]), {})

    def test_a_lock_ends(self) -> None:
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(hours=7)):
            self.assertEqual(set(self.locks()), {"water"})
        self.assertEqual(self.locks(on="2026-08-14", hour="06:00"), {"water": "Fri 14 Aug, 06:20"})
        self.assertEqual(self.locks(on="2026-08-14", hour="06:30"), {})

    def test_the_watering_of_the_week_that_falls_into_it_is_told(self) -> None:
        rhythm = {"area_id": self.area.pk, "kind": "water", "days": [3], "begin": "05:00", "end": "05:30"}
        self.ask("POST", "sky/rhythms", rhythm, 201)
        said = next(x for x in self.ask("GET", "sky/locks") if x["what"] == "water")
        self.assertIn("The watering of Thu 13 Aug, 05:00 falls into it: leave it out.", said["sentence"])
        mow = {"area_id": self.area.pk, "kind": "mow", "days": [3], "begin": "05:00", "end": "05:30"}
        self.ask("POST", "sky/rhythms", mow, 201)
        self.assertIsNone(next(x for x in self.ask("GET", "sky/locks") if x["what"] == "mow")["broken_at"])

    def test_a_watered_in_feed_the_next_day_is_refused_and_its_hours_are_shut(self) -> None:
        card = {"kind": "fertiliser", "formulation": "GR", "name": self.feed.name, "rules": SOAK}
        more = {"contents": [{"name": "N", "basis": "N", "amount": 20, "unit": "%"}]}
        self.ask("PUT", f"products/{self.feed.pk}", card | more | {"rates": [{"phrase": "0.3 to 0.6 lb N per 1,000 sq ft"}]})
        for on, shut in (("2026-08-13", True), ("2026-08-15", False)):
            job = self.feed_job(on=on, clock="08:00")
            said = self.ask("POST", "reckon/job", job)
            self.assertEqual(
                "washes-off" in {f["key"] for f in said["parts"][0]["doses"][0]["findings"] if f["act"] == "refuse"}, shut, on
            )
            if shut:
                self.assertIn("From Fri 14 Aug, 06:20", self.ask("POST", "rounds", job, 422)["message"])
        found = self.ask("POST", "sky/hours", {"area_id": self.area.pk, "product_ids": [self.feed.pk], "hours": 1})
        shut_at = [h["at"] for h in found["hours"] if any(r["key"] == "washes-off" for r in h["reasons"])]
        self.assertEqual(len(shut_at), 49)

    def test_what_a_label_keeps_apart_is_shut_on_the_hours_page_too(self) -> None:
        other = FUNGICIDE | {"name": "Other SC", "rules": {"incompatible": [{"what": "Test SC", "days": 3}]}}
        made = self.ask("POST", "products", other, 201)
        body = {"area_id": self.area.pk, "hours": 1}
        found = self.ask("POST", "sky/hours", body | {"product_ids": [made["id"]]})
        days = {h["day"] for h in found["hours"] if any(r["key"] == "kept-apart" for r in h["reasons"])}
        self.assertEqual(days, {"Wed 12", "Thu 13", "Fri 14"})
        both = self.ask("POST", "sky/hours", body | {"product_ids": [self.spray.pk, made["id"]]})
        self.assertIn("The label of Other SC keeps Test SC away", " ".join(both["contradictions"]))


class OfOneOuting(SkyTest):
    """Granules that are watered in, and a leaf product that must stay dry for two days, in one outing of tomorrow."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        card: dict[str, Any] = {"kind": "fertiliser", "formulation": "GR", "name": "Soaked 20-0-0", "rules": SOAK}
        card |= {"contents": [{"name": "N", "basis": "N", "amount": 20, "unit": "%"}], "rates": FEED["rates"]}
        soaked = self.ask("POST", "products", card, 201)["id"]
        dry = self.ask(
            "POST", "products", FUNGICIDE | {"name": "Dry SC", "kind": "iron", "formulation": "SL", "rules": DRY}, 201
        )["id"]
        when = {"timing": "dated", "begin": "2026-08-12", "end": "2026-08-16"}
        for name, product, rate, unit in (("Feed", soaked, 0.4, "lb/kft2:N"), ("Colour", dry, 0.5, "fl_oz/kft2")):
            mix = [{"product_id": product, "rate": {"value": rate, "unit": unit}}]
            self.ask("POST", "programme/steps", {"name": name, "when": when, "products": mix, "area_ids": [self.area.pk]}, 201)

    def test_what_it_puts_down_warns_of_no_hours_of_its_own(self) -> None:
        """Its spray stands first, as before its card said that it must stay dry: put in order anew it comes after them."""
        made = self.ask("POST", "outings", {"on": "2026-08-13"}, 201)
        early = datetime(2026, 8, 13, 9, 0, tzinfo=UTC)  # 05:00 in New York
        OutingStop.objects.filter(job__doing="spray").update(begin=early, end=early + timedelta(minutes=10), want="")
        self.account.touch("outings")
        (feed,) = (d for j in Outing.objects.get().jobs.all() if j.doing == "spread" for d in left_of(self.account, j))
        alone, beside = hours_for(self.account, feed), hours_for(self.account, replace(feed, own=frozenset()))
        assert alone and beside
        self.assertNotIn(Fit.MIND, alone.judged.fits)
        self.assertIn(Fit.MIND, beside.judged.fits, "anything else that goes down then is warned of it")
        again = self.ask("POST", f"outings/{made['id']}/again", {})
        self.assertEqual([a["kind"] for a in again["acts"]], ["ready", "spread", "water", "ready", "spray", "clean"])
