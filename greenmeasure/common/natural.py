"""Names in the order in which people count: Court 2 before Court 10, whatever the case."""

import re
from typing import Any

from django.db.backends.signals import connection_created
from django.db.models import CharField, Func

WIDTH = 12
"""Digits that a number in a name is filled up to."""


def natural(name: str) -> str:
    """What a name is sorted by: in small letters, its numbers filled up with noughts."""
    return re.sub(r"\d+", lambda m: m[0].lstrip("0").zfill(WIDTH), name.lower())


class Natural(Func):
    """The same, asked of the database; “natural” is a word of SQL."""

    function = "by_count"
    arity = 1
    output_field = CharField()

    def as_postgresql(self, compiler: Any, connection: Any, **more: Any) -> Any:
        """PostgreSQL fills up by itself: noughts before each number, and all but its last digits away."""
        fill, last = "0" * WIDTH, rf"0*(\d{{{WIDTH}}})(?!\d)"
        filled = rf"regexp_replace(lower(%(expressions)s), '(\d+)', '{fill}\1', 'g')"
        return self.as_sql(compiler, connection, template=rf"regexp_replace({filled}, '{last}', '\1', 'g')", **more)


def _teach(connection: Any, **more: Any) -> None:
    """SQLite has no such function of its own."""
    if connection.vendor == "sqlite":
        connection.connection.create_function("by_count", 1, lambda name: name and natural(name), deterministic=True)


connection_created.connect(_teach, dispatch_uid="natural order")
