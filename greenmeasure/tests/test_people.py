"""A person's own doors: passwords, links, sessions, leaving; and how often strangers may knock."""

import json
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.core import mail
from django.test import Client, override_settings

from greenmeasure.accounts.models import Account, Coming, Membership, Tried, User
from greenmeasure.accounts.throttle import FOUNDING, SIGN_IN
from greenmeasure.common import clock
from greenmeasure.tests.base import ApiTest, make_account

OLD, NEW = "long enough to pass", "three unrelated words"


class PeopleTest(ApiTest):
    def say(self, method: str, path: str, body: Any = None, expect: int = 200, client: Client | None = None) -> Any:
        answer = (client or self.client).generic(method, f"/api/{path}", json.dumps(body or {}), content_type="application/json")
        self.assertEqual(answer.status_code, expect, answer.content[:300])
        return json.loads(answer.content) if answer.content else None

    def come_in(self, username: str, password: str = OLD, expect: int = 200, **more: Any) -> Client:
        client = Client(**more)
        self.say("POST", "session", {"username": username, "password": password}, expect, client)
        return client

    def link(self, member: str, expect: int = 201) -> tuple[str, str]:
        found = Membership.objects.get(user__username=member, account=self.account)
        said = self.ask("POST", f"members/{found.pk}/reset", {}, expect)
        return tuple(said["path"].split("/")[2:]) if expect == 201 else ("", said["message"])


class Passwords(PeopleTest):
    def test_changing_it_ends_every_other_session(self) -> None:
        here, there = self.come_in("manager-alder"), self.come_in("manager-alder")
        self.say("PUT", "session/password", {"old": OLD, "new": NEW}, client=here)
        self.assertEqual(self.say("GET", "session", client=here)["username"], "manager-alder")
        self.assertEqual(self.say("GET", "session", client=there)["username"], "")
        self.come_in("manager-alder", OLD, 422)
        self.come_in("manager-alder", NEW)

    def test_the_old_one_is_asked_and_a_weak_one_is_told(self) -> None:
        for body, field in (({"old": "no", "new": NEW}, "old"), ({"old": OLD, "new": "short"}, "new")):
            said = self.say("PUT", "session/password", body, 422)
            self.assertEqual((said["fields"][0]["field"], said["fields"][0]["value"]), (field, ""))

    def test_a_managers_link_counts_once_and_ends_all_sessions(self) -> None:
        there = self.come_in("viewer-alder")
        uid, token = self.link("viewer-alder")
        stranger = Client()
        self.say("POST", "session/reset", {"uid": uid, "token": token, "password": "12345"}, 422, stranger)
        said = self.say("POST", "session/reset", {"uid": uid, "token": token, "password": NEW}, client=stranger)
        self.assertEqual(said["username"], "viewer-alder")
        self.assertEqual(self.say("GET", "session", client=there)["username"], "")
        again = self.say("POST", "session/reset", {"uid": uid, "token": token, "password": OLD}, 422, Client())
        self.assertIn("used before", again["message"])

    def test_a_link_is_over_after_a_day(self) -> None:
        uid, token = self.link("viewer-alder")
        with override_settings(PASSWORD_RESET_TIMEOUT=-1):
            self.say("POST", "session/reset", {"uid": uid, "token": token, "password": NEW}, 422, Client())
        self.say("POST", "session/reset", {"uid": "%%", "token": "x", "password": NEW}, 422, Client())

    def test_a_manager_gets_no_way_into_another_account(self) -> None:
        birch = make_account("birch")
        Membership.objects.create(account=birch, user=User.objects.get(username="viewer-alder"), role="viewer")
        self.assertIn("also belongs to another account", self.link("viewer-alder", 409)[1])

    @override_settings(EMAIL_HOST="mail.example")
    def test_by_letter_and_nothing_tells_whether_a_name_is_had(self) -> None:
        self.say("PUT", "session/me", {"full_name": "M", "email": "m@example.org"})
        with patch("greenmeasure.accounts.people._apart", lambda work: work()):
            said = [self.say("POST", "session/forgotten", {"username": n}) for n in ("manager-alder", "viewer-alder", "nobody")]
        self.assertEqual(said[0], said[1])
        self.assertEqual(said[0], said[2])
        self.assertEqual([m.to for m in mail.outbox], [["m@example.org"]])
        uid, token = mail.outbox[0].body.split("/reset/")[1].split()[0].split("/")
        self.say("POST", "session/reset", {"uid": uid, "token": token, "password": NEW}, client=Client())

    def test_without_mail_it_says_whom_to_ask(self) -> None:
        self.assertIn("Ask a manager", self.say("POST", "session/forgotten", {"username": "nobody"})["sentence"])

    def test_an_address_that_is_none(self) -> None:
        self.say("PUT", "session/me", {"full_name": "M", "email": "m at home"}, 422)


class Sessions(PeopleTest):
    def test_they_are_listed_and_ended_one_or_all(self) -> None:
        here = self.come_in("viewer-alder")
        phone = self.come_in("viewer-alder", HTTP_USER_AGENT="A browser, Mobile")
        third = self.come_in("viewer-alder")
        listed = self.say("GET", "session/open", client=here)
        self.assertEqual([s["this"] for s in listed].count(True), 1)
        self.assertEqual({s["device"] for s in listed}, {"phone or tablet", "not told"})
        its = next(s["id"] for s in listed if s["device"] == "phone or tablet")
        self.assertEqual(len(self.say("DELETE", f"session/open/{its}", client=here)), 2)
        self.assertEqual(self.say("GET", "session", client=phone)["username"], "")
        self.assertEqual(len(self.say("DELETE", "session/open", client=here)), 1)
        self.assertEqual(self.say("GET", "session", client=third)["username"], "")
        self.assertEqual(self.say("GET", "session", client=here)["username"], "viewer-alder")

    def test_anothers_session_is_not_there(self) -> None:
        self.come_in("manager-alder")
        theirs = Coming.objects.filter(user__username="manager-alder").latest("pk")
        self.say("DELETE", f"session/open/{theirs.pk}", None, 404, self.come_in("viewer-alder"))

    def test_when_it_was_last_used(self) -> None:
        here = self.come_in("viewer-alder")
        later = clock.now() + timedelta(hours=1)
        with patch("greenmeasure.common.clock.now", return_value=later):
            self.say("GET", "session", client=here)
            told = self.say("GET", "session/open", client=here)
        self.assertEqual(told[0]["last_at"][:16], later.isoformat()[:16])


class Leaving(PeopleTest):
    def test_a_removed_members_name_is_free_and_their_session_over(self) -> None:
        there = self.come_in("viewer-alder")
        found = Membership.objects.get(user__username="viewer-alder")
        self.ask("DELETE", f"members/{found.pk}", expect=204)
        self.assertEqual(self.say("GET", "session", client=there)["username"], "")
        self.come_in("viewer-alder", OLD, 422)
        made = {"username": "viewer-alder", "full_name": "Another", "password": NEW, "role": "viewer"}
        self.ask("POST", "members", made, 201)
        self.come_in("viewer-alder", NEW)

    def test_who_belongs_elsewhere_keeps_their_name(self) -> None:
        birch = make_account("birch")
        Membership.objects.create(account=birch, user=User.objects.get(username="viewer-alder"), role="viewer")
        self.ask("DELETE", f"members/{Membership.objects.get(account=self.account, role='viewer').pk}", expect=204)
        self.come_in("viewer-alder")


class Strangers(PeopleTest):
    FOUND = {"name": "Third", "units": "us", "time_zone": "UTC", "username": "third", "full_name": "T", "password": NEW}

    def test_founding_is_throttled_by_address_and_holds_over_a_restart(self) -> None:
        for n in range(FOUNDING.most):
            self.say("POST", "accounts", self.FOUND | {"username": f"third{n}"}, 201, Client())
        said = self.say("POST", "accounts", self.FOUND | {"username": "more"}, 429, Client())
        self.assertEqual((said["code"], "Wait 60 minutes" in said["message"]), ("too_many", True))
        self.say("POST", "accounts", self.FOUND | {"username": "more"}, 201, Client(REMOTE_ADDR="203.0.113.9"))

    def test_founding_can_be_closed(self) -> None:
        with override_settings(FOUNDING=False):
            self.assertFalse(self.say("GET", "session", client=Client())["founding"])
            self.say("POST", "accounts", self.FOUND, 403, Client())
        self.assertFalse(Account.objects.filter(name="Third").exists())

    def test_failures_to_sign_in_count_by_address_whatever_the_name(self) -> None:
        Tried.objects.bulk_create(Tried(what=SIGN_IN.what, address="127.0.0.1", at=clock.now()) for _ in range(SIGN_IN.most - 1))
        self.come_in("somebody", "wrong", 422)
        self.come_in("manager-alder", OLD, 429)
        self.come_in("manager-alder", OLD, REMOTE_ADDR="203.0.113.9")

    def test_tries_are_forgotten_after_a_day(self) -> None:
        Tried.objects.create(what="found", address="127.0.0.1", at=clock.now() - timedelta(days=2))
        self.say("POST", "session/forgotten", {"username": "x"}, client=Client())
        self.assertEqual(list(Tried.objects.values_list("what", flat=True)), ["forgotten"])
