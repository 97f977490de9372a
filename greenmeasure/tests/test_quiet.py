"""Alarms are quiet when nothing is wrong: every product of the demo account, at a sound rate, on ground its label is for."""

from datetime import date

from django.test import Client, TestCase

from core.findings import Weight
from core.job import one, reckon
from core.label.match import fits
from core.label.rate import Rate
from core.ledger.gate import Plan, check
from core.ledger.history import applied
from core.ledger.ledger import plain
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.ground.queries import areas
from greenmeasure.shelf.queries import cards
from greenmeasure.tests.demo import load_demo

TRUE_OF_THE_GROUND = {
    "near-drain",
    "near-water",
    "seeding-ahead",
    "phosphorus-untested",
    "sulfur-once",
    "sulfur-not-needed",
    "ph-unknown",
}
"""What the demo ground deserves: the terrace's drain and pond, seed to come, no test for phosphorus, soils not alkaline."""


class Quiet(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        load_demo()

    def test_every_demo_product_on_every_ground_that_it_is_for(self) -> None:
        account = Account.objects.get(slug="alder-quay")
        seen = set()
        for card in cards(account).values():
            for area in areas(account).values():
                for found in fits(card.label_rows, area.ground):
                    low, high = found.row.label.lowest, found.row.label.highest
                    if not found.fits or not high.unit.per_area:
                        continue
                    rate = Rate((2 * low.value + high.value) / 3, high.unit)
                    job = reckon([card.core], [one(area.ground, rate, found.row.label)], None)
                    assert job.main.amount
                    day = date(2026, 6, 15)
                    done = applied(card.core, job.main.amount, area.ground.size, day, found.row)
                    plan = Plan(card.core, found.row, rate, done, card.label_rows, found.row.target)
                    loud = [f for f in check(plan, plain(area.ground)).findings if f.act is not Weight.NOTE]
                    where = f"{card.product.name} on {area.name}: {[f.sentence for f in loud]}"
                    self.assertLessEqual({f.key for f in loud}, TRUE_OF_THE_GROUND, where)
                    seen.add(card.product.name)
        self.assertGreaterEqual(len(seen), 18)

    def test_a_sound_plan_is_allowed_at_reckon(self) -> None:
        """The door asks the same gate: what is quiet there is let through here."""
        account = Account.objects.get(slug="alder-quay")
        client = Client()
        client.force_login(account.memberships.first().user, "django.contrib.auth.backends.ModelBackend")  # type: ignore[union-attr]
        asked = 0
        for card in cards(account).values():
            for area in areas(account).values():
                found = next((f for f in fits(card.label_rows, area.ground) if f.fits and f.row.label.unit.per_area), None)
                if found is None:
                    continue
                high = found.row.label.highest
                rate, row_id = Rate((2 * found.row.label.lowest.value + high.value) / 3, high.unit), list(card.rows)[found.index]
                part = {"area_id": area.pk, "doses": [{"row_id": row_id, "rate": {"value": rate.value, "unit": rate.unit.key}}]}
                mix = [{"product_id": card.product.pk, "target": found.row.target}]
                body = {"mix": mix, "parts": [part], "on": "2024-06-15"}
                said = client.post("/api/accounts/alder-quay/reckon/job", body, "application/json").json()
                refused = {f["key"] for f in said["parts"][0]["doses"][0]["findings"] if f["act"] == "refuse"}
                self.assertLessEqual(refused, TRUE_OF_THE_GROUND, f"{card.product.name} on {area.name}")
                asked += 1
        self.assertGreater(asked, 60)

    def test_and_the_same_products_are_loud_on_ground_that_they_are_not_for(self) -> None:
        account = Account.objects.get(slug="alder-quay")
        card = next(c for c in cards(account).values() if c.product.name == "Reedling ME")
        terrace = next(a for a in areas(account).values() if a.name == "Bowling green")
        fescue = next(r for r in card.label_rows if "tall_fescue" in r.grasses)
        rate = fescue.label.lowest
        done = applied(card.core, Quantity(1.0, UNITS["fl_oz"]), terrace.ground.size, date(2026, 6, 15), fescue)
        keys = {f.key for f in check(Plan(card.core, fescue, rate, done, card.label_rows), plain(terrace.ground)).findings}
        self.assertIn("grass-not-in-row", keys)
