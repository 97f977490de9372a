"""An archive read back, as a new account: all of it or nothing.

One of before is read as it was: a table that came later has no rows in it, and what was renamed is found under its former name.
"""

import json
import zipfile
import zlib
from base64 import b64decode
from collections.abc import Callable, Iterator
from hashlib import sha256
from typing import IO, Any
from uuid import uuid4

from django.core.exceptions import ValidationError
from django.db import IntegrityError, models, transaction

from core.errors import InputError
from greenmeasure.accounts.actions import free_slug
from greenmeasure.accounts.models import Account, Membership, Role, User
from greenmeasure.archive.tables import INSIDE, Table, tables
from greenmeasure.archive.writing import BATCH, FORMAT, MANIFEST, PEOPLE, PICTURES, VERSION, digest_of, renumbered
from greenmeasure.common.bounds import bounded, read_json
from greenmeasure.common.pictures import store
from greenmeasure.scouting.actions import MOST_PHOTOS
from greenmeasure.scouting.queries import files_of

MOST_BYTES, MOST_LINE = 2_000_000_000, 32_000_000
"""Bytes of an archive unpacked, and of one row in it: a label's file has 12 MB."""

MOST_FILES, MOST_PICTURE = 200 + MOST_PHOTOS, 12_000_000
"""Files in an archive, and bytes of a photograph in it."""
FORMER = {"scouting.scouting": "sky.scouting"}
FORMER_COLUMNS = {("sky.scouting", "disease"): "what"}
"""What tables and columns were called in archives of before."""

Keys = dict[type[models.Model], list[int]]


@transaction.atomic
def read(file: IO[bytes], manager: User) -> Account:
    """Make an account of an archive, with its manager.

    Raises:
        InputError: it is no archive, was changed or cut off, or a row in it cannot be; nothing is kept.
    """
    try:
        with zipfile.ZipFile(file) as archive:
            _check_size(archive)
            manifest = _manifest(archive)
            keys: Keys = {User: _people(archive, manifest)}
            for table in tables():
                keys[table.model] = _read_table(archive, manifest, table, keys)
            _pictures(archive, Account.objects.get(pk=keys[Account][0]))
    except InputError:
        raise
    except IntegrityError:
        raise _none("Rows of it contradict each other.") from None
    except (zipfile.BadZipFile, zlib.error, KeyError, EOFError, NotImplementedError, RuntimeError, ValueError, OSError):
        raise _none("It is no archive of Green Measure, or was cut off.") from None
    account = Account.objects.get(pk=keys[Account][0])
    Membership.objects.create(account=account, user=manager, role=Role.MANAGER)
    account.touch()
    return account


def _none(problem: str, where: str = "") -> InputError:
    return InputError("file", where, problem, "Nothing was kept. Take the archive anew from where it came.")


def _check_size(archive: zipfile.ZipFile) -> None:
    if sum(i.file_size for i in archive.infolist()) > MOST_BYTES or len(archive.infolist()) > MOST_FILES:
        raise _none("It unpacks to more than any account holds.")


def _manifest(archive: zipfile.ZipFile) -> dict[str, Any]:
    found = read_json(archive.read(MANIFEST).decode(), "file")
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise _none("It is no archive of Green Measure.")
    if found.get("version") != VERSION:
        raise _none(f"It is of version {found.get('version')}; this Green Measure reads {VERSION}. Bring the code up to date.")
    if not isinstance(found.get("tables"), dict) or digest_of(found["tables"]) != found.get("content"):
        raise _none("Its table of contents was changed.")
    return found


def _rows(archive: zipfile.ZipFile, manifest: dict[str, Any], name: str) -> Iterator[list[Any]]:
    """A table's lines, held against its digest when they have all been read."""
    found = sha256()
    with archive.open(f"{name}.jsonl") as file:
        while line := file.readline(MOST_LINE):
            found.update(line)
            try:
                row = bounded(json.loads(line))
            except (ValueError, RecursionError):
                raise _none("A line of it cannot be read.", name) from None
            if not isinstance(row, list):
                raise _none("A line of it is no row.", name)
            yield row
    if found.hexdigest() != manifest["tables"][name]["digest"]:
        raise _none("It was changed since it was made.", name)


def _people(archive: zipfile.ZipFile, manifest: dict[str, Any]) -> list[int]:
    """Whoever is named in it, as people who cannot sign in."""
    rows = _rows(archive, manifest, PEOPLE)
    next(rows)
    made = []
    for (name,) in rows:
        person = User(username=f"named-{uuid4().hex[:20]}", full_name=str(name)[:80], is_active=False)
        person.set_unusable_password()
        person.save()
        made.append(person.pk)
    return made


def _read_table(archive: zipfile.ZipFile, manifest: dict[str, Any], table: Table, keys: Keys) -> list[int]:
    """Make a table's rows; gives their keys in order."""
    name = next((n for n in (table.name, FORMER.get(table.name, "")) if n in manifest["tables"]), None)
    if name is None:
        return []
    rows = _rows(archive, manifest, name)
    named = [FORMER_COLUMNS.get((name, n), n) for n in next(rows)]
    fields = {f.name: f for f in table.columns}
    known = [fields.get(str(n)) for n in named]
    later = [f for f in table.columns if f.is_relation and f.related_model is table.model]
    ways = [None if f is None or f in later else _way(f, keys) for f in known]
    made: list[int] = []
    held: list[models.Model] = []
    tied: list[tuple[int, Any, int]] = []
    for n, row in enumerate(rows, 1):
        if len(row) != len(named):
            raise _none("A row of it has too few columns, or too many.", f"{table.name}, row {n}")
        new = _new(table, keys)
        for field, way, value in zip(known, ways, row, strict=True):
            if field in later and value is not None:
                tied.append((n, field, value))
            elif field is not None and way is not None:
                try:
                    setattr(new, field.attname, way(value))
                except (ValidationError, ValueError, TypeError, IndexError):
                    raise _none(f"Its {field.verbose_name} cannot be.", f"{table.name}, row {n}") from None
        held.append(new)
        if len(held) == BATCH:
            made += _keep(table, held)
            held = []
    made += _keep(table, held)
    for n, field, value in tied:
        table.model._base_manager.filter(pk=made[n - 1]).update(**{field.attname: made[value - 1]})
    return made


def _pictures(archive: zipfile.ZipFile, account: Account) -> None:
    """Keep the files of the photographs; one that was lost before it was taken along stays lost."""
    for sha in sorted(files_of(account)):
        try:
            held = archive.getinfo(f"{PICTURES}/{sha}.jpg")
        except KeyError:
            continue
        if held.file_size > MOST_PICTURE:
            raise _none("A photograph of it is too large.", sha[:12])
        data = archive.read(held)
        if sha256(data).hexdigest() != sha:
            raise _none("A photograph of it was changed.", sha[:12])
        store(data)


def _new(table: Table, keys: Keys) -> models.Model:
    """An empty row of the account that is being made."""
    if table.model is Account:
        return Account(slug=free_slug(f"archive-{uuid4().hex[:8]}"))
    new = table.model(**{f.name: uuid4() for f in table.model._meta.concrete_fields if f.name == "key"})
    if any(f.name == "account" for f in table.model._meta.concrete_fields):
        new.account_id = keys[Account][0]  # type: ignore[attr-defined]
    return new


def _keep(table: Table, held: list[models.Model]) -> list[int]:
    if table.model is Account:
        for account in held:
            account.slug = free_slug(account.name)  # type: ignore[attr-defined]
    stamps = [f.attname for f in table.columns if getattr(f, "auto_now_add", False)]
    were = [[getattr(row, name) for name in stamps] for row in held]
    made = table.model._base_manager.bulk_create(held)
    if stamps and made:  # they are stamped anew when they are created
        for row, values in zip(made, were, strict=True):
            for name, value in zip(stamps, values, strict=True):
                setattr(row, name, value)
        table.model._base_manager.bulk_update(made, stamps)
    return [row.pk for row in made]


def _way(field: Any, keys: Keys) -> Callable[[Any], Any]:
    """How a column's value is read. The way raises ValidationError, ValueError or IndexError on what cannot be."""
    if field.is_relation:
        known = keys[field.related_model]
        if field.null:
            return lambda value: None if value is None else _key(known, value)
        return lambda value: _key(known, value)
    if isinstance(field, models.JSONField):
        by_name = {n: dict(enumerate(_of(keys, label), 1)) for n, label in INSIDE.items()}
        return lambda value: renumbered(value, by_name)
    if isinstance(field, models.BinaryField):
        return lambda value: b64decode(value, validate=True)
    return lambda value: _column(field, value)


def _column(field: Any, value: Any) -> Any:
    """A value as its column takes it; no form's rule, but the column's own. Raises ValidationError."""
    if (value is None and field.null) or (value == "" and isinstance(field, models.CharField | models.TextField)):
        return value
    return field.clean(value, None)


def _of(keys: Keys, label: str) -> list[int]:
    return next((found for model, found in keys.items() if model._meta.label == label), [])


def _key(known: list[int], number: int) -> int:
    if number < 1:
        raise IndexError(number)
    return known[number - 1]
