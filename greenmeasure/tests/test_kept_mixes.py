"""Mixes kept by name and days of the book called back: by the page, and by the reckon line."""

from typing import Any

from greenmeasure.common.clock import today
from greenmeasure.reckon.models import KeptMix
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import AREA
from greenmeasure.tests.test_mixes import AMOUNTS, IRON, MixTest


class Kept(MixTest):
    def keep(self, name: str = "Summer tank", expect: int = 201, **more: Any) -> Any:
        return self.ask("POST", "mixes", {"name": name, "job": self.whole(on="2026-08-12", clock="06:00") | more}, expect)

    def line(self, text: str, expect: int = 200) -> Any:
        return self.ask("POST", "reckon/line", {"line": text}, expect)

    def test_it_comes_back_as_it_was_without_its_day(self) -> None:
        made = self.keep()
        self.assertEqual((made["products"], made["where"]), ("Test SC, Iron SL, Sticker and Dye", "North green"))
        found = self.ask("GET", f"mixes/{made['id']}")
        self.assertEqual(found["notes"], [])
        self.assertIsNone(found["job"]["on"])
        again = self.ask("POST", "reckon/job", found["job"])
        amounts = [c["amount"] and c["amount"]["text"] for c in again["mix"]]
        self.assertEqual(amounts, AMOUNTS)  # as the mix itself is reckoned

    def test_what_has_changed_since_is_told(self) -> None:
        made = self.keep()
        self.ask("DELETE", f"products/{self.cards['Iron SL']['id']}")
        Product.objects.get(name="Test SC").rates.update(phrase="0.5 to 0.9 fl oz per 1,000 sq ft")
        Product.objects.get(name="Sticker").rates.all().delete()
        Product.objects.get(name="Sticker").rates.create(phrase="0.25 to 0.5% v/v", position=0)
        self.account.refresh_from_db()
        self.account.touch()
        self.ask("DELETE", f"machines/{self.sprayer.pk}")
        found = self.ask("GET", f"mixes/{made['id']}")
        self.assertEqual(
            found["notes"], ["Iron SL has been put away and is left out.", "Sprayer has been put away and is left out."]
        )
        self.assertEqual(len(found["job"]["mix"]), 3)
        self.assertIsNone(found["job"]["machine_id"])
        # The sticker's row was typed anew with the same words: it is found by them.
        doses = found["job"]["parts"][0]["doses"]
        self.assertEqual(doses[1]["row_id"], Product.objects.get(name="Sticker").rates.get().pk)

    def test_nothing_of_it_is_left(self) -> None:
        made = self.keep()
        self.ask("POST", "areas", AREA | {"name": "Other"}, 201)
        self.ask("DELETE", f"areas/{self.area.pk}")
        self.assertIn("Nothing of Summer tank", self.ask("GET", f"mixes/{made['id']}", None, 409)["message"])

    def test_names_and_jobs_that_cannot_be(self) -> None:
        self.keep()
        self.assertEqual(self.keep("summer  TANK", 422)["fields"][0]["field"], "name")
        self.assertEqual(self.keep(" ", 422)["fields"][0]["field"], "name")
        self.assertEqual(self.keep("Other", 422, passes=99)["fields"][0]["field"], "passes")
        self.assertEqual(KeptMix.objects.count(), 1)

    def test_put_away_and_back(self) -> None:
        pk = self.keep()["id"]
        self.ask("DELETE", f"mixes/{pk}")
        self.assertEqual(self.ask("GET", "mixes"), [])
        self.ask("POST", f"mixes/{pk}/put-back", {})
        self.assertEqual([m["name"] for m in self.ask("GET", "mixes")], ["Summer tank"])

    def test_a_viewer_opens_and_keeps_none(self) -> None:
        pk = self.keep()["id"]
        self.sign_in("viewer")
        self.ask("GET", f"mixes/{pk}")
        self.keep("Other", 403)

    # --- on the line

    def test_by_its_name(self) -> None:
        # 0.6 fl oz/1000 ft² on 7,000 and on 1,000 ft² (arithmetic).
        self.keep()
        bank = self.ask("POST", "areas", AREA | {"name": "Bank", "size": {"value": 1000, "unit": "ft2"}}, 201)
        self.assertIn("4.2 fl oz", self.line("summer tank")["sentence"])
        said = self.line("mix Summer tank on Bank with Sprayer in 2 passes")
        self.assertEqual((said["job"]["parts"][0]["area_id"], said["job"]["passes"]), (bank["id"], 2))
        self.assertIn("0.6 fl oz of Test SC", said["sentence"])
        self.assertEqual(self.line("Summer tank on half of Bank")["job"]["parts"][0]["share"], "50 %")
        self.assertIn("Name the area", self.line("Summer tank on 500 ft2", 422)["fields"][0]["remedy"])
        self.line("Summer tank mowed", 422)

    def test_as_on_a_day(self) -> None:
        # 0.6 fl oz/1000 ft² on 7,000 ft².
        begun = self.ask("POST", "rounds", self.mix(("Test SC", 0.6), ("Iron SL", 3)), 201)
        used = [{"amount": {"value": v, "unit": "fl_oz"}} for v in (4.2, 21)]
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": used})
        for text in ("as on 12 Aug", "same as on Aug 12", "As on 12th August 2026", "as on 2026-08-12 on North green"):
            said = self.line(text)
            self.assertEqual([len(said["job"]["mix"]), said["job"]["machine_id"]], [2, self.sprayer.pk], text)
            self.assertIn("4.2 fl oz of Test SC", said["sentence"])
        missed = self.line("as on 4 Aug", 422)["fields"][0]
        self.assertIn("Nothing is in the book for 4 August", missed["problem"])
        self.assertEqual([c["text"] for c in missed["choices"]], [f"as on {today(self.account)}"])
        self.line("as on 31 Feb", 422)
        self.line("as on Tuesday", 422)
        self.line("as on 12 Aug on Nowhere", 422)

    def test_several_jobs_of_a_day_are_asked_back(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        for area in (self.area.pk, bank):
            job = self.mix(("Iron SL", 3))
            job["parts"][0]["area_id"] = area
            begun = self.ask("POST", "rounds", job, 201)
            self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 21, "unit": "fl_oz"}}]})
        asked = self.line("as on 12 Aug", 422)["fields"][0]
        choices = [c["text"] for c in asked["choices"]]
        self.assertEqual(sorted(choices), ["as on 2026-08-12 on Bank", "as on 2026-08-12 on North green"])
        for text in choices:  # a choice that is offered can be taken
            self.assertEqual(len(self.line(text)["job"]["parts"]), 1)
        self.assertIn(IRON["name"], asked["choices"][0]["meaning"])
