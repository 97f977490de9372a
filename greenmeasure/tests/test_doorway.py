"""A refused request stores nothing, whatever its work had done before it was refused."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from core.errors import InputError
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict
from greenmeasure.ground.models import Area
from greenmeasure.season.models import Planned
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import FUNGICIDE, ApiTest


class Refused(ApiTest):
    def test_a_plan_that_is_refused_does_not_stand_in_the_calendar(self) -> None:
        """The label lists the disease, so that the window is taken; then nothing is due against it, and the answer says so."""
        rates = [FUNGICIDE["rates"][0] | {"target": "Dollar spot"}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rates})
        begin = clock.now() + timedelta(days=2)
        window = {"begin": begin.isoformat(), "end": (begin + timedelta(hours=2)).isoformat()}
        body = {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.spray.pk} | window
        self.ask("POST", "season/planned", body, 422)
        self.assertEqual(Planned.objects.count(), 0)
        self.assertNotIn(b"BEGIN:VEVENT", self.client.get("/api/accounts/alder/outings/ahead.ics").content)

    def test_what_a_door_had_written_is_undone_when_it_refuses(self) -> None:
        def then(wrong: Exception) -> Any:
            return patch("greenmeasure.ground.queries.area_out", side_effect=wrong)

        body = {"name": "Bank", "size": {"value": 900, "unit": "ft2"}, "grass": "mixed"}
        before = self.client.get("/api/accounts/alder/areas").content
        for wrong, status in ((InputError("name", "", "No."), 422), (Conflict("No."), 409), (KeyError("no"), 500)):
            self.client.raise_request_exception = False
            with then(wrong):
                self.ask("POST", "areas", body, status)
            self.assertFalse(Area.objects.filter(name="Bank").exists(), status)
        self.assertEqual(self.client.get("/api/accounts/alder/areas").content, before)

    def test_a_reader_opens_no_transaction(self) -> None:
        with patch("greenmeasure.common.doorway.transaction.atomic", side_effect=AssertionError("a reader took the lock")):
            self.ask("POST", "reckon/job", self.job())
            self.ask("GET", "areas")

    def test_what_is_taken_is_kept(self) -> None:
        self.ask("DELETE", f"products/{self.spray.pk}")
        self.assertIsNotNone(Product.objects.get(pk=self.spray.pk).archived_at)
