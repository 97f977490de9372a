"""Every reader that is kept names the parts of the account that it reads of, and every change says which parts it is of.

The whole story of a season is told, every operation once; what each reader asks of the database is held against what it names,
what each request writes against the revisions that it leaves behind.
"""

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any
from unittest.mock import patch

from django.db import connection
from django.test import TestCase

from greenmeasure.accounts.models import OWN, PARTS, Account
from greenmeasure.common.kept import Kept, KeptEach
from stress.fuzz import Fuzz, the_world

READ = re.compile(r'(?:FROM|JOIN) "([a-z]+_[a-z]+)"')
WRITTEN = re.compile(r'^(?:INSERT (?:OR IGNORE )?INTO|UPDATE|DELETE FROM) "([a-z]+_[a-z]+)"')
ELSEWHERE = {"import_archive", "open_account", "preview_geojson", "preview_past", "preview_shelf"}
"""These write another account's rows, or undo what they wrote."""


def part_of(table: str) -> str:
    """The part of an account in which a table lies; empty for what lies in none."""
    app = table.split("_")[0]
    apart = {"shelf_lot": "stock", "rounds_tick": "ticks", "accounts_site": OWN}
    return apart.get(table) or (app if app in PARTS else "")


class Watch:
    """What is asked of the database, by the readers under way."""

    def __init__(self) -> None:
        self.under_way: list[Any] = []
        self.undeclared: set[str] = set()
        self.written: set[str] = set()

    def sql(self, execute: Callable[..., Any], sql: str, params: Any, many: bool, context: Any) -> Any:
        for table in READ.findall(sql):
            if (part := part_of(table)) in PARTS:
                self.note(part, table)
        self.written |= {part for table in WRITTEN.findall(sql) if (part := part_of(table))}
        return execute(sql, params, many, context)

    def note(self, part: str, what: str) -> None:
        for reader in self.under_way:
            if part not in reader.parts:
                self.undeclared.add(f"{reader.__name__} reads {what} of {part}")

    def call(self, before: Callable[..., Any], reader: Any, row: Any, *more: Any) -> Any:
        """A reader is asked: whoever asked for it rests on what it rests on, whether or not it was kept."""
        if not isinstance(row, Account):
            return before(reader, row, *more)
        for part in reader.parts:
            self.note(part, reader.__name__)
        return before(reader, row, *more)

    def make(self, before: Callable[..., Any], reader: Any, row: Any, *more: Any) -> Any:
        if not isinstance(row, Account):
            return before(reader, row, *more)
        self.under_way.append(reader)
        try:
            return before(reader, row, *more)
        finally:
            self.under_way.pop()


@contextmanager
def watched() -> Iterator[Watch]:
    watch = Watch()

    def bound(how: Any, before: Any) -> Any:
        return lambda reader, row, *more: how(before, reader, row, *more)

    with (
        patch.object(Kept, "__call__", bound(watch.call, Kept.__call__)),
        patch.object(KeptEach, "__call__", bound(watch.call, KeptEach.__call__)),
        patch.object(Kept, "make", bound(watch.make, Kept.make)),
        patch.object(KeptEach, "make", bound(watch.make, KeptEach.make)),
        connection.execute_wrapper(watch.sql),
    ):
        yield watch


class Parts(TestCase):
    def test_readers_name_what_they_read_and_changes_what_they_change(self) -> None:
        silent: set[str] = set()
        with the_world() as service, watched() as watch:
            fuzz = Fuzz(service, tries=0)
            told = fuzz.told

            def looked_at(call: Any) -> Any:
                before = Account.objects.filter(slug="alder").first()
                watch.written = set()
                answer = told(call)
                after = Account.objects.filter(slug="alder").first()
                if before and after and call.operation not in ELSEWHERE:
                    changed = {p for p in (OWN, *PARTS) if before.revisions((p,)) != after.revisions((p,))}
                    if OWN not in changed:
                        silent.update(f"{call.operation} changes {part}" for part in watch.written - changed)
                return answer

            with patch.object(fuzz, "told", looked_at):
                fuzz.run()
        self.assertEqual(sorted(watch.undeclared), [])
        self.assertEqual(sorted(silent), [])


class TheWatch(TestCase):
    """What the watch would catch."""

    def test_a_reader_that_names_too_little_is_caught(self) -> None:
        account = Account.objects.create(name="A", slug="a")
        reader = Kept(lambda row: list(row.areas.all()), ("shelf",))
        with watched() as watch:
            reader(account)
        self.assertEqual(watch.undeclared, {"<lambda> reads ground_area of ground"})
