"""An account taken along whole and read back: the same content, by its digest; and closed for good."""

import io
import json
import zipfile
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import models
from django.test import TestCase

from core.errors import InputError
from greenmeasure.accounts.models import REVISIONS, Account, Membership, Site, User
from greenmeasure.archive import reading, writing
from greenmeasure.archive.tables import tables
from greenmeasure.book.models import Application
from greenmeasure.ground.models import Area
from greenmeasure.reckon.models import KeptMix
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import ApiTest, make_account, pdf
from greenmeasure.tests.demo import load_demo

NO_ROWS_IN_DEMO = {
    "outings.outing",
    "outings.outingjob",
    "outings.outingstop",
    "rounds.poured",
    "rounds.tick",
    "sky.aside",
    "sky.fetch",
    "season.planned",
}
"""Tables that the demo has nothing in."""


def packed(account: Account) -> bytes:
    out = io.BytesIO()
    writing.write(account, out)
    return out.getvalue()


def manifest(data: bytes) -> Any:
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        return json.loads(archive.read("manifest.json"))


class WholeDemo(TestCase):
    """The demo account, which has a season of nearly everything."""

    account: Account
    made: Account
    manager: User
    packed: bytes

    @classmethod
    def setUpTestData(cls) -> None:
        load_demo()
        cls.account = Account.objects.get()
        cls.manager = Membership.objects.filter(role="manager")[0].user
        product = Product.objects.filter(account=cls.account)[0]
        product.labels.create(name="label.pdf", kind="application/pdf", data=pdf())
        job = {"mix": [{"product_id": product.pk}], "parts": [{"area_id": Area.objects.all()[0].pk, "doses": [{"row_id": None}]}]}
        KeptMix.objects.create(account=cls.account, name="Morning", job=job)
        cls.packed = packed(cls.account)
        cls.made = reading.read(io.BytesIO(cls.packed), cls.manager)

    def test_read_back_it_is_the_same_by_its_digest(self) -> None:
        told = manifest(self.packed)
        empty = {name for name, t in told["tables"].items() if not t["rows"]}
        self.assertLessEqual(empty, NO_ROWS_IN_DEMO)
        self.assertNotEqual(self.made.pk, self.account.pk)
        again = manifest(packed(self.made))
        self.assertEqual(again["tables"], told["tables"])
        self.assertEqual(again["content"], told["content"])

    def test_what_refers_to_a_row_refers_to_the_new_ones(self) -> None:
        made = self.made
        mix = KeptMix.objects.get(account=made)
        self.assertEqual(Product.objects.get(pk=mix.job["mix"][0]["product_id"]).account, made)
        self.assertEqual(Area.objects.get(pk=mix.job["parts"][0]["area_id"]).account, made)
        self.assertFalse(Area.objects.filter(account=made).exclude(parent=None).exclude(parent__account=made).exists())
        booked = Application.objects.filter(account=made)
        self.assertFalse(booked.exclude(area=None).exclude(area__account=made).exists())
        self.assertFalse(booked.filter(by__is_active=True).exists())

    def test_every_column_of_every_table_is_in_it_or_is_named_as_left_out(self) -> None:
        left_out = {f"{t.model.__name__}.{f.name}" for t in tables() for f in t.model._meta.concrete_fields if f not in t.columns}
        plain = {c for c in left_out if not c.endswith((".id", ".account", ".changed_at"))}
        own = {f"Account.{revision}" for revision in REVISIONS}
        own |= {"Account.slug", "Station.revision", "Station.asked_at", "Station.begun_at", "Round.key", "Outing.key"}
        self.assertEqual(plain, own)
        many = [f for t in tables() for f in t.model._meta.many_to_many]
        self.assertEqual(many, [])
        self.assertTrue(all(isinstance(t.model, type(models.Model)) for t in tables()))


class ByTheDoor(ApiTest):
    def test_taken_along_brought_in_and_closed(self) -> None:
        taken = self.client.get("/api/accounts/alder/archive.zip")
        data = b"".join(taken)
        self.assertEqual((taken.status_code, taken["Content-Type"]), (200, "application/zip"))
        file = SimpleUploadedFile("alder.zip", data, "application/zip")
        said = self.client.post("/api/accounts/archive", {"file": file})
        self.assertEqual(said.status_code, 201, said.content[:300])
        self.assertEqual([a["slug"] for a in said.json()["accounts"]], ["alder", "account-alder"])
        self.ask("GET", "/api/accounts/account-alder/today")
        fault = self.ask("POST", "close", {"name": "Alder", "password": "long enough to pass"}, 422)
        self.assertEqual(fault["fields"][0]["field"], "name")
        self.ask("POST", "close", {"name": "Account alder", "password": "no"}, 422)
        self.ask("POST", "close", {"name": "Account alder", "password": "long enough to pass"}, 204)
        self.assertEqual(list(Account.objects.values_list("slug", flat=True)), ["account-alder"])
        self.assertFalse(User.objects.filter(username="viewer-alder").exists())
        self.assertTrue(User.objects.get(username="manager-alder").is_active)
        self.ask("GET", "areas", expect=404)

    def test_closing_leaves_other_accounts_as_they_are(self) -> None:
        before = packed(make_account("birch"))
        self.ask("POST", "close", {"name": "account ALDER", "password": "long enough to pass"}, 204)
        left = packed(Account.objects.get())
        self.assertEqual(manifest(left)["content"], manifest(before)["content"])

    def test_what_is_no_archive_or_was_changed_keeps_nothing(self) -> None:
        good = packed(self.account)
        user = User.objects.get(username="manager-alder")

        def changed(name: str, old: bytes, new: bytes) -> bytes:
            out = io.BytesIO()
            with zipfile.ZipFile(io.BytesIO(good)) as was, zipfile.ZipFile(out, "w") as now:
                for entry in was.namelist():
                    content = was.read(entry)
                    now.writestr(entry, content.replace(old, new) if entry == name else content)
            return out.getvalue()

        for data, words in (
            (b"no zip", "no archive"),
            (good[: len(good) // 2], "no archive"),
            (good[1290:], "no archive"),
            (good[:600] + bytes(reversed(good[600:2000])) + good[2000:], "no archive"),
            (changed("ground.area.jsonl", b"North green", b"South green"), "changed since it was made"),
            (changed("manifest.json", b"green-measure-archive", b"another"), "no archive of Green Measure"),
            (changed("manifest.json", b'"version": 1', b'"version": 9'), "Bring the code up to date"),
            (changed("ground.area.jsonl", b"7000", b"[[[1]]]"), "cannot be"),
        ):
            with self.assertRaises(InputError) as refused:
                reading.read(io.BytesIO(data), user)
            self.assertIn(words, str(refused.exception))
        self.assertEqual((Account.objects.count(), Site.objects.count()), (1, 1))
