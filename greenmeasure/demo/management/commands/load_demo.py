"""Load the demo club from the open files in demo/. Running it again changes nothing that is there."""

import json
import uuid
from datetime import date, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction

from greenmeasure.accounts.models import Club, Membership, User
from greenmeasure.ground.actions import add_measurement, add_reading, save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn, MeasurementIn, SoilReadingIn
from greenmeasure.kit.actions import clean, keep_calibration, save_machine
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import CalibrationIn, CleaningIn, MachineIn
from greenmeasure.reckon.schemas import PartIn
from greenmeasure.rounds.actions import finish_round, start_round
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import FinishIn, StartIn
from greenmeasure.shelf.actions import save_lot, save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import LotIn, ProductIn
from greenmeasure.water.actions import keep_audit
from greenmeasure.water.schemas import AuditIn

KEYS = uuid.UUID("5d1f3f6e-2f0b-4c53-9f4e-6a0b6d8e2a11")
MEASURED_ON = date(2025, 3, 12)


def read(name: str) -> Any:
    return json.loads((Path(settings.ROOT) / "demo" / name).read_text(encoding="utf-8"))


class Command(BaseCommand):
    help = "Load the demo club, Alder Quay Lawn Sports Trust. Twice is as good as once."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        about = read("club.json")
        club, _ = Club.objects.get_or_create(
            slug=about["slug"], defaults={k: about[k] for k in ("name", "units", "time_zone", "currency", "house")}
        )
        people = {m["username"]: self.person(club, m, about["password"]) for m in about["members"]}
        manager = people[about["members"][0]["username"]]
        for given in read("areas.json"):
            if not Area.objects.filter(club=club, name=given["name"]).exists():
                self.area(club, manager, given)
        for given in read("products.json"):
            if not Product.objects.filter(club=club, name=given["name"]).exists():
                made = save_product(club, ProductIn(**given))
                for lot in given.get("lots", ()):
                    save_lot(made, LotIn(**lot))
        for given in read("machines.json"):
            if not Machine.objects.filter(club=club, name=given["name"]).exists():
                save_machine(club, MachineIn(**given))
        club.refresh_from_db()
        events = [(g["at"], self.entry, g) for g in read("book.json")]
        events += [(g["at"], self.cleaned if "clean" in g else self.calibrated, g) for g in read("kit.json")]
        for _, keep, given in sorted(events, key=lambda e: e[0]):
            club.refresh_from_db()
            keep(club, people[given["by"]], given)
        for given in read("water.json"):
            self.water(club, people[given["by"]], given)
        first = about["members"][0]["username"]
        self.stdout.write(f"{club.name} is loaded. Sign in as {first} with the password {about['password']}")

    def person(self, club: Club, given: dict[str, str], password: str) -> User:
        user, new = User.objects.get_or_create(username=given["username"], defaults={"full_name": given["full_name"]})
        if new:
            user.set_password(password)
            user.save()
        Membership.objects.get_or_create(club=club, user=user, defaults={"role": given["role"]})
        return user

    def area(self, club: Club, by: User, given: dict[str, Any]) -> None:
        """An area with its measurements and its soil readings; `part_of` names the area that it is a part of."""
        parent = Area.objects.get(club=club, name=given["part_of"]) if "part_of" in given else None
        made = save_area(club, AreaIn(**given, parent_id=parent.pk if parent else None, height_on=MEASURED_ON), by=by)
        made.measurements.update(taken_on=MEASURED_ON)
        for again in given.get("again", ()):
            add_measurement(made, MeasurementIn(**again, taken_on=date(2026, 3, 10)), by)
        for reading in given.get("soil", ()):
            add_reading(made, SoilReadingIn(**reading))

    def calibrated(self, club: Club, user: User, given: dict[str, Any]) -> None:
        """One calibration by a bench, on its day, unless it is kept already."""
        machine = Machine.objects.get(club=club, name=given["machine"])
        figures, on = given["figures"], date.fromisoformat(given["at"][:10])
        if machine.calibrations.filter(taken_on=on, method=figures["method"], setting=figures.get("setting")).exists():
            return
        product = Product.objects.get(club=club, name=given["product"]).pk if "product" in given else None
        if product:
            figures = figures | {"product_id": product}
        keep_calibration(machine, user, CalibrationIn(
            figures=figures, taken_on=on, expires_on=given.get("expires_on"), weather=given.get("weather", ""),
            note=given.get("note", ""),
        ))  # fmt: skip

    def cleaned(self, club: Club, user: User, given: dict[str, Any]) -> None:
        """One cleaning, unless it is noted already."""
        machine, at = Machine.objects.get(club=club, name=given["machine"]), datetime.fromisoformat(given["at"])
        if not machine.cleanings.filter(at=at).exists():
            clean(machine, user, CleaningIn(steps=given["clean"], note=given.get("note", "")), at)

    def water(self, club: Club, user: User, given: dict[str, Any]) -> None:
        """One catch-can audit, with a task for each dry spot where it says so."""
        area = Area.objects.get(club=club, name=given["area"])
        if not area.water.filter(taken_on=given["on"]).exists():
            keep_audit(area, user, AuditIn(**given, taken_on=given["on"]), given.get("tasks", False))

    def entry(self, club: Club, user: User, given: dict[str, Any]) -> None:
        """One round through the application's own use cases, unless it is in the book already."""
        key = uuid.uuid5(KEYS, f"{given['at']} {given['area']} {given['product']}")
        if Round.objects.filter(club=club, key=key).exists():
            return
        product = Product.objects.get(club=club, name=given["product"], archived_at=None)
        row = product.rates.all()[given["rate"]]
        area = Area.objects.get(club=club, name=given["area"])
        at = datetime.fromisoformat(given["at"])
        rate = {"value": given["value"], "unit": row.label().highest.unit.key}
        part = PartIn(area_id=area.pk, row_id=row.pk, rate=rate)
        start = StartIn(
            key=key, product_id=product.pk, parts=[part], passes=given["passes"], target=row.target,
            machine_id=Machine.objects.get(club=club, name=given["machine"]).pk,
        )  # fmt: skip
        begun = start_round(club, user, start, at)
        used = {"value": round(begun.amount_value * given["share"], 2), "unit": begun.amount_unit}
        spray = None
        if "sprayed" in given and begun.spray_litres:
            spray = {"value": round(begun.spray_litres * given["sprayed"], 3), "unit": "l"}
        finish = FinishIn(
            used=used, wind=given["wind"], air=given["air"], note=given["note"], spray=spray, setting=given.get("setting", ""),
        )  # fmt: skip
        finish_round(begun, user, finish, at)
