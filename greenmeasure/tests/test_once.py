"""What happens counts once: keys over a lost answer, two who finish at once, and stock that two take from."""

import json
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, connection, connections, transaction
from django.test import Client, TransactionTestCase

from greenmeasure.accounts.models import Sent, User
from greenmeasure.book.models import Application, Entry
from greenmeasure.ground.models import Area, SoilReading
from greenmeasure.kit.models import Machine
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import Lot, Product
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest, make_account, pdf


class AtOnce(TransactionTestCase):
    """Several requests in several threads, each on a connection of its own, let go at the same moment."""

    def setUp(self) -> None:
        self.account = make_account("alder")
        self.area = Area.objects.get()
        self.spray = Product.objects.get(name="Test SC")

    def client_of(self, role: str) -> Client:
        client = Client()
        client.force_login(User.objects.get(username=f"{role}-alder"), "django.contrib.auth.backends.ModelBackend")
        return client

    def post(self, client: Client, path: str, body: Any = None, key: str = "") -> tuple[int, Any]:
        headers = {"Idempotency-Key": key} if key else {}
        answer = client.post(f"/api/accounts/alder/{path}", json.dumps(body or {}), "application/json", headers=headers)
        return answer.status_code, json.loads(answer.content)

    def together(self, *calls: Callable[[Client], tuple[int, Any]]) -> list[tuple[int, Any]]:
        gate = Barrier(len(calls))

        def run(call: Callable[[Client], tuple[int, Any]]) -> tuple[int, Any]:
            client = self.client_of("applicator")
            gate.wait()
            try:
                return call(client)
            finally:
                connections.close_all()

        with ThreadPoolExecutor(len(calls)) as pool:
            return list(pool.map(run, calls))

    def start(self) -> int:
        row = self.spray.rates.get().pk
        part = {"area_id": self.area.pk, "doses": [{"row_id": row, "rate": {"value": "0.6", "unit": "fl_oz/kft2"}}]}
        body = {"mix": [{"product_id": self.spray.pk}], "machine_id": Machine.objects.get(kind="sprayer").pk, "parts": [part]}
        status, said = self.post(self.client_of("applicator"), "rounds", body)
        self.assertEqual(status, 201, said)
        return int(said["id"])

    def finish(self, pk: int, **more: Any) -> Callable[[Client], tuple[int, Any]]:
        body = {"used": [{"amount": {"value": "4.2", "unit": "fl_oz"}}]} | more
        return lambda client: self.post(client, f"rounds/{pk}/finish", body)

    def test_two_who_finish_at_once_write_one_entry(self) -> None:
        for _ in range(5):
            pk = self.start()
            said = self.together(self.finish(pk), self.finish(pk))
            self.assertEqual([status for status, _ in said], [200, 200])
            self.assertEqual(Application.objects.filter(round=pk).count(), 1)
            self.assertEqual(said[0][1][0]["id"], said[1][1][0]["id"])

    def test_a_round_is_given_up_or_in_the_book_never_both(self) -> None:
        for _ in range(5):
            pk = self.start()
            said = self.together(self.finish(pk), lambda client, pk=pk: self.post(client, f"rounds/{pk}/give-up"))  # type: ignore[misc]
            self.assertEqual(sorted(status for status, _ in said), [200, 409])
            done = Round.objects.get(pk=pk).status == Round.Status.DONE
            self.assertEqual(Application.objects.filter(round=pk).count(), int(done))

    def test_eight_who_take_from_one_lot_all_take(self) -> None:
        lot = Lot.objects.create(product=self.spray, number="L", left_value=100.0, left_unit="fl_oz")
        rounds = [self.start() for _ in range(8)]
        used = [{"amount": {"value": "4.2", "unit": "fl_oz"}, "lot_id": lot.pk}]
        said = self.together(*(self.finish(pk, used=used) for pk in rounds))
        self.assertEqual({status for status, _ in said}, {200})
        lot.refresh_from_db()
        self.assertAlmostEqual(lot.left_value, 100.0 - 8 * 4.2)

    def test_a_lot_never_holds_less_than_nothing(self) -> None:
        lot = Lot.objects.create(product=self.spray, number="L", left_value=6.0, left_unit="fl_oz")
        rounds = [self.start() for _ in range(2)]
        self.together(*(self.finish(pk, used=[{"amount": {"value": "4.2", "unit": "fl_oz"}, "lot_id": lot.pk}]) for pk in rounds))
        lot.refresh_from_db()
        self.assertEqual(lot.left_value, 0.0)

    def test_one_key_sent_five_times_at_once_makes_one_area(self) -> None:
        key, body = str(uuid4()), AREA | {"name": "Twice"}
        manager = [self.client_of("manager") for _ in range(5)]
        said = self.together(*(lambda _, c=c: self.post(c, "areas", body, key) for c in manager))
        self.assertEqual(Counter(status for status, _ in said), {201: 5})
        self.assertEqual(len({a["id"] for _, a in said}), 1)

    def test_the_last_two_managers_cannot_both_step_down(self) -> None:
        client = self.client_of("manager")
        body = {"username": "second", "full_name": "Second", "password": "brisk heron gate", "role": "manager"}
        self.post(client, "members", body)
        members = [m for m in client.get("/api/accounts/alder/members").json() if m["role"] == "manager"]

        def step_down(m: dict[str, Any]) -> Callable[[Client], tuple[int, Any]]:
            mine = self.client_of("manager")
            path = f"/api/accounts/alder/members/{m['id']}"
            given = json.dumps({"role": "viewer", "version": m["version"]})

            def call(_: Client) -> tuple[int, Any]:
                answer = mine.put(path, given, "application/json")
                return answer.status_code, json.loads(answer.content)

            return call

        self.together(*map(step_down, members))
        self.assertGreaterEqual(self.account.memberships.filter(role="manager").count(), 1)


class Constraints(ApiTest):
    """The database itself makes the second impossible."""

    def test_a_part_of_a_round_is_recorded_once(self) -> None:
        pk = self.ask("POST", "rounds", self.job(), 201)["id"]
        self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})
        for row in (Application.objects.get(), Entry.objects.get()):
            row.pk = None
            with self.assertRaises(IntegrityError), transaction.atomic():
                row.save(force_insert=True)

    def test_what_is_under_way_has_no_end_and_what_is_over_has_one(self) -> None:
        pk = self.ask("POST", "rounds", self.job(), 201)["id"]
        for wrong in ({"status": "done"}, {"ended_at": Round.objects.get(pk=pk).started_at}):
            with self.assertRaises(IntegrityError), transaction.atomic():
                Round.objects.filter(pk=pk).update(**wrong)

    def test_they_hold_whatever_the_database(self) -> None:
        names = {c.name for model in (Application, Entry, Round, Sent) for c in model._meta.constraints}
        with connection.cursor() as cursor:
            found = {
                name
                for model in (Application, Entry, Round, Sent)
                for name in connection.introspection.get_constraints(cursor, model._meta.db_table)
            }
        self.assertLessEqual(names, found)


class Keys(ApiTest):
    """A lost answer: the same request again, under the key it was sent with."""

    def again(self, path: str, body: Any, key: str = "") -> Any:
        key = key or str(uuid4())
        first, second = (self.ask("POST", path, body, 201, key) for _ in range(2))
        self.assertEqual(first, second)
        return first

    def test_every_kind_of_thing_that_is_made_is_made_once(self) -> None:
        at, day = f"areas/{self.area.pk}", str(self.area.created_at.date())
        strip = {"method": "strip", "length": {"value": 10, "unit": "ft"}, "width": {"value": 10, "unit": "ft"}}
        cans = {"cans": [{"caught": 5}] * 16, "unit": "mm", "minutes": 20, "taken_on": "2026-01-02"}
        person = {"username": "new", "full_name": "New", "password": "brisk heron gate", "role": "viewer"}
        self.ask("PUT", "sky/station", {"name": "Mast"})
        made: dict[str, Any] = {
            "areas": AREA | {"name": "Lawn"},
            f"{at}/soil": {"taken_on": "2026-01-02", "spot": "middle", "ph": 6.1},
            f"{at}/measurements": {"taken_on": "2026-01-02", "method": "circle", "values": {"radius": 9}},
            f"{at}/tasks": {"texts": ["Mend the gate"]},
            f"{at}/water": cans,
            "products": FUNGICIDE | {"name": "Another SC"},
            f"products/{self.spray.pk}/lots": {"number": "L", "left": {"value": 1, "unit": "gal"}},
            "machines": {"name": "Can", "kind": "sprayer", "capacity": {"value": 2, "unit": "gal"}},
            f"machines/{self.sprayer.pk}/calibrations": {
                "figures": strip | {"runs": [0.1], "unit": "gal"},
                "taken_on": "2026-01-02",
            },
            f"machines/{self.sprayer.pk}/cleanings": {"steps": ["rinse"]},
            "members": person,
            "sites": {"name": "Yard", "time_zone": "Europe/Oslo"},
            "rounds": self.job(),
            "sky/readings": {"kind": "rain", "value": {"value": 5, "unit": "mm"}, "on": "2026-01-02"},
            "scouting": {"area_id": self.area.pk, "on": "2026-01-02", "what": "dollar_spot", "seen": True},
            "sky/rhythms": {"kind": "quiet", "days": [1], "begin": "09:00", "end": "10:00"},
        }
        self.assertTrue(day)
        for path, body in made.items():
            with self.subTest(path):
                self.again(path, body)
        self.assertEqual(SoilReading.objects.count(), 1)
        self.assertEqual(Round.objects.count(), 1)

    def test_the_same_key_with_another_body_is_a_conflict(self) -> None:
        key = str(uuid4())
        self.ask("POST", "areas", AREA | {"name": "One"}, 201, key)
        said = self.ask("POST", "areas", AREA | {"name": "Two"}, 409, key)
        self.assertIn("another request", said["message"])
        self.assertFalse(Area.objects.filter(name="Two").exists())
        self.ask("POST", "rounds", self.job(), 201, key := str(uuid4()))
        self.ask("POST", "rounds", self.job(passes=2), 409, key)
        self.assertEqual(Round.objects.count(), 1)

    def test_a_refused_request_may_be_mended_under_its_key(self) -> None:
        key = str(uuid4())
        self.ask("POST", "areas", AREA | {"name": ""}, 422, key)
        self.assertFalse(Sent.objects.exists())
        self.ask("POST", "areas", AREA | {"name": "Mended"}, 201, key)

    def test_a_key_is_ones_own(self) -> None:
        key = str(uuid4())
        first = self.ask("POST", "rounds", self.job(), 201, key)
        self.sign_in("applicator")
        self.assertNotEqual(self.ask("POST", "rounds", self.job(), 201, key)["id"], first["id"])

    def test_a_file_counts_once_too(self) -> None:
        from django.core.files.uploadedfile import SimpleUploadedFile

        path, key = f"/api/accounts/alder/products/{self.spray.pk}/labels", str(uuid4())
        for data, expect in ((pdf(), 201), (pdf(), 201), (pdf(2), 409)):
            file = SimpleUploadedFile("label.pdf", data, "application/pdf")
            answer = self.client.post(path, {"file": file}, headers={"Idempotency-Key": key})
            self.assertEqual(answer.status_code, expect, answer.content[:300])
        self.assertEqual(self.spray.labels.count(), 1)

    def test_a_key_that_is_too_long_is_told(self) -> None:
        self.ask("POST", "areas", AREA | {"name": "Long"}, 422, "k" * 81)
