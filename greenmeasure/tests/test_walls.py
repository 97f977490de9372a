"""Every endpoint, walked from the OpenAPI document: strangers, other accounts' members and lesser roles are refused."""

import re
from collections.abc import Iterator
from typing import Any

from greenmeasure.accounts.models import Account
from greenmeasure.api import api
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import ApiTest, make_account

OPEN = {
    "/api/health",
    "/api/session",
    "/api/session/sample",
    "/api/accounts",
    "/api/session/forgotten",
    "/api/session/reset",
    "/api/calendar/{token}",
}
ONES_OWN = {
    "/api/session/password",
    "/api/session/me",
    "/api/session/open",
    "/api/session/open/{session_id}",
    "/api/accounts/archive",
}
"""For whoever is signed in, whatever the account."""
FOR_OVERSEERS = {"export_archive"}
"""Reads that are not every member's."""
READS_BY_POST = {
    "look_at_layout",
    "look_at_turn",
    "make_plan",
    "propose_outing",
    "check_work",
    "read_phrase",
    "read_label",
    "read_grade",
    "reckon_job",
    "reckon_nothing",
    "reckon_line",
    "check_actual",
    "check_poured",
    "measure_area",
    "plan_ph",
    "plan_sodium",
    "fitting_rows",
    "reckon_backwards",
    "compare_products",
    "measure_dose",
    "check_cup",
    "bench",
    "nozzle_card",
    "pace",
    "setting",
    "midway",
    "ask_audit",
    "plan_passes",
    "land_passes",
    "compare_passes",
    "export_passes",
    "fit_hours",
}
OF_ONESELF = {"choose_reminders", "give_calendar_address", "revoke_calendar_address"}
"""What every member changes of their own."""
FOR_APPLICATORS = {
    "score_trial",
    "take_outing",
    "go_outing",
    "order_outing_again",
    "start_outing_job",
    "note_outing_job",
    "skip_outing_stop",
    "skip_outing_job",
    "pause_outing",
    "go_on_with_outing",
    "change_job_machine",
    "close_outing_act",
    "finish_outing",
    "give_up_outing",
    "correct_application",
    "strike_application",
    "note_work",
    "strike_work",
    "start_round",
    "tick",
    "finish_round",
    "go_out",
    "empty_round",
    "keep_poured",
    "record_done",
    "give_up_round",
    "take_up_round",
    "add_lot",
    "change_lot",
    "remove_lot",
    "keep_calibration",
    "check_vessel",
    "keep_mix",
    "remove_mix",
    "put_back_mix",
    "use_calibration",
    "clean",
    "take_cleaning_back",
    "keep_audit",
    "use_audit",
    "add_tasks",
    "set_task",
    "fetch_now",
    "add_hand_reading",
    "remove_hand_reading",
    "add_scouting",
    "strike_scouting",
    "answer_followup",
    "strike_followup",
    "add_spot",
    "change_spot",
    "remove_spot",
    "add_photo",
    "change_photo",
    "remove_photo",
    "plan_due",
    "set_turn",
    "drop_planned",
    "start_due",
}


def endpoints() -> Iterator[tuple[str, str, str]]:
    """Method, path and operation of every endpoint of an account."""
    for path, operations in api.get_openapi_schema(path_prefix="/api")["paths"].items():
        for method, operation in operations.items():
            yield method.upper(), re.sub(r"^/api/?", "/api/", path), operation["operationId"]


def filled(path: str, account: str, number: int = 1) -> str:
    return re.sub(r"\{\w+\}", str(number), path.replace("{account}", account))


class Walls(ApiTest):
    def setUp(self) -> None:
        make_account("birch")

    def of_an_account(self) -> list[tuple[str, str, str]]:
        found = [e for e in endpoints() if "{account}" in e[1]]
        self.assertGreater(len(found), 25)
        return found

    def status(self, method: str, path: str) -> int:
        return self.client.generic(method, path, "{}", content_type="application/json").status_code

    def test_all_that_is_open_to_strangers_is_listed_here(self) -> None:
        self.assertEqual({p for _, p, _ in endpoints() if "{account}" not in p}, OPEN | ONES_OWN)
        for method, path, name in endpoints():
            if path in ONES_OWN:
                self.client.logout()
                self.assertEqual(self.status(method, filled(path, "")), 401, name)

    def test_strangers_are_sent_to_sign_in(self) -> None:
        for method, path, name in self.of_an_account():
            self.assertEqual(self.status(method, filled(path, "alder")), 401, name)

    def test_another_accounts_manager_is_refused_everywhere(self) -> None:
        self.sign_in("manager", "birch")
        for method, path, name in self.of_an_account():
            self.assertEqual(self.status(method, filled(path, "alder")), 404, name)

    def test_an_account_that_is_not_there_answers_the_same(self) -> None:
        self.sign_in("manager", "birch")
        mine, none = (self.client.get(f"/api/accounts/{slug}/areas") for slug in ("alder", "nowhere"))
        self.assertEqual((mine.status_code, mine.content), (none.status_code, none.content))

    def test_another_accounts_things_are_not_found_through_ones_own_account(self) -> None:
        self.sign_in("manager", "birch")
        theirs = {"area_id": self.area.pk, "product_id": self.spray.pk, "machine_id": self.sprayer.pk}
        for kind, key in (("areas", "area_id"), ("products", "product_id"), ("machines", "machine_id")):
            path = f"/api/accounts/birch/{kind}/{theirs[key]}"
            self.assertEqual(self.status("DELETE", path), 404, kind)
        mine = self.own_job()
        self.ask("POST", "/api/accounts/birch/reckon/job", mine)
        self.ask("POST", "/api/accounts/birch/reckon/job", mine | {"mix": [{"product_id": self.spray.pk}]}, 404)
        self.ask("POST", "/api/accounts/birch/reckon/job", mine | {"machine_id": self.sprayer.pk}, 404)
        parts = [mine["parts"][0] | {"area_id": self.area.pk}]
        self.ask("POST", "/api/accounts/birch/reckon/job", mine | {"parts": parts}, 404)
        self.ask(
            "POST", "/api/accounts/birch/reckon/measure", {"amount": {"value": 1, "unit": "ml"}, "product_id": self.spray.pk}, 404
        )
        self.ask(
            "POST",
            f"/api/accounts/birch/areas/measure?area_id={self.area.pk}",
            {"method": "circle", "values": {"radius": 9}},
            404,
        )

    def own_job(self) -> dict[str, Any]:
        """The same job, all of it the other account's own."""
        account = Account.objects.get(slug="birch")
        product = Product.objects.get(account=account, name="Test SC")
        part = {
            "area_id": Area.objects.get(account=account).pk,
            "doses": [{"row_id": product.rates.get().pk, "rate": {"value": 0.6, "unit": "fl_oz/kft2"}}],
        }
        machine = Machine.objects.get(account=account, kind="sprayer").pk
        return {"mix": [{"product_id": product.pk}], "machine_id": machine, "parts": [part]}

    def test_viewers_read_and_change_nothing(self) -> None:
        self.sign_in("viewer")
        for method, path, name in self.of_an_account():
            status = self.status(method, filled(path, "alder", 999_999))
            changes = (method != "GET" and name not in READS_BY_POST | OF_ONESELF) or name in FOR_OVERSEERS
            self.assertEqual(status == 403, changes, f"{name}: {status}")

    def test_applicators_work_rounds_and_change_nothing_else(self) -> None:
        self.sign_in("applicator")
        for method, path, name in self.of_an_account():
            status = self.status(method, filled(path, "alder", 999_999))
            allowed = (method == "GET" or name in READS_BY_POST | OF_ONESELF | FOR_APPLICATORS) and name not in FOR_OVERSEERS
            self.assertEqual(status != 403, allowed, f"{name}: {status}")
