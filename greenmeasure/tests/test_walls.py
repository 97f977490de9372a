"""Every endpoint, walked from the OpenAPI document: strangers, other clubs' members and lesser roles are refused."""

import re
from collections.abc import Iterator

from greenmeasure.api import api
from greenmeasure.tests.base import ApiTest, make_club

OPEN = {"/api/health", "/api/session", "/api/clubs"}
READS_BY_POST = {"read_phrase", "reckon_job", "reckon_nothing", "reckon_line", "check_actual"}
FOR_APPLICATORS = {"start_round", "tick", "finish_round", "give_up_round", "take_up_round"}


def endpoints() -> Iterator[tuple[str, str, str]]:
    """Method, path and operation of every endpoint of a club."""
    for path, operations in api.get_openapi_schema(path_prefix="/api")["paths"].items():
        for method, operation in operations.items():
            yield method.upper(), re.sub(r"^/api/?", "/api/", path), operation["operationId"]


def filled(path: str, club: str, number: int = 1) -> str:
    return re.sub(r"\{\w+\}", str(number), path.replace("{club}", club))


class Walls(ApiTest):
    def setUp(self) -> None:
        make_club("birch")

    def of_a_club(self) -> list[tuple[str, str, str]]:
        found = [e for e in endpoints() if "{club}" in e[1]]
        self.assertGreater(len(found), 25)
        return found

    def status(self, method: str, path: str) -> int:
        return self.client.generic(method, path, "{}", content_type="application/json").status_code

    def test_all_that_is_open_to_strangers_is_listed_here(self) -> None:
        self.assertEqual({p for _, p, _ in endpoints() if "{club}" not in p}, OPEN)

    def test_strangers_are_sent_to_sign_in(self) -> None:
        for method, path, name in self.of_a_club():
            self.assertEqual(self.status(method, filled(path, "alder")), 401, name)

    def test_another_clubs_manager_is_refused_everywhere(self) -> None:
        self.sign_in("manager", "birch")
        for method, path, name in self.of_a_club():
            self.assertEqual(self.status(method, filled(path, "alder")), 404, name)

    def test_a_club_that_is_not_there_answers_the_same(self) -> None:
        self.sign_in("manager", "birch")
        mine, none = (self.client.get(f"/api/clubs/{slug}/areas") for slug in ("alder", "nowhere"))
        self.assertEqual((mine.status_code, mine.content), (none.status_code, none.content))

    def test_another_clubs_things_are_not_found_through_ones_own_club(self) -> None:
        self.sign_in("manager", "birch")
        theirs = {"area_id": self.area.pk, "product_id": self.spray.pk, "machine_id": self.sprayer.pk}
        for kind, key in (("areas", "area_id"), ("products", "product_id"), ("machines", "machine_id")):
            path = f"/api/clubs/birch/{kind}/{theirs[key]}"
            self.assertEqual(self.status("DELETE", path), 404, kind)
        body = self.job()
        for key in theirs:
            self.ask("POST", "/api/clubs/birch/reckon/job", body, 404)
            self.assertEqual(body[key], theirs[key])

    def test_viewers_read_and_change_nothing(self) -> None:
        self.sign_in("viewer")
        for method, path, name in self.of_a_club():
            status = self.status(method, filled(path, "alder", 999_999))
            changes = method != "GET" and name not in READS_BY_POST
            self.assertEqual(status == 403, changes, f"{name}: {status}")

    def test_applicators_work_rounds_and_change_nothing_else(self) -> None:
        self.sign_in("applicator")
        for method, path, name in self.of_a_club():
            status = self.status(method, filled(path, "alder", 999_999))
            allowed = method == "GET" or name in READS_BY_POST | FOR_APPLICATORS
            self.assertEqual(status != 403, allowed, f"{name}: {status}")
