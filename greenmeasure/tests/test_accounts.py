"""Signing in, opening an account, members, the CSRF token and the lockout."""

from django.core.cache import cache
from django.test import Client, TestCase, override_settings

from greenmeasure.accounts.models import Account, Membership, Site, User
from greenmeasure.tests.base import ApiTest, make_account

FOUND = {
    "name": "Heath & Green",
    "units": "metric",
    "time_zone": "Europe/Oslo",
    "username": "runa",
    "full_name": "Runa Falk",
    "password": "quiet otter lamp",
}


class Session(ApiTest):
    def test_sign_in_and_out(self) -> None:
        self.client.logout()
        self.assertEqual(self.ask("GET", "/api/session")["user"], "")
        said = self.ask("POST", "/api/session", {"username": "manager-alder", "password": "long enough to pass"})
        self.assertEqual([c["slug"] for c in said["accounts"]], ["alder"])
        self.assertEqual(said["accounts"][0]["role"], "manager")
        self.ask("DELETE", "/api/session")
        self.assertEqual(self.ask("GET", "areas", expect=401)["code"], "signed_out")

    def test_a_wrong_password_does_not_say_which_of_the_two_is_wrong(self) -> None:
        self.client.logout()
        known = self.faults("POST", "/api/session", {"username": "manager-alder", "password": "wrong"})
        unknown = self.faults("POST", "/api/session", {"username": "nobody", "password": "wrong"})
        self.assertEqual(known, unknown)

    def test_changing_requests_need_the_csrf_token(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(User.objects.get(username="manager-alder"), "django.contrib.auth.backends.ModelBackend")
        for method, path in (("POST", "/api/session"), ("POST", "/api/accounts"), ("POST", "/api/accounts/alder/areas")):
            answer = strict.generic(method, path, "{}", content_type="application/json")
            self.assertEqual(answer.status_code, 403, path)
        token = strict.get("/api/session").json()["csrf"]
        answer = strict.delete("/api/session", headers={"X-CSRFToken": token})
        self.assertEqual(answer.status_code, 200)


@override_settings(AXES_ENABLED=True)
class Lockout(TestCase):
    def test_five_failures_lock_the_name_out_in_our_own_shape(self) -> None:
        cache.clear()
        make_account("alder")
        bad = {"username": "manager-alder", "password": "wrong"}
        statuses = [self.client.post("/api/session", bad, "application/json").status_code for _ in range(5)]
        self.assertEqual(statuses[:4], [422] * 4)
        good = {"username": "manager-alder", "password": "long enough to pass"}
        answer = self.client.post("/api/session", good, "application/json")
        self.assertEqual(answer.status_code, 429)
        self.assertEqual(answer.json()["code"], "too_many")


class Founding(TestCase):
    def found(self, key: str = "", client: Client | None = None, **more: str) -> tuple[int, dict]:  # type: ignore[type-arg]
        headers = {"Idempotency-Key": key} if key else {}
        answer = (client or self.client).post("/api/accounts", FOUND | more, "application/json", headers=headers)
        return answer.status_code, answer.json()

    def test_one_whose_answer_was_lost_is_opened_once_and_lets_its_founder_in(self) -> None:
        first = self.found("k-1", Client())
        again = Client()
        status, said = self.found("k-1", again)
        self.assertEqual((status, said["accounts"], said["username"]), (201, first[1]["accounts"], FOUND["username"]))
        self.assertEqual(again.get("/api/session").json()["username"], FOUND["username"])
        self.assertEqual(Account.objects.count(), 1)

    def test_nobody_is_let_in_by_a_key_alone(self) -> None:
        self.found("k-1", Client())
        for key, more in (("k-1", {"password": "guessed three words"}), ("k-2", {}), ("", {}), ("k-1", {"name": "Another"})):
            stranger = Client()
            self.assertEqual(self.found(key, stranger, **more)[0], 422, more)
            self.assertEqual(stranger.get("/api/session").json()["username"], "")

    def test_a_fresh_empty_account(self) -> None:
        status, said = self.found()
        self.assertEqual(status, 201)
        self.assertEqual(
            said["accounts"][0],
            {
                "slug": "heath-green",
                "name": "Heath & Green",
                "keeps": "grounds",
                "units": "metric",
                "time_zone": "Europe/Oslo",
                "currency": "EUR",
                "role": "manager",
                "whole": True,
                "sites": [{"id": Site.objects.get().pk, "name": "Heath & Green", "time_zone": "Europe/Oslo"}],
            },
        )
        today = self.client.get("/api/accounts/heath-green/today").json()
        self.assertEqual([s["done"] for s in today["setup"]], [False] * 4)
        self.assertIn("Nothing is set up yet", today["sentence"])

    def test_two_accounts_of_one_name_have_two_addresses(self) -> None:
        self.found()
        _, said = self.found(username="other")
        self.assertEqual(said["accounts"][0]["slug"], "heath-green-2")

    def test_every_fault_at_once_and_nothing_half_saved(self) -> None:
        status, said = self.found(name=" ", username="no spaces please", full_name="", password="short")
        self.assertEqual(status, 422)
        self.assertEqual({f["field"] for f in said["fields"]}, {"name", "username", "full_name", "password"})
        self.assertFalse(Account.objects.exists() or User.objects.exists())

    def test_a_time_zone_that_is_none_is_refused(self) -> None:
        status, said = self.found(time_zone="Mars/Base")
        self.assertEqual((status, said["fields"][0]["field"]), (422, "time_zone"))


class Members(ApiTest):
    def test_add_change_remove(self) -> None:
        body = {"username": "new", "full_name": "New Hand", "password": "brisk heron gate", "role": "viewer"}
        made = self.ask("POST", "members", body, 201)
        self.assertEqual(self.ask("PUT", f"members/{made['id']}", {"role": "applicator"})["role"], "applicator")
        self.ask("DELETE", f"members/{made['id']}", expect=204)
        self.assertFalse(Membership.objects.filter(user__username="new").exists())

    def test_a_taken_name_is_refused_whatever_its_case(self) -> None:
        body = {"username": "VIEWER-alder", "full_name": "X", "password": "brisk heron gate", "role": "viewer"}
        self.assertIn("taken", self.faults("POST", "members", body)["username"])

    def test_the_last_manager_stays(self) -> None:
        me = next(m for m in self.ask("GET", "members") if m["you"])
        self.assertIn("only manager", self.ask("PUT", f"members/{me['id']}", {"role": "viewer"}, 409)["message"])
        self.ask("DELETE", f"members/{me['id']}", expect=409)
