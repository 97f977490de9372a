"""What the API tests share: two accounts, their people, and requests as the interface sends them."""

import json
from io import BytesIO
from typing import Any

from django.http import HttpResponse
from django.test import TestCase
from pypdf import PdfWriter

from greenmeasure.accounts.models import Account, Membership, Role, Site, User
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.kit.actions import save_machine
from greenmeasure.kit.models import Machine, Vessel
from greenmeasure.kit.schemas import MachineIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Lot, Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.sky.models import Station, Watch

AREA = {"name": "North green", "size": {"value": 7000, "unit": "ft2"}, "grass": "creeping_bentgrass"}
FUNGICIDE: dict[str, Any] = {
    "name": "Test SC",
    "kind": "fungicide",
    "formulation": "SC",
    "density": {"value": 9, "unit": "lb/gal"},
    "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
    "rates": [{"use": "preventive", "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft"}],
    "packages": [{"value": 1, "unit": "gal", "price": "320.00"}],
}
FEED: dict[str, Any] = {
    "name": "Test 20-0-10",
    "kind": "fertiliser",
    "formulation": "GR",
    "contents": [{"name": "N", "basis": "N", "amount": 20, "unit": "%"}],
    "rates": [{"phrase": "0.3 to 0.6 lb N per 1,000 sq ft"}],
}
SPRAYER = {
    "name": "Sprayer",
    "kind": "sprayer",
    "capacity": {"value": 4, "unit": "gal"},
    "output": {"value": 1, "unit": "gal/kft2"},
}
KINDS: dict[str, Any] = {
    "areas": Area,
    "products": Product,
    "machines": Machine,
    "vessels": Vessel,
    "members": Membership,
    "sites": Site,
}
SPREADER = {"name": "Spreader", "kind": "spreader", "capacity": {"value": 40, "unit": "lb"}}


def make_account(slug: str, units: str = "us") -> Account:
    """An account with a member of each role, called by role and slug, and one of each thing."""
    account = Account.objects.create(name=f"Account {slug}", slug=slug, units=units)
    Site.objects.create(account=account, name=f"Site {slug}", time_zone="America/New_York")
    for role in Role:
        user = User.objects.create(username=f"{role}-{slug}", full_name=f"{role.label} {slug}")
        user.set_password("long enough to pass")
        user.save()
        Membership.objects.create(account=account, user=user, role=role)
    save_area(account, AreaIn(**AREA))
    for product in (FUNGICIDE, FEED):
        save_product(account, ProductIn(**product))
    for machine in (SPRAYER, SPREADER):
        save_machine(account, MachineIn(**machine))
    return account


def pdf(pages: int = 1) -> bytes:
    """A PDF of empty pages."""
    made, out = PdfWriter(), BytesIO()
    for _ in range(pages):
        made.add_blank_page(200, 200)
    made.write(out)
    return out.getvalue()


class ApiTest(TestCase):
    """An account `alder` with its things, and helpers that speak JSON and report the error shape."""

    account: Account
    area: Area
    spray: Product
    feed: Product
    sprayer: Machine
    spreader: Machine

    @classmethod
    def setUpTestData(cls) -> None:
        cls.account = make_account("alder")
        cls.area = Area.objects.get(account=cls.account)
        cls.spray, cls.feed = Product.objects.get(name="Test SC"), Product.objects.get(name="Test 20-0-10")
        cls.sprayer, cls.spreader = Machine.objects.get(kind="sprayer"), Machine.objects.get(kind="spreader")

    def setUp(self) -> None:
        self.sign_in("manager")

    def sign_in(self, role: str, slug: str = "alder") -> None:
        self.client.force_login(User.objects.get(username=f"{role}-{slug}"), "django.contrib.auth.backends.ModelBackend")

    def ask(self, method: str, path: str, body: Any = None, expect: int = 200, key: str = "") -> Any:
        """Ask the account's API and give back what it says, having checked the status; `key` makes it count once."""
        url = f"/api/accounts/alder/{path}" if not path.startswith("/") else path
        if method == "PUT" and "version" not in (body or {}):
            body = (body or {}) | {"version": self.version_of(path)}
        answer: HttpResponse = self.client.generic(
            method,
            url,
            json.dumps(body) if body is not None else "",
            content_type="application/json",
            headers={"Idempotency-Key": key} if key else {},
        )
        self.assertEqual(answer.status_code, expect, answer.content.decode()[:800])
        return json.loads(answer.content) if answer.content else None

    def version_of(self, path: str) -> int:
        """The version that a form would have been filled from, were it opened just now."""
        match path.split("?")[0].strip("/").split("/"):
            case ["products", _, "lots", lot]:
                found: Any = Lot.objects.filter(pk=lot).first()
            case [kind, pk] if kind in KINDS:
                found = KINDS[kind].objects.filter(pk=pk).first()
            case ["passes", "areas", pk, "places"]:
                found = Area.objects.filter(pk=pk).first()
            case ["sky", "areas", pk, "watch", disease]:
                found = Watch.objects.filter(area_id=pk, disease=disease).first()
            case ["sky", "station"]:
                found = Station.objects.filter(account__slug="alder").first()
            case _:
                found = Account.objects.get(slug="alder")
        return found.version if found else 0

    def faults(self, method: str, path: str, body: Any) -> dict[str, str]:
        """The fields that a refused request names, with their problems."""
        said = self.ask(method, path, body, 422)
        for field in said["fields"]:
            self.assertTrue(field["problem"], field)
        return {f["field"]: f["problem"] for f in said["fields"]}

    def job(self, **more: Any) -> dict[str, Any]:
        """A spray job on the green, within the label; what is of its one area may be given by name."""
        part = {
            "area_id": self.area.pk,
            "doses": [{"row_id": self.spray.rates.get().pk, "rate": {"value": "0.6", "unit": "fl_oz/kft2"}}],
        }
        return self._job(part, {"machine_id": self.sprayer.pk, "passes": 1}, self.spray.pk, more)

    def feed_job(self, **more: Any) -> dict[str, Any]:
        """A granular job on the green, by nitrogen."""
        part = {
            "area_id": self.area.pk,
            "doses": [{"row_id": self.feed.rates.get().pk, "rate": {"value": 0.5, "unit": "lb/kft2:N"}}],
        }
        return self._job(part, {"machine_id": self.spreader.pk, "passes": 1}, self.feed.pk, more)

    def _job(self, part: dict[str, Any], job: dict[str, Any], product: int, more: dict[str, Any]) -> dict[str, Any]:
        own = {k: more.pop(k) for k in ("area_id", "share", "treated", "zone") if k in more}
        dose = part["doses"][0] | {k: more.pop(k) for k in ("row_id", "rate") if k in more}
        mix = {"product_id": more.pop("product_id", product), "target": more.pop("target", "")}
        return job | {"mix": [mix], "parts": [part | own | {"doses": [dose]}]} | more
