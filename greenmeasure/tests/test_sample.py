"""The sample account: anybody looks round in it without signing up, opens and reckons everything, and changes nothing."""

from unittest.mock import patch

from django.core.management import call_command
from django.test import override_settings

from greenmeasure.accounts.models import VISITOR, Account, Membership, User
from greenmeasure.demo.management.commands import load_demo
from greenmeasure.ground.models import Area
from greenmeasure.tests.base import ApiTest
from greenmeasure.tests.test_walls import ONES_OWN, READS_BY_POST, endpoints, filled

PASSWORD = "quiet otter lamp"


@override_settings(SAMPLE="alder")
class LookingRound(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.client.logout()

    def look_round(self) -> None:
        said = self.ask("POST", "/api/session/sample")
        self.assertEqual((said["visits"], [a["slug"] for a in said["accounts"]]), (True, ["alder"]))

    def test_a_stranger_comes_in_and_sees(self) -> None:
        self.assertTrue(self.ask("GET", "/api/session")["sample"])
        self.look_round()
        self.assertEqual(self.ask("GET", "/api/session")["user"], "Visitor")
        self.assertEqual(len(self.ask("GET", "areas")["areas"]), Area.objects.filter(account__slug="alder").count())
        self.assertTrue(self.ask("POST", "reckon/line", {"line": "0.6 fl oz/M Test SC on North green"})["sentence"])

    def test_several_who_look_round_are_one_person(self) -> None:
        self.look_round()
        self.client.logout()
        self.look_round()
        self.assertEqual(User.objects.filter(username=VISITOR).count(), 1)
        self.assertEqual(Membership.objects.get(user__username=VISITOR).role, "viewer")

    def test_nothing_is_changed_by_them_nor_is_anything_theirs(self) -> None:
        self.look_round()
        for method, path, name in endpoints():
            if ("{account}" in path and method != "GET" and name not in READS_BY_POST) or path in ONES_OWN:
                with self.subTest(name):
                    answer = self.client.generic(method, filled(path, "alder"), "{}", content_type="application/json")
                    self.assertEqual(answer.status_code, 403, answer.content[:200])

    def test_their_name_is_nobody_elses_and_has_no_password(self) -> None:
        self.look_round()
        self.client.logout()
        for password in ("", PASSWORD):
            self.ask("POST", "/api/session", {"username": VISITOR, "password": password}, 422)
        User.objects.get(username=VISITOR).delete()
        body = {"name": "Mine", "username": VISITOR.upper(), "full_name": "Rosa Quill", "password": PASSWORD}
        fault = self.ask("POST", "/api/accounts", body, 422)
        self.assertEqual(fault["fields"][0]["field"], "username")

    def test_where_there_is_none_nobody_is_led_into_one(self) -> None:
        for slug in ("", "nowhere"):
            with override_settings(SAMPLE=slug):
                self.assertFalse(self.ask("GET", "/api/session")["sample"])
                self.ask("POST", "/api/session/sample", None, 404)


class Again(ApiTest):
    @patch.multiple(load_demo, _been=lambda at: False)  # its book and its weather take half a minute, and are loaded elsewhere
    @patch.multiple(load_demo.Command, sky=lambda *_: None, seen=lambda *_: None)
    def test_the_demo_begins_again_and_other_accounts_stay(self) -> None:
        call_command("load_demo", verbosity=0)
        demo = Account.objects.get(slug="alder-quay")
        Area.objects.filter(account=demo, name="Terrace").update(name="Changed")
        call_command("load_demo", "--again", verbosity=0)
        fresh = Account.objects.get(slug="alder-quay")
        self.assertNotEqual(fresh.pk, demo.pk)
        self.assertFalse(Area.objects.filter(name="Changed").exists())
        self.assertTrue(Account.objects.filter(slug="alder").exists())
