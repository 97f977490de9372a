"""A database of its own for a server that a trial starts: SQLite's file in a folder, or one more in the PostgreSQL of the run."""

import os
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import dj_database_url
from django.db.utils import ConnectionHandler

from greenmeasure.common.backup import copy


class Database:
    """A database by its address, asked from outside of the server that uses it."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.line = ConnectionHandler({"default": dict(dj_database_url.parse(address))})["default"]

    @property
    def sqlite(self) -> bool:
        return self.line.vendor == "sqlite"

    def rows(self, asked: str, values: Sequence[Any] | None = None) -> list[tuple[Any, ...]]:
        """What a query gives; its places are `%s`, whatever the database."""
        with self.line.cursor() as cursor:
            cursor.execute(asked, values or None)
            return list(cursor.fetchall())


@contextmanager
def database(folder: Path, begin: dict[str, Any] | None = None) -> Iterator[Database]:
    """A database in the folder, or in the PostgreSQL of `TEST_DATABASE_URL`: empty, or a copy of what `begin`, the settings of
    a connection that is closed, names.
    """
    server = os.environ.get("TEST_DATABASE_URL")
    if server is None:
        made = Database(f"sqlite:///{folder / 'greenmeasure.sqlite3'}")
        if begin:
            copy(Path(str(begin["NAME"])), folder / "greenmeasure.sqlite3")
        yield made
        made.line.close()
        return
    name = f"gm_{folder.name}".lower()
    outer = Database(server)
    with outer.line.cursor() as cursor:
        cursor.execute(f'create database "{name}"' + (f' template "{begin["NAME"]}"' if begin else ""))
    made = Database(f"{server.rsplit('/', 1)[0]}/{name}")
    try:
        yield made
    finally:
        made.line.close()
        with outer.line.cursor() as cursor:
            cursor.execute(f'drop database "{name}" with (force)')
        outer.line.close()
