"""A metric account is spoken to in metric, on every path; only a label in US units brings US units in."""

import json
import re
from typing import Any

from django.test import TestCase

from greenmeasure.accounts.models import User
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.kit.actions import save_machine
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import MachineIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import make_account

US = re.compile(r"\b(fl oz|oz wt|lb|gal|qt|pt|acre|ft²|1000 ft|°F|yd)\b")
TOLD = {"55 °F (13 °C)"}  # both are said
OFFERED = {"units", "key", "unit", "choices", "ways", "also"}

LAWN: dict[str, Any] = {
    "name": "Lawn",
    "size": {"value": 1250, "unit": "m2"},
    "grass": "tall_fescue",
    "height": {"value": 45, "unit": "mm"},
    "texture": "loam",
    "use": "lawn",
}
SPRAY: dict[str, Any] = {
    "name": "Moth SC",
    "kind": "fungicide",
    "formulation": "SC",
    "density": {"value": 1.08, "unit": "kg/l"},
    "contents": [{"name": "fludioxonil", "basis": "active", "amount": 230, "unit": "g/l"}],
    "rates": [{"phrase": "1.2 to 2.4 L/ha"}],
    "packages": [{"value": 1, "unit": "l", "price": "96.00"}],
}
FEED: dict[str, Any] = {
    "name": "Clover 18-3-9",
    "kind": "fertiliser",
    "formulation": "GR",
    "contents": [{"name": n, "basis": n, "amount": a, "unit": "%"} for n, a in (("N", 18), ("P2O5", 3), ("K2O", 9))],
    "rates": [{"phrase": "2 to 4 kg per 100 m2"}],
    "packages": [{"value": 20, "unit": "kg", "price": "31.00"}],
}
BOOM: dict[str, Any] = {
    "name": "Boom",
    "kind": "sprayer",
    "capacity": {"value": 60, "unit": "l"},
    "output": {"value": 400, "unit": "l/ha"},
}
BARROW: dict[str, Any] = {"name": "Barrow", "kind": "spreader", "capacity": {"value": 25, "unit": "kg"}}


class Metric(TestCase):
    area: Area
    spray: Product
    feed: Product
    boom: Machine
    barrow: Machine

    @classmethod
    def setUpTestData(cls) -> None:
        account = make_account("linden", "metric")
        Area.objects.all().delete()
        Product.objects.all().delete()
        Machine.objects.all().delete()
        cls.area = save_area(account, AreaIn(**LAWN))
        cls.spray, cls.feed = (save_product(account, ProductIn(**card)) for card in (SPRAY, FEED))
        cls.boom, cls.barrow = (save_machine(account, MachineIn(**card)) for card in (BOOM, BARROW))

    def setUp(self) -> None:
        self.client.force_login(User.objects.get(username="manager-linden"), "django.contrib.auth.backends.ModelBackend")

    def ask(self, method: str, path: str, body: Any = None, expect: int = 200) -> Any:
        answer = self.client.generic(
            method, f"/api/accounts/linden/{path}", json.dumps(body) if body is not None else "", content_type="application/json"
        )
        self.assertEqual(answer.status_code, expect, answer.content.decode()[:600])
        return json.loads(answer.content)

    def metric(self, said: Any) -> Any:
        """Every text in an answer is free of US units, but for what is offered to pick from and the dose in every unit."""
        for where, text in self._texts(said):
            for both in TOLD:
                text = text.replace(both, "")
            self.assertIsNone(US.search(text), f"{where}: {text}")
        return said

    def _texts(self, said: Any, where: str = "") -> list[tuple[str, str]]:
        if isinstance(said, dict):
            return [t for k, v in said.items() if k not in OFFERED for t in self._texts(v, f"{where}.{k}")]
        if isinstance(said, list):
            return [t for v in said for t in self._texts(v, where)]
        return [(where, said)] if isinstance(said, str) else []

    def job(self, product: Any, machine: Any, value: float, unit: str) -> dict[str, Any]:
        part = {"area_id": self.area.pk, "doses": [{"row_id": product.rates.get().pk, "rate": {"value": value, "unit": unit}}]}
        return {"mix": [{"product_id": product.pk}], "machine_id": machine.pk, "passes": 1, "parts": [part]}

    def test_a_spray_from_job_to_book(self) -> None:
        """0.125 ha at 1.8 L/ha is 225 mL; at 400 L/ha 50 L of spray (arithmetic)."""
        job = self.job(self.spray, self.boom, 1.8, "l/ha")
        said = self.metric(self.ask("POST", "reckon/job", job))
        self.assertEqual(said["headline"], "Pour 225 mL of Moth SC for Lawn: one tank of 50 L.")
        begun = self.metric(self.ask("POST", "rounds", job, 201))
        used = {"used": [{"amount": {"value": 240, "unit": "ml"}}]}
        entry = self.metric(self.ask("POST", f"rounds/{begun['id']}/finish", used))[0]
        self.assertEqual(entry["entries"][0]["actual"], "1.92 L/ha")
        self.metric(self.ask("GET", f"book/{entry['id']}"))
        self.metric(self.ask("GET", "book"))

    def test_a_feed_over_what_is_usual(self) -> None:
        """12 kg/100 m² of 18 % N is 216 kg N/ha, against 2 to 4 lb/1000 ft², which is 97.6 to 195 kg/ha."""
        said = self.metric(self.ask("POST", "reckon/job", self.job(self.feed, self.barrow, 12, "kg/m2_100")))
        line = next(x for x in said["parts"][0]["doses"][0]["budget"] if x["key"] == "nutrient:N")
        self.assertEqual(line["total_text"], "216 kg N/ha")
        self.assertEqual(line["whose"], "usual for tall fescue: 97.6 to 195 kg/ha a season")
        self.assertTrue(line["over"])

    def test_backwards_side_by_side_and_measuring(self) -> None:
        row = self.feed.rates.get().pk
        back = {
            "mode": "used",
            "product_id": self.feed.pk,
            "row_id": row,
            "area_id": self.area.pk,
            "share": "",
            "amount": {"value": 50, "unit": "kg"},
        }
        self.assertIn("4 kg/100 m²", self.metric(self.ask("POST", "reckon/backwards", back))["sentence"])
        both = {"area_id": self.area.pk, "product_ids": [self.feed.pk, self.spray.pk]}
        rows = self.metric(self.ask("POST", "reckon/compare", both))["rows"]
        self.assertEqual({r["product"] for r in rows}, {"Clover 18-3-9", "Moth SC"})
        cup = {"mark": {"value": 100, "unit": "ml"}, "weight": {"value": 99, "unit": "g"}}
        self.metric(self.ask("POST", "reckon/cup", cup))

    def test_ground_soil_shelf_kit_and_today(self) -> None:
        for spot in ("gate", "middle", "far end"):
            reading = {"spot": spot, "taken_on": "2026-04-02", "ph": 7.6, "depth": {"value": 10, "unit": "cm"}}
            self.ask("POST", f"areas/{self.area.pk}/soil", reading, 201)
        plan = self.ask("POST", f"areas/{self.area.pk}/ph", {"target": 6.5, "start": "2026-04-10"})
        self.metric(plan | {"working": []})  # the working begins at the table, which is in lb/acre
        self.assertIn("kg/100 m² of a product of 90 % sulfur", plan["sentence"])
        for path in ("areas", f"areas/{self.area.pk}", "products", "machines", "today"):
            self.metric(self.ask("GET", path))
