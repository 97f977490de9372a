"""The demo account, loaded once and twice; the page, its policy and its plain answers."""

import tempfile
from io import StringIO
from pathlib import Path

from django.core.management import call_command
from django.test import Client, TestCase, override_settings

from greenmeasure.accounts.models import Account, User
from greenmeasure.book.models import Application, Entry
from greenmeasure.demo.management.commands.load_demo import read
from greenmeasure.ground.models import Area
from greenmeasure.programme.queries import programme
from greenmeasure.shelf.models import Product


def load(plan: bool = False) -> str:
    """Load the demo; what it says."""
    out = StringIO()
    with override_settings(PRIVATE_STATIONS=False):  # as it is outside of tests
        call_command("load_demo", stdout=out, plan=plan)
    return out.getvalue()


class Demo(TestCase):
    said: str

    @classmethod
    def setUpTestData(cls) -> None:
        cls.said = load(plan=True)

    def counts(self) -> list[int]:
        return [m.objects.count() for m in (User, Area, Product, Entry)]

    def test_twice_is_as_good_as_once(self) -> None:
        self.assertIn(read("account.json")["password"], self.said)
        before = self.counts()
        Area.objects.filter(name="Terrace").update(note="changed by hand")
        load()
        self.assertEqual(self.counts(), before)
        self.assertEqual(Area.objects.get(name="Terrace").note, "changed by hand")

    def test_the_seasons_plan_is_made_and_keeps_every_rule(self) -> None:
        """A property of any plan; how much is in it hangs on the day."""
        account = Account.objects.get()
        made = account.steps.filter(made=True)
        self.assertGreater(made.count(), 10)
        self.assertEqual(set(made.values_list("by", flat=True)), {"Ines Thornaby"})
        year = made.values_list("year", flat=True)[0]
        mine = set(made.values_list("pk", flat=True))
        turns = [t for area in programme(account, year).areas for t in area.turns if t.step_id in mine]
        self.assertEqual([(t.name, t.area, t.refused[0].sentence) for t in turns if t.refused], [])
        load(plan=True)
        self.assertEqual(set(made.values_list("pk", flat=True)), mine)

    def test_every_product_warns_of_nothing_and_the_book_has_two_seasons(self) -> None:
        from greenmeasure.shelf.queries import shelf

        account = Product.objects.first().account  # type: ignore[union-attr]
        self.assertEqual([w for p in shelf(account) for w in p.warnings], [])
        self.assertEqual({a.applied_on.year for a in Application.objects.all()}, {2025, 2026})
        self.assertEqual(Entry.objects.filter(stand="above").count(), 1)

    def test_the_demo_sign_in_works(self) -> None:
        body = {"username": "ines", "password": read("account.json")["password"]}
        self.assertEqual(self.client.post("/api/session", body, "application/json").json()["user"], "Ines Thornaby")


class Page(TestCase):
    def test_the_page_carries_its_nonce_and_a_strict_policy(self) -> None:
        with tempfile.TemporaryDirectory() as build:
            (Path(build) / "index.html").write_text("<script nonce='__CSP_NONCE__'></script>")
            with override_settings(WEB_BUILD=Path(build)):
                answers = [self.client.get("/a/alder/today") for _ in range(2)]
        policies = [a["Content-Security-Policy"] for a in answers]
        for answer, policy in zip(answers, policies, strict=True):
            self.assertNotIn(b"__CSP_NONCE__", answer.content)
            self.assertNotIn("unsafe", policy)
            nonce = answer.content.decode().split("'")[1]
            self.assertIn(f"'nonce-{nonce}'", policy)
        self.assertNotEqual(*policies)

    def test_an_unbuilt_interface_says_so(self) -> None:
        with override_settings(WEB_BUILD=Path("/nowhere")):
            self.assertContains(self.client.get("/"), "make build", status_code=503)

    def test_what_is_not_there_is_told_in_the_one_shape(self) -> None:
        said = self.client.get("/api/nothing/here")
        self.assertEqual((said.status_code, said.json()["code"]), (404, "not_found"))

    def test_what_breaks_is_told_without_a_trace(self) -> None:
        from unittest.mock import patch

        careful = Client(raise_request_exception=False)
        with (
            patch("greenmeasure.accounts.api.session_out", side_effect=RuntimeError("secret detail")),
            self.assertLogs("django.request"),
        ):
            said = careful.get("/api/session")
        self.assertEqual((said.status_code, said.json()["code"]), (500, "server_error"))
        self.assertNotIn("secret", said.content.decode())
