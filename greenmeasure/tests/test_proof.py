"""Proof on paper: records, the notice for the gate and the customer's note, as PDF, CSV and JSON."""

import csv
import io
import subprocess
import sys
from datetime import UTC, datetime
from typing import Any
from unittest.mock import patch

from django.conf import settings
from PIL import Image
from pypdf import PdfReader, PdfWriter

from greenmeasure.accounts.models import Membership, Site
from greenmeasure.book.models import Application, Entry
from greenmeasure.shelf.models import LabelFile, Product
from greenmeasure.tests.base import AREA, ApiTest, make_account

NOW = datetime(2026, 8, 12, 14, 0, tzinfo=UTC)  # 10:00 in New York
RULES = {"reentry": {"value": 12, "unit": "h"}, "mow_after": {"value": 24, "unit": "h"}}


class Proof(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)

    def sprayed(self, on: str, **more: Any) -> int:
        """An application of 4.2 fl oz at 07:30 in New York."""
        finish = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}], "wind": "4 mph W"} | more
        self.ask("POST", "rounds/done", {"job": self.job(on=on, clock="07:30"), "finish": finish, "reason": "It was so."}, 201)
        newest: int = Application.objects.latest("pk").pk
        return newest

    def licensed(self, number: str = "NY-0417") -> None:
        me = Membership.objects.get(account=self.account, role="manager")
        self.ask("PUT", f"members/{me.pk}", {"version": me.version, "role": "manager", "licence": number})

    def registered(self, number: str = "0000-17", **rules: Any) -> None:
        Product.objects.filter(name="Test SC").update(registration=number, rules=rules)
        self.account.touch()

    def pdf(self, path: str, expect: int = 200) -> str:
        answer = self.client.get(f"/api/accounts/alder/proof/{path}")
        self.assertEqual(answer.status_code, expect, answer.content[:300])
        if expect != 200:
            return ""
        self.assertEqual(answer["Content-Type"], "application/pdf")
        pages = PdfReader(io.BytesIO(answer.content)).pages
        self.assertEqual([p.get("/Annots") for p in pages], [None] * len(pages), "paper has no link")
        return " ".join(" ".join(p.extract_text() for p in pages).split())

    def records(self, query: str = "", expect: int = 200) -> Any:
        return self.ask("GET", f"proof/records?{query}", expect=expect)

    def test_a_record_holds_what_authorities_ask_for(self) -> None:
        """4.2 fl oz on 7,000 ft² are 0.6 fl oz/1000 ft²; twelve hours after 07:30 it is 19:30 (by hand)."""
        self.licensed()
        self.registered(**RULES)
        self.sprayed("2026-08-10")
        told = self.records()
        (record,) = told["records"]
        (product,) = record["products"]
        self.assertEqual((record["day"], record["ended"], record["treated"]), ("Mon 10 Aug 2026", "07:30", "7,000 ft²"))
        self.assertEqual((record["applicator"], record["licence"], record["wind"]), ("Manager alder", "NY-0417", "4 mph W"))
        self.assertEqual(
            (product["registration"], product["rate"], product["amount"]), ("0000-17", "0.6 fl oz/1000 ft²", "4.2 fl oz")
        )
        self.assertEqual(record["reentry"], "Mon 10 Aug, 19:30")
        self.assertEqual((told["sentence"], told["lacks"]), ("1 application.", []))
        printed = self.pdf("records.pdf")
        for words in ("Test SC", "0000-17", "NY-0417", "0.6 fl oz/1000 ft²", "19:30", "4 mph W", "North green", "1 of 1"):
            self.assertIn(words, printed)

    def test_they_stay_as_they_were_when_card_and_licence_change(self) -> None:
        self.licensed()
        self.registered()
        self.sprayed("2026-08-10")
        self.licensed("NY-9999")
        self.registered("0000-99")
        (record,) = self.records()["records"]
        self.assertEqual((record["licence"], record["products"][0]["registration"]), ("NY-0417", "0000-17"))

    def test_the_licence_is_of_who_did_it(self) -> None:
        self.licensed()
        Membership.objects.filter(account=self.account, role="applicator").update(licence="NY-0002")
        made = self.sprayed("2026-08-10", by="applicator ALDER")
        self.assertEqual(self.records()["records"][0]["licence"], "NY-0002")
        self.ask("POST", f"book/{made}/correct", {"version": 0, "why": "not he", "by": "Somebody else"})
        self.assertEqual(self.records()["records"][0]["licence"], "")

    def test_what_lacks_is_told_with_where_it_is_filled_in(self) -> None:
        self.sprayed("2026-08-10", wind="")
        lacks = {x["name"]: x["text"] for x in self.records()["lacks"]}
        self.assertEqual(set(lacks), {"Licence number", "Registration number", "Wind"})
        self.assertTrue(lacks["Licence number"].startswith("1 without it. A manager fills it in"))

    def test_by_days_ground_and_product(self) -> None:
        made = self.ask(
            "POST", "areas", AREA | {"name": "Collar", "parent_id": self.area.pk, "size": {"value": 500, "unit": "ft2"}}, 201
        )
        other = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)
        for on in ("2025-08-10", "2026-04-01", "2026-08-10"):
            self.sprayed(on)
        struck = self.sprayed("2026-04-02")
        self.ask("POST", f"book/{struck}/strike", {"version": 0, "why": "twice"})
        test = Product.objects.get(name="Test SC").pk
        for query, count in (
            ("", 3),
            ("begin=2026-01-01", 2),
            ("end=2026-01-01", 1),
            ("begin=2026-04-01&end=2026-04-01", 1),
            (f"area_id={self.area.pk}", 3),
            (f"area_id={made['id']}", 3),
            (f"area_id={other['id']}", 0),
            (f"product_id={test}", 3),
        ):
            with self.subTest(query):
                self.assertEqual(len(self.records(query)["records"]), count)
        self.assertEqual(
            self.records("begin=2026-04-01&end=2026-04-01")["sentence"][:40], "1 application from Wed 1 Apr 2026 to Wed"
        )
        self.assertEqual(self.records("begin=2027-01-01")["sentence"], "Nothing went down since Fri 1 Jan 2027.")

    def test_bad_asks_name_their_field(self) -> None:
        self.assertEqual(set(self.faults("GET", "proof/records?begin=2026-05-01&end=2026-04-01", None)), {"end"})
        for path in ("records?area_id=99999", "records?product_id=99999", "99999/gate.pdf"):
            self.ask("GET", f"proof/{path}", expect=404)
        with patch("greenmeasure.proof.records.MOST", 0):
            self.sprayed("2026-08-10")
            self.assertEqual(set(self.faults("GET", "proof/records", None)), {"begin"})

    def test_csv_holds_the_same_and_no_formula(self) -> None:
        # 4.2 fl oz on 7,000 ft² are 0.6 fl oz/1000 ft².
        self.licensed()
        self.sprayed("2026-08-10", note="=1+1")
        answer = self.client.get("/api/accounts/alder/proof/records.csv")
        (row,) = csv.DictReader(io.StringIO(answer.content.decode()))
        (record,) = self.records()["records"]
        self.assertEqual({k: row[k] for k in ("day", "area", "licence")}, {k: record[k] for k in ("day", "area", "licence")})
        self.assertEqual((row["note"], row["rate"]), ("'=1+1", "0.6 fl oz/1000 ft²"))

    def test_the_notice_for_the_gate(self) -> None:
        Site.objects.update(contact="Ask the greenkeeper, 555 0100")
        self.account.touch()
        self.registered(**RULES)
        printed = self.pdf(f"{self.sprayed('2026-08-10')}/gate.pdf")
        for words in ("Keep off", "North green", "until Mon 10 Aug, 19:30", "Do not mow before Tue 11 Aug, 07:30", "555 0100"):
            self.assertIn(words, printed)
        self.registered()
        printed = self.pdf(f"{self.sprayed('2026-08-11')}/gate.pdf")
        self.assertIn("keep off until it has dried", printed)

    def test_the_customers_note(self) -> None:
        self.registered(**RULES)
        printed = self.pdf(f"{self.sprayed('2026-08-10')}/note.pdf")
        for words in (
            "What was done on North green",
            "Keep people and pets off until Mon 10 Aug, 19:30",
            "No new spots where it holds",
        ):
            self.assertIn(words, printed)

    def test_the_binder_has_each_card_and_its_labels_after_it(self) -> None:
        self.registered("0000-17", **RULES)
        product = Product.objects.get(name="Test SC")
        picture, pages, spoilt = io.BytesIO(), PdfWriter(), b"%PDF-1.4 nothing"
        Image.new("RGB", (900, 400), (200, 180, 20)).save(picture, "JPEG")
        for width in (300, 301):
            pages.add_blank_page(width, 400)
        kept = io.BytesIO()
        pages.write(kept)
        for name, kind, data in (
            ("front.jpg", "image/jpeg", picture.getvalue()),
            ("all.pdf", "application/pdf", kept.getvalue()),
            ("cut.pdf", "application/pdf", spoilt),
        ):
            LabelFile.objects.create(product=product, name=name, kind=kind, data=data)
        printed = self.pdf("binder.pdf")
        for words in (
            "Test SC",
            "Test 20-0-10",
            "Registration: 0000-17",
            "0.4 to 0.8 fl oz per 1,000 sq ft",
            "“cut.pdf” cannot be read",
        ):
            self.assertIn(words, printed)
        answer = self.client.get(f"/api/accounts/alder/proof/binder.pdf?product_id={product.pk}")
        found = PdfReader(io.BytesIO(answer.content)).pages
        self.assertEqual(len(found), 5)
        self.assertEqual([int(p.mediabox.width) for p in found[2:4]], [300, 301])
        self.assertEqual(len(found[1].images), 1)
        self.assertNotIn("Test 20-0-10", self.pdf(f"binder.pdf?product_id={product.pk}"))
        self.pdf("binder.pdf?product_id=99999", 404)
        Product.objects.update(archived_at=NOW)
        self.account.touch()
        self.assertIn("Nothing is on the shelf.", self.pdf("binder.pdf"))

    def test_the_measuring_list_of_a_round(self) -> None:
        """0.6 fl oz on 7,000 ft² are 4.2 in all, 4,000 ft² a tank of 4 gal: 2.4 in the first, 1.8 in the second (by hand)."""
        started = self.ask("POST", "rounds", self.job(), 201)
        printed = self.pdf(f"rounds/{started['id']}/measuring.pdf")
        for words in (
            "To measure",
            "Wear for mixing",
            "Tank 1",
            "Tank 2",
            "Test SC",
            "2.4 fl oz",
            "1.8 fl oz",
            "Really measured",
        ):
            self.assertIn(words, printed)
        self.pdf("rounds/999999/measuring.pdf", 404)
        make_account("birch")
        self.sign_in("manager", "birch")
        answer = self.client.get(f"/api/accounts/birch/proof/rounds/{started['id']}/measuring.pdf")
        self.assertEqual(answer.status_code, 404)

    def test_the_note_calls_a_target_by_its_name(self) -> None:
        made = self.sprayed("2026-08-10")
        Entry.objects.filter(application=made).update(use="", target="dollar_spot")
        printed = self.pdf(f"{made}/note.pdf")
        self.assertIn("Dollar spot", printed)
        self.assertNotIn("dollar_spot", printed)

    def test_the_server_starts_without_what_prints(self) -> None:
        heavy = ("reportlab", "font_source_sans_pro", "pypdf", "PIL")
        code = (
            "import sys, django; django.setup(); import greenmeasure.urls; print([m for m in sys.argv[1:] if m in sys.modules])"
        )
        done = subprocess.run([sys.executable, "-c", code, *heavy], cwd=settings.ROOT, capture_output=True, text=True, check=True)
        self.assertEqual(done.stdout.strip(), "[]")

    def test_names_of_any_alphabet_and_markup_are_printed_as_they_are(self) -> None:
        Application.objects.filter(pk=self.sprayed("2026-08-10")).update(note="<b>P₂O₅ & Жук</b> ½ 12 °C")
        self.assertIn("<b>P₂O₅ & Жук</b> ½ 12 °C", self.pdf("records.pdf"))

    def test_another_accounts_are_not_there(self) -> None:
        made = self.sprayed("2026-08-10")
        make_account("birch")
        self.sign_in("manager", "birch")
        self.assertEqual(self.ask("GET", "/api/accounts/birch/proof/records")["records"], [])
        self.ask("GET", f"/api/accounts/birch/proof/{made}/note.pdf", expect=404)
