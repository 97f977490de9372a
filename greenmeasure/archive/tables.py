"""What an account is made of: its tables from the ground up, their columns, and what refers to what.

Found from the models themselves, so that a new table or column is in the archive without anybody thinking of it. Rows are
numbered in their order, from 1 in each table; what refers to a row refers to its number, in columns and inside JSON. So the same
content is the same archive, whatever the keys of the database it lies in.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any

from django.apps import apps
from django.db import models

from greenmeasure.accounts.models import REVISIONS, Account, Coming, Membership, Reminders, Sent, Tried, User
from greenmeasure.common.rows import way_to_account

DOORS = (User, Membership, Sent, Coming, Tried, Reminders)
"""Who may come in is not content: an archive opens no door."""
OWN = {"revision", "slug", "key", "asked_at", "begun_at"} | REVISIONS
"""Columns that belong to a database, not to what is kept in it."""
INSIDE = {
    "product_id": "shelf.Product",
    "row_id": "shelf.RateRow",
    "area_id": "ground.Area",
    "machine_id": "kit.Machine",
    "lot_id": "shelf.Lot",
    "site_id": "accounts.Site",
}
"""What a key inside of JSON refers to."""


@dataclass(frozen=True)
class Table:
    """A table, how its rows are found from their account, and the columns that are content."""

    model: type[models.Model]
    way: str
    columns: tuple[Any, ...]

    @property
    def name(self) -> str:
        return self.model._meta.label_lower

    def rows(self, account: Account) -> models.QuerySet[Any]:
        """The account's rows in their order."""
        where = {"pk": account.pk} if self.model is Account else {self.way: account}
        return self.model._base_manager.filter(**where).order_by("pk")

    def references(self) -> Iterator[Any]:
        """The columns that refer to other rows of the account."""
        return (f for f in self.columns if f.is_relation and f.related_model is not User)


@cache
def tables() -> tuple[Table, ...]:
    """The tables of an account, each after those that it refers to."""
    found = {
        m: Table(m, way_to_account(m), _columns(m))
        for m in apps.get_models()
        if m is Account or (m.__module__.startswith("greenmeasure.") and m not in DOORS and way_to_account(m))
    }
    ordered: list[Table] = []

    def add(table: Table) -> None:
        for field in table.references():
            other = found.get(field.related_model)
            if other and other is not table and other not in ordered:
                add(other)
        if table not in ordered:
            ordered.append(table)

    for model in sorted(found, key=lambda m: m._meta.label_lower):
        add(found[model])
    return tuple(ordered)


def _columns(model: type[models.Model]) -> tuple[Any, ...]:
    """A table's columns that are content, in the model's order."""
    return tuple(
        f
        for f in model._meta.concrete_fields
        if not f.primary_key and f.name not in OWN and f.related_model is not Account and not getattr(f, "auto_now", False)
    )
