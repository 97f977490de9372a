"""An account written as an archive: a ZIP of a manifest and a file of JSON lines for each table.

The first line of a table names its columns, each other line is a row. Photographs are files in it, under the digests by which
rows name them. The manifest tells what is in it and a digest of it, by which two archives of the same content are the same.
"""

import json
import zipfile
from base64 import b64encode
from collections.abc import Callable, Iterator
from datetime import date, datetime, time
from decimal import Decimal
from hashlib import sha256
from typing import IO, Any

from django.db import models

from greenmeasure.accounts.models import Account, User
from greenmeasure.archive.tables import INSIDE, Table, tables
from greenmeasure.common import clock
from greenmeasure.common.pictures import file_of
from greenmeasure.scouting.queries import files_of

FORMAT, VERSION = "green-measure-archive", 1
MANIFEST, PEOPLE, PICTURES = "manifest.json", "people", "pictures"
BATCH = 2000

Numbers = dict[type[models.Model], dict[int, int]]


def write(account: Account, to: IO[bytes]) -> dict[str, Any]:
    """Write an account whole; gives the manifest."""
    numbers: Numbers = {t.model: dict(zip(_keys(t, account), _count(), strict=False)) for t in tables()}
    people = list(_people(account))
    numbers[User] = {pk: n for n, (pk, _) in enumerate(people, 1)}
    told: dict[str, Any] = {}
    with zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED) as archive:
        _put(archive, told, PEOPLE, iter([["full_name"], *([name] for _, name in people)]))
        for table in tables():
            _put(archive, told, table.name, _lines(table, account, numbers))
        for sha in sorted(files_of(account)):
            if (file := file_of(sha)).exists():
                archive.write(file, f"{PICTURES}/{file.name}", zipfile.ZIP_STORED)
        manifest = {
            "format": FORMAT,
            "version": VERSION,
            "account": account.name,
            "made_at": clock.now().isoformat(timespec="seconds"),
            "tables": told,
            "content": digest_of(told),
        }
        archive.writestr(MANIFEST, json.dumps(manifest, indent=1, ensure_ascii=False))
    return manifest


def digest_of(told: dict[str, Any]) -> str:
    """The digest of all content, from those of its tables."""
    return sha256("\n".join(f"{name} {told[name]['digest']}" for name in sorted(told)).encode()).hexdigest()


def _count() -> Iterator[int]:
    n = 0
    while True:
        yield (n := n + 1)


def _keys(table: Table, account: Account) -> list[int]:
    return list(table.rows(account).values_list("pk", flat=True))


def _people(account: Account) -> Iterator[tuple[int, str]]:
    """Whoever is named in the account's rows, by their name alone, in the order of their first row."""
    seen: dict[int, None] = {}
    for table in tables():
        for field in table.columns:
            if field.related_model is User:
                seen |= dict.fromkeys(table.rows(account).exclude(**{field.attname: None}).values_list(field.attname, flat=True))
    names = dict(User.objects.filter(pk__in=seen).values_list("pk", "full_name"))
    return ((pk, names[pk]) for pk in sorted(seen, key=lambda pk: (names[pk], pk)))


def _put(archive: zipfile.ZipFile, told: dict[str, Any], name: str, lines: Iterator[list[Any]]) -> None:
    """Write a table, and tell how many rows it has and its digest."""
    found, rows = sha256(), -1
    with archive.open(f"{name}.jsonl", "w", force_zip64=True) as file:
        for row in lines:
            line = (json.dumps(row, ensure_ascii=False, separators=(",", ":"), default=_plain) + "\n").encode()
            found.update(line)
            file.write(line)
            rows += 1
    told[name] = {"rows": rows, "digest": found.hexdigest()}


def _lines(table: Table, account: Account, numbers: Numbers) -> Iterator[list[Any]]:
    yield [f.name for f in table.columns]
    ways = [_way(f, numbers) for f in table.columns]
    for row in table.rows(account).iterator(BATCH):
        yield [way(getattr(row, f.attname)) for f, way in zip(table.columns, ways, strict=True)]


def _way(field: Any, numbers: Numbers) -> Callable[[Any], Any]:
    """How a column's value is written."""
    if field.is_relation:
        known = numbers[field.related_model]
        return lambda value: None if value is None else known[value]
    if isinstance(field, models.JSONField):
        by_name = {name: {m._meta.label: n for m, n in numbers.items()}.get(label, {}) for name, label in INSIDE.items()}
        return lambda value: renumbered(value, by_name)
    return lambda value: value


def renumbered(value: Any, numbers: dict[str, dict[int, int]]) -> Any:
    """JSON with the rows that it refers to by other numbers; what is not known is nothing."""
    if isinstance(value, dict):
        return {k: numbers[k].get(v) if k in numbers and isinstance(v, int) else renumbered(v, numbers) for k, v in value.items()}
    return [renumbered(v, numbers) for v in value] if isinstance(value, list) else value


def _plain(value: Any) -> Any:
    match value:
        case datetime() | date() | time():
            return value.isoformat()
        case bytes() | memoryview():
            return b64encode(bytes(value)).decode()
        case Decimal():
            return str(value)
    raise TypeError(f"{type(value).__name__} has no place in an archive")
