"""Changes that name the version they were made from, so that nobody's are overwritten unseen.

A form sends the `version` that it was filled from. `claim` decides on the row, inside the transaction, whether that is
still the one that stands; where it is not, the door answers 409 with every field that differs, and either can be taken.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar

from django.db import models, transaction
from django.db.models import F
from ninja import Schema
from pydantic import BaseModel

from core.errors import InputError
from greenmeasure.common.differences import named, plain, said

S = TypeVar("S", bound=Schema)


class Stale(Exception):
    """A change was made from a version that no longer stands."""


class Changed(Exception):
    """A stale change with what stands now, field by field."""

    def __init__(self, version: int, changes: list["Change"]) -> None:
        self.version, self.changes = version, changes
        super().__init__("Somebody changed this while you had it open. Take what you want of both, and save again.")


class Change(BaseModel):
    """A field that differs: what was sent and what stands, in words, and as what stands would be sent."""

    field: str
    name: str
    yours: str
    theirs: str
    value: Any


def no_version() -> InputError:
    """What is said to a change that does not name its version."""
    return InputError("version", None, "It does not say which version it was made from.", "Open it again.")


@contextmanager
def claim(row: models.Model | None, version: int | None) -> Iterator[None]:
    """A transaction that changes `row`, made from `version` of it; a row that is new (None) has none yet.

    Raises:
        InputError: no version is named.
        Stale: another change came first; nothing is saved.
    """
    with transaction.atomic():
        if row is not None and row.pk is not None:
            if version is None:
                raise no_version()
            rows = type(row)._default_manager.filter(pk=row.pk, version=version)
            if not rows.update(version=F("version") + 1):
                raise Stale
            row.version = version + 1  # type: ignore[attr-defined]
        yield


@contextmanager
def against(given: S, now: Callable[[], BaseModel]) -> Iterator[None]:
    """Answer a stale change with what differs from what stands `now`.

    Raises:
        Changed: in place of Stale.
    """
    try:
        yield
    except Stale:
        stands = now().model_dump(mode="json")
        raise Changed(stands["version"], differences(given, stands)) from None


def differences(given: S, stands: dict[str, Any]) -> list[Change]:
    """The fields of a form that differ from what stands, as the form would send it."""
    would = type(given).model_validate(stands).model_dump(mode="json")
    sent = given.model_dump(mode="json")
    return [
        Change(field=name, name=named(name), yours=said(sent[name]), theirs=said(would[name]), value=would[name])
        for name in type(given).model_fields
        if name in stands and name != "version" and plain(sent[name]) != plain(would[name])
    ]
