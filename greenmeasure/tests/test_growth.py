"""No list asks the database more often because there is more in it."""

import json
from collections.abc import Callable, Collection, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from typing import Any
from unittest.mock import patch

from django.core.management import call_command
from django.db import connection
from django.test import TestCase

from bench.big import SLUG, Size, make
from greenmeasure.accounts.models import Account, Membership
from greenmeasure.rounds.models import Round
from greenmeasure.tests.test_walls import endpoints

AT = f"/api/accounts/{SLUG}/"
CLOCK = datetime(2026, 8, 5, 10, 15, tzinfo=UTC)
MORE = Size(areas=60, products=80, years=0, entries=240, rounds=80)
ASK_MORE = {"get_strip", "get_sky_day", "get_schools", "get_pair"}
"""These are of an area and a disease, of a day, or of two photographs."""


@contextmanager
def counting() -> Iterator[list[str]]:
    asked: list[str] = []

    def note(execute: Callable[..., Any], sql: str, params: Any, many: bool, context: Any) -> Any:
        asked.append(sql)
        return execute(sql, params, many, context)

    with connection.execute_wrapper(note):
        yield asked


class Growth(TestCase):
    def lists(self, only: Collection[str] = ()) -> dict[str, int]:
        """How often each list asks the database, by its name, nothing of it being kept; some of them alone, where named."""
        found = {}
        for method, path, name in endpoints():
            if method != "GET" or "{account}" not in path or path.count("{") > 1 or name in ASK_MORE:
                continue
            if only and name not in only:
                continue
            Account.objects.get(slug=SLUG).touch()
            with counting() as asked:
                answer = self.client.get(path.replace("{account}", SLUG))
                _ = b"".join(answer) if answer.streaming else answer.content
            self.assertEqual(answer.status_code, 200, name)
            found[name] = len(asked)
        return found

    def test_twice_as_much_is_asked_for_as_often(self) -> None:
        with patch("greenmeasure.common.clock.now", return_value=CLOCK):
            call_command("load_demo", verbosity=0)
            account = Account.objects.get(slug=SLUG)
            self.client.force_login(
                Membership.objects.filter(account=account).order_by("pk")[0].user, "django.contrib.auth.backends.ModelBackend"
            )
            self.lists()  # the first time what was never asked for is made
            before, rows = self.lists(), Round.objects.count()
            make(MORE)
            self.assertGreater(Round.objects.count(), 2 * rows)
            after = self.lists()
            # what is made of new rows the first time it is asked for is there the second time
            after |= self.lists([name for name in before if after[name] > before[name]] or ["none"])
        self.assertGreater(len(before), 25)
        grown = {name: (before[name], after[name]) for name in before if after[name] > before[name]}
        self.assertEqual(grown, {}, json.dumps(grown))
