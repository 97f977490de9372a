"""After an application: what to expect, whom to ask and when, and what several without effect call for."""

import io
import tempfile
from datetime import date, datetime
from pathlib import Path
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from PIL import Image

from greenmeasure.accounts.models import User
from greenmeasure.common import pictures
from greenmeasure.scouting.actions import add_photo, remove_spot, save_spot
from greenmeasure.scouting.models import FollowUp, Spot
from greenmeasure.scouting.schemas import PhotoIn, SpotIn
from greenmeasure.tests.base import FEED, ApiTest, make_account

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=ZoneInfo("America/New_York"))


class FollowUps(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)

    def sprayed(self, on: str, target: str = "Dollar spot", **more: Any) -> int:
        job = self.job(on=on, clock="07:30", **more)
        job["mix"] = [row | {"target": target} for row in job["mix"]]
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        newest: int = max(a["id"] for a in self.ask("GET", "book")["applications"])
        return newest

    def fed(self, on: str) -> int:
        used = {"used": [{"amount": {"value": "17.5", "unit": "lb"}}]}
        job = self.feed_job(on=on, clock="07:30")
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        return int(max(a["id"] for a in self.ask("GET", "book")["applications"]))

    def due(self) -> list[dict[str, Any]]:
        found: list[dict[str, Any]] = self.ask("GET", "today")["follow"]
        return found

    def say(self, application: int, how: str, expect: int = 201, **more: Any) -> dict[str, Any]:
        body = {"application_id": application, "how": how} | more
        return dict(self.ask("POST", "scouting/followups", body, expect))

    def test_one_question_on_its_day_and_none_once_it_is_answered(self) -> None:
        """Fed on 2 August, day 7 of it is the 9th: on the 12th it is 10 days after (by hand)."""
        pk = self.fed("2026-08-02")
        (asked,) = self.due()
        self.assertEqual(asked["since"], "10 days after Test 20-0-10")
        self.assertEqual([a["key"] for a in asked["answers"]], ["expected", "same", "harmed"])
        made = self.say(pk, "expected", note="Greener")
        self.assertEqual(made["text"], "As expected, 10 days after Test 20-0-10")
        self.assertEqual(self.due(), [])
        self.ask("POST", f"scouting/followups/{made['id']}/strike", {"why": "the other green"})
        self.assertEqual(len(self.due()), 1)

    def shown(self) -> dict[str, Any]:
        """The feed's card as the shelf shows it."""
        return dict(next(p for p in self.ask("GET", "products") if p["id"] == self.feed.pk))

    def card(self, **more: str) -> None:
        """The feed's card with more on it, as its form sends it."""
        shown = self.shown()
        body = FEED | {"rates": [FEED["rates"][0] | {"id": shown["rates"][0]["id"]}], "version": shown["version"]}
        self.ask("PUT", f"products/{self.feed.pk}", body | more)

    def test_a_cards_own_days_and_words_go_before(self) -> None:
        """Fed on 2 August, day 9 of its card is the 11th and day 12 the 14th: on the 12th it is asked, once (by hand)."""
        self.card(looks="9 12", expect="Darker by the second mowing.")
        self.assertEqual(self.shown()["looks"], "9, 12")
        pk = self.fed("2026-08-02")
        (asked,) = self.due()
        self.assertEqual(asked["signs"][0], "Darker by the second mowing.")
        after = self.ask("GET", f"scouting/after/{pk}")
        self.assertEqual(after["signs"][0], {"name": "Its card", "text": "Darker by the second mowing."})
        self.card(looks="12")
        self.assertEqual(self.due(), [])
        shown = self.shown()
        wrong = FEED | {"rates": [FEED["rates"][0] | {"id": shown["rates"][0]["id"]}], "version": shown["version"], "looks": "36"}
        self.assertEqual(set(self.faults("PUT", f"products/{self.feed.pk}", wrong)), {"looks"})

    def test_the_house_says_how_often_one_looks(self) -> None:
        self.fed("2026-08-02")
        self.assertEqual(len(self.due()), 1)
        house = self.ask("GET", "house")
        body = {
            "answers": house["answers"] | {"look_after": "card"},
            "season_start": house["season_start"],
            "version": house["version"],
        }
        self.ask("PUT", "house", body)
        self.assertEqual(self.due(), [])

    def test_nobody_is_asked_too_early_or_of_what_is_long_over(self) -> None:
        self.fed("2026-08-10")
        self.assertEqual(self.due(), [])
        self.sprayed("2026-05-01")
        self.assertEqual(self.due(), [])

    def test_of_several_alike_the_latest_is_asked_for(self) -> None:
        first, second = self.fed("2026-07-15"), self.fed("2026-08-01")
        self.assertEqual([d["application_id"] for d in self.due()], [second])
        self.assertNotEqual(first, second)

    def test_bad_answers_name_their_field(self) -> None:
        pk = self.fed("2026-08-02")
        for body, field in (
            ({"how": "splendid"}, "how"),
            ({"how": "same", "on": "2026-08-01"}, "on"),
            ({"how": "same", "on": "2026-08-13"}, "on"),
        ):
            self.assertEqual(list(self.faults("POST", "scouting/followups", {"application_id": pk} | body)), [field])
        self.say(999, "same", 404)
        self.assertEqual(FollowUp.objects.count(), 0)

    def test_two_without_effect_are_told_with_what_else_to_do(self) -> None:
        """Fourteen days between them, by hand; the group is that of the card."""
        for on in ("2026-07-15", "2026-07-29"):
            pk = self.sprayed(on)
            self.say(pk, "same", on="2026-08-05")
        said = self.ask("GET", f"scouting/after/{pk}")
        self.assertEqual(said["without"], "2 applications against dollar spot within 14 days showed no effect: Test SC.")
        self.assertTrue(any("laboratory" in s for s in said["what_else"]))
        ahead = self.ask("GET", f"areas/{self.area.pk}/story")["ahead"]
        self.assertIn("No effect", [f["name"] for f in ahead])
        self.say(pk, "better", on="2026-08-10")
        self.assertEqual(self.ask("GET", f"scouting/after/{pk}")["without"], "")

    def test_it_stands_in_the_story_and_in_the_application_s_page(self) -> None:
        pk = self.fed("2026-08-02")
        self.say(pk, "harmed", note="Scorched by the gate", on="2026-08-06")
        event = next(e for e in self.ask("GET", f"areas/{self.area.pk}/story")["events"] if e["kind"] == "followup")
        self.assertEqual(
            (event["title"], event["link"], event["id"]), ("The turf is harmed, 4 days after Test 20-0-10", "book", pk)
        )
        said = self.ask("GET", f"scouting/after/{pk}")
        self.assertEqual([f["note"] for f in said["found"]], ["Scorched by the gate"])
        self.assertTrue(said["looks"].startswith("Look again on day 7 (9 August)"), said["looks"])

    def shot(self, spot: Spot | None, on: str, red: int) -> int:
        """A photograph of a spot on a day."""
        out = io.BytesIO()
        Image.new("RGB", (64, 48), (red, 120, 40)).save(out, "JPEG")
        told = PhotoIn(spot_id=spot and spot.pk, on=date.fromisoformat(on), clock="07:00")
        return add_photo(self.account, User.objects.get(username="manager-alder"), self.area, "a.jpg", out.getvalue(), told).pk

    def test_the_same_spots_stand_beside_the_question_before_and_since(self) -> None:
        """Applied on 2 August: 20 July is 13 days before, 11 August 9 days after (by hand)."""
        with tempfile.TemporaryDirectory() as folder, patch.object(pictures, "folder", return_value=Path(folder)):
            oak, elm, gone = (save_spot(self.account, self.area, SpotIn(name=n)) for n in ("Oak end", "Elm end", "Gone"))
            self.shot(oak, "2026-07-01", 10)
            before, first, since = (self.shot(oak, f"2026-{d}", i) for i, d in enumerate(("07-20", "08-05", "08-11"), start=20))
            same = self.shot(elm, "2026-08-02", 30)
            self.shot(None, "2026-08-11", 40)
            self.shot(gone, "2026-08-11", 50)
            remove_spot(self.account, gone.pk)
        pk = self.fed("2026-08-02")
        (asked,) = self.due()
        told = {s["name"]: (s["before"], s["since"]) for s in asked["spots"]}
        self.assertEqual(
            told,
            {
                "Oak end": (
                    {"id": before, "text": "Mon 20 Jul 2026, 13 days before"},
                    {"id": since, "text": "Tue 11 Aug 2026, 9 days after"},
                ),
                "Elm end": ({"id": same, "text": "Sun 2 Aug 2026, the same day"}, None),
            },
        )
        self.assertNotIn(first, [s["since"] and s["since"]["id"] for s in asked["spots"]])
        self.assertEqual(self.ask("GET", f"scouting/after/{pk}")["spots"], asked["spots"])

    def test_another_account_s_application_is_not_there(self) -> None:
        pk = self.fed("2026-08-02")
        make_account("birch")
        self.sign_in("manager", "birch")
        self.ask("GET", f"/api/accounts/birch/scouting/after/{pk}", expect=404)
        self.ask("POST", "/api/accounts/birch/scouting/followups", {"application_id": pk, "how": "same"}, 404)
