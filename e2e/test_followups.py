"""After an application, in the interface: one question on its day, what to expect, and how it was."""

import re
from datetime import timedelta
from typing import Any
from uuid import uuid4

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.book.models import Application
from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds.actions import record_done
from greenmeasure.rounds.schemas import DoneIn, FinishIn
from greenmeasure.scouting.models import FollowUp
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import make_account


class FollowUps(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.account = make_account("alder")
        self.let_in()
        self.area = Area.objects.get()
        self.user = self.account.memberships.get(role="manager").user

    def sprayed(self, days: int) -> Application:
        """The account's spray against dollar spot, some days ago."""
        spray, sprayer = Product.objects.get(name="Test SC"), Machine.objects.get(kind="sprayer")
        row = spray.rates.get()
        dose = {"row_id": row.pk, "rate": {"value": "0.6", "unit": "fl_oz/kft2"}}
        job: dict[str, Any] = {
            "mix": [{"product_id": spray.pk, "target": "Dollar spot"}],
            "machine_id": sprayer.pk,
            "parts": [{"area_id": self.area.pk, "doses": [dose]}],
            "on": str(clock.today(self.area) - timedelta(days=days)),
            "clock": "07:30",
        }
        used: dict[str, Any] = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        done = DoneIn(job=JobIn(**job), finish=FinishIn(**used), reason="It was so.")
        record_done(self.account, self.user, done, uuid4())
        return Application.objects.latest("pk")

    def test_one_question_is_answered_at_a_press_and_taken_back(self) -> None:
        self.sprayed(15)
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            FollowUp.objects.all().delete()
            self.account.touch()
            self.go("today")
            asked = self.page.get_by_role("group", name="How is it now on North green?")
            expect(asked).to_contain_text("15 days after Test SC against dollar spot. How is it now?")
            expect(asked).to_contain_text("Old spots go with growth")
            asked.get_by_role("button", name="Better").click()
            expect(self.page.get_by_text("North green: Better, 15 days after Test SC.")).to_be_visible()
            expect(asked).to_have_count(0)
            self.button("Undo").click()
            expect(asked).to_be_visible()
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])

    def test_two_without_effect_say_what_else_to_do(self) -> None:
        first, second = self.sprayed(24), self.sprayed(10)
        self.go(f"book/{first.pk}")
        expect(self.page.get_by_role("heading", name="Afterwards")).to_be_visible()
        for one in (first, second):
            self.go(f"book/{one.pk}")
            self.button("Say how it is now").click()
            self.pick("How it is", "The same")
            self.fill("Note", "As many as before")
            self.button("Note it").click()
            expect(self.page.get_by_text("As many as before")).to_be_visible()
        expect(
            self.page.get_by_text("2 applications against dollar spot within 14 days showed no effect", exact=False)
        ).to_be_visible()
        expect(self.page.get_by_text("Have a sample looked at", exact=False)).to_be_visible()
        self.page.get_by_role("button", name="Strike: The same").click()
        form = self.page.get_by_role("form", name=re.compile("^Strike The same"))
        form.get_by_label("Why it is struck").fill("It was the other green.")
        form.get_by_role("button", name="Strike it").click()
        expect(self.page.get_by_text("Struck by Manager alder: It was the other green.")).to_be_visible()
        expect(self.page.get_by_text("showed no effect", exact=False)).to_have_count(0)
