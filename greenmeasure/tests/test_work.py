"""Other work through the API: noted for several areas, told against the locks, changed on the ground, struck with a reason."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.tests.base import FUNGICIDE, ApiTest
from greenmeasure.work.models import Work


def q(value: float | str, unit: str) -> dict[str, Any]:
    return {"value": value, "unit": unit}


def height(value: float | str, unit: str = "in") -> dict[str, Any]:
    return {"key": "height", "quantity": q(value, unit)}


class OtherWork(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.area = Area.objects.get(name="North green", account=self.account)
        self.today = clock.today(self.area)

    def note(self, kind: str, **more: Any) -> list[dict[str, Any]]:
        made: list[dict[str, Any]] = self.ask("POST", "works", {"kind": kind, "area_ids": [self.area.pk]} | more, expect=201)
        return made

    def on(self, days: int) -> str:
        return str(self.today - timedelta(days=days))

    def test_one_tap_is_now(self) -> None:
        made = self.note("roll")[0]
        self.assertEqual((made["on"], made["text"], made["by"]), (str(self.today), "Rolled.", "Manager alder"))
        self.assertRegex(made["clock"], r"^\d\d:\d\d$")
        self.assertEqual([w["id"] for w in self.ask("GET", f"works?area_id={self.area.pk}")], [made["id"]])

    def test_every_kind_says_all_that_is_told_of_it(self) -> None:
        words = {"material": "sharp sand", "seed": "creeping bentgrass, 1 lb/1000 ft²", "what": "ball marks", "who": "adviser"}
        for doing in self.ask("GET", "works/kinds"):
            told = []
            for ask in doing["asks"]:
                one = {"key": ask["key"]}
                if ask["units"]:
                    one |= {"quantity": q("0.5", ask["units"][0]["key"])}
                else:
                    one |= {"word": ask["choices"][0]["key"] if ask["choices"] else words[ask["key"]]}
                told.append(one)
            made = self.note(doing["key"], on=self.on(1), told=told)[0]
            self.assertEqual([t["key"] for t in made["told"]], [a["key"] for a in doing["asks"]], doing["key"])
            for ask, kept in zip(doing["asks"], made["told"], strict=True):
                said = {c["key"]: c["text"] for c in ask["choices"]}.get(kept["word"], kept["word"] or "0.5 in")
                self.assertIn(said, made["text"])

    def test_several_areas_or_none(self) -> None:
        other = Area.objects.create(account=self.account, site=self.area.site, name="South", size_value=1, size_unit="acre")
        made = self.note("mow", area_ids=[self.area.pk, other.pk, self.area.pk])
        self.assertEqual([w["area"] for w in made], ["North green", "South"])
        said = self.faults("POST", "works", {"kind": "mow", "area_ids": [self.area.pk, 987654]})
        self.assertEqual(set(said), {"area_ids.1"})
        self.assertEqual(Work.objects.count(), 2)

    def test_what_cannot_be_is_refused_by_its_field(self) -> None:
        ahead = str(self.today + timedelta(days=1))
        for more, field in (
            ({"kind": "dance"}, "kind"),
            ({"on": ahead}, "on"),
            ({"on": self.on(1), "clock": "25:00"}, "clock"),
            ({"told": [height(40)]}, "told.height"),
            ({"told": [height("low")]}, "told.height"),
            ({"told": [{"key": "clippings", "word": "eaten"}]}, "told.clippings"),
            ({"told": [{"key": "depth", "quantity": q(1, "in")}]}, "told.0.key"),
        ):
            body = {"kind": "mow", "area_ids": [self.area.pk]} | more
            self.assertEqual(set(self.faults("POST", "works", body)), {field}, more)
            self.assertEqual(set(self.faults("POST", "works/check", body)), {field}, more)
        self.assertFalse(Work.objects.exists())

    def test_mowing_inside_of_a_label_is_told_and_kept_with_it(self) -> None:
        """24 hours without mowing: told before, kept with it; the day after that it is not."""
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"mow_after": q(24, "h")}})
        done = {"job": self.job(on=self.on(2), clock="09:00"), "finish": {"used": [{"amount": q(4.2, "fl_oz")}]}, "reason": ""}
        self.ask("POST", "rounds/done", done, 201)
        body = {"kind": "mow", "area_ids": [self.area.pk], "on": self.on(1), "clock": "08:00"}
        said = self.ask("POST", "works/check", body)
        self.assertEqual(len(said), 1)
        self.assertIn("Mowing falls inside of this: No mowing on North green until", said[0])
        self.assertEqual(self.ask("POST", "works", body, expect=201)[0]["against"], said)
        self.assertEqual(self.ask("POST", "works/check", body | {"clock": "09:30"}), [])
        self.assertEqual(self.ask("POST", "works/check", body | {"kind": "roll"}), [])

    def test_a_mowing_at_another_height_is_the_height_of_cut_until_it_is_struck(self) -> None:
        """Inches as they are typed; nothing is reckoned."""
        before = self.ask("GET", f"areas/{self.area.pk}")["area"]["height"]
        made = self.note("mow", on=self.on(3), told=[height("0.375")])[0]
        whole = self.ask("GET", f"areas/{self.area.pk}")
        self.assertEqual(whole["area"]["height"]["text"], "0.375 in")
        self.note("mow", on=self.on(9), told=[height("0.6")])
        now = self.ask("GET", f"areas/{self.area.pk}")["area"]["height"]["text"]
        self.assertEqual(now, "0.375 in", "an older mowing changes nothing of today")
        self.ask("POST", f"works/{made['id']}/strike", {"why": "It was the other green."})
        self.assertEqual(self.ask("GET", f"areas/{self.area.pk}")["area"]["height"], before)

    def test_seed_that_went_down_is_what_the_rules_go_by(self) -> None:
        Area.objects.filter(pk=self.area.pk).update(overseed_on=self.today - timedelta(days=5), sown_on=None)
        made = self.note("seed", on=self.on(4))[0]
        area = Area.objects.get(pk=self.area.pk)
        self.assertEqual((area.sown_on, area.overseed_on), (self.today - timedelta(days=4), None))
        self.ask("POST", f"works/{made['id']}/strike", {"why": "The seed came late."})
        area.refresh_from_db()
        self.assertEqual((area.sown_on, area.overseed_on), (None, self.today - timedelta(days=5)))

    def test_seeding_that_was_planned_and_not_done(self) -> None:
        Area.objects.filter(pk=self.area.pk).update(overseed_on=self.today - timedelta(days=5), sown_on=None)
        made = self.note("seed", on=self.on(4), done=False)[0]
        self.assertEqual(made["text"], "Not seeded.")
        area = Area.objects.get(pk=self.area.pk)
        self.assertEqual((area.sown_on, area.overseed_on), (None, None))

    def test_struck_once_with_a_reason_and_readable(self) -> None:
        made = self.note("visit")[0]
        self.assertEqual(set(self.faults("POST", f"works/{made['id']}/strike", {"why": " "})), {"why"})
        said = self.ask("POST", f"works/{made['id']}/strike", {"why": "Another day."})
        self.assertEqual(said["struck"], "Struck by Manager alder: Another day.")
        self.ask("POST", f"works/{made['id']}/strike", {"why": "Again."}, expect=409)
        self.assertEqual([w["struck"] for w in self.ask("GET", "works")], [said["struck"]])

    def test_an_hour_that_is_still_to_come_today(self) -> None:
        noon = clock.moment_at(self.area, self.today, "12:00")
        with patch("greenmeasure.common.clock.now", return_value=noon):
            self.assertEqual(
                set(self.faults("POST", "works", {"kind": "mow", "area_ids": [self.area.pk], "clock": "15:00"})), {"clock"}
            )
            self.assertEqual(self.note("mow", clock="11:00")[0]["clock"], "11:00")
