"""The plan that is made, in the interface: asked, watched, stopped, taken; and a late, rainy, understocked fortnight."""

from datetime import date, datetime, timedelta
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from playwright.sync_api import expect

from e2e.base import PHONE, BrowserTest
from greenmeasure.accounts.models import Account
from greenmeasure.programme.models import Step
from greenmeasure.programme.queries import placed, turn_out
from greenmeasure.shelf.models import Lot, Product
from greenmeasure.sky.models import Reading
from greenmeasure.tests.base import make_account
from greenmeasure.tests.planned import make_shelf, make_station

START = datetime(2026, 6, 15, 8, 20, tzinfo=ZoneInfo("America/New_York"))


class Plan(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.at(START)
        self.account = make_account("alder")
        Product.objects.filter(name="Test SC").delete()
        make_shelf(self.account)
        self.mast = make_station(self.account, self.account.areas.get().site, START)
        self.let_in()

    def at(self, when: datetime) -> None:
        """Let it be another time."""
        held = patch("greenmeasure.common.clock.now", return_value=when)
        held.start()
        self.addCleanup(held.stop)

    def made(self) -> None:
        self.button("Make the plan").click()
        expect(self.page.get_by_role("heading", name="In ten made-up years")).to_be_visible()

    def open_turns(self) -> list[Any]:
        account = Account.objects.get(pk=self.account.pk)
        return [(p, turn_out(account, p)) for p in placed(account, 2026) if p.stand.open]

    def test_asked_watched_read_and_taken(self) -> None:
        self.go("season/plan")
        self.says("What should go down where and when this year?")
        self.made()
        self.says("risk days covered")
        expect(self.page.get_by_text("No plan within the rules costs less, risk counted.")).to_be_visible()
        first = self.page.locator("tr[data-outing]").first
        first.get_by_role("button").click()
        why = self.page.get_by_role("region", name="on North green").first
        expect(why).to_contain_text("Leaving it out loses")
        expect(why.get_by_role("list", name="What else could have been")).to_contain_text("risk counted")
        expect(self.page.locator("tr[data-rival]")).to_have_count(5)
        expect(self.page.locator("tr[data-exam]")).to_have_count(4)
        outings = self.page.locator("tr[data-outing]").count()
        self.button("Take this plan").click()
        self.page.wait_for_url("**/season/programme*")
        expect(self.page.locator("[data-turn]").nth(outings - 1)).to_be_visible()
        self.assertTrue(Step.objects.filter(made=True).exists())
        expect(self.page.locator("[data-against]")).to_have_count(0)

    def test_a_fault_stands_beside_its_field_and_what_was_asked_is_kept(self) -> None:
        self.go("season/plan")
        self.fill("Worth it from", "soon")
        self.button("Make the plan").click()
        expect(self.page.get_by_role("textbox", name="Worth it from")).to_be_focused()
        self.page.reload()
        expect(self.page.get_by_role("textbox", name="Worth it from")).to_have_value("soon")

    def test_it_is_stopped(self) -> None:
        self.go("season/plan")
        self.page.route("**/plans/make", lambda route: None)  # it never answers
        self.button("Make the plan").click()
        expect(self.page.get_by_role("progressbar", name="How far the plan is")).to_be_visible()
        self.button("Stop it").click()
        expect(self.page.get_by_role("progressbar")).to_have_count(0)
        expect(self.button("Make the plan")).to_be_enabled()

    def test_a_late_rainy_understocked_fortnight(self) -> None:
        """A plan is taken, then nothing is done for ten days: it rains through them, a jug is dropped, and no more may be bought.

        Planned anew, the change is told with its cost before it is taken, and every turn of it passes the gate.
        """
        self.page.set_viewport_size(PHONE)
        self.go("season/plan")
        self.page.get_by_text("Feed as the grass grows").click()
        self.made()
        self.button("Take this plan").click()
        self.page.wait_for_url("**/season/programme*")
        first = min(date.fromisoformat(s.when["begin"]) for s in Step.objects.all())
        late = datetime.combine(first, START.timetz()) + timedelta(days=10)
        self.at(late)
        for name, left in (("Alpha SC", 4.0), ("Beta SC", 3.0)):
            Lot.objects.create(product=Product.objects.get(name=name), number="A", left_value=left, left_unit="fl_oz")
        wet: dict[str, Any] = {"source": "csv", "air": 21.0, "humidity": 97.0, "rain": 0.6, "wind": 1.5}
        gone = timedelta(days=10 + (first - START.date()).days)
        hours = Reading.objects.filter(station=self.mast).order_by("-at")[:240]
        Reading.objects.bulk_create(Reading(station=self.mast, at=r.at + gone, **wet) for r in hours)
        self.mast.renew()
        self.account.touch("shelf", "stock", "sky")
        self.go("season")
        expect(self.page.get_by_text("late").first).to_be_visible()
        self.go("season/plan")
        self.page.get_by_text("More than the shelf holds may be bought").click()
        self.made()
        expect(self.page.get_by_text("Against the plan that stands:")).to_be_visible()
        expect(self.page.get_by_role("heading", name="What changes")).to_be_visible()
        self.button("Take this plan").click()
        self.page.wait_for_url("**/season/programme*")
        turns = self.open_turns()
        self.assertTrue(turns)
        self.assertEqual([out.refused for _, out in turns if out.refused], [])
        self.assertTrue(all(p.standing.turn.begin >= late.date() for p, _ in turns))
        used: dict[str, float] = {}
        for p, _ in turns:
            for part in p.step.products.all():
                used[part.product.name] = used.get(part.product.name, 0.0) + part.rate.value * 7  # of 7,000 ft²
        self.assertLessEqual(used.get("Alpha SC", 0.0), 4.0 + 1e-6)
        self.assertLessEqual(used.get("Beta SC", 0.0), 3.0 + 1e-6)
