"""Rows that no door lets in any more, put into the database by hand: every screen still answers, and shows the rest.

An older version may have taken them, or somebody's own hand. Each column that holds a day, a time or a number is spoilt in
one row at a time, all that can be read is read, and the row is put back.
"""

import math
from collections.abc import Collection, Iterator
from datetime import UTC, date, datetime
from typing import Any

from django.apps import apps
from django.db import IntegrityError, models, transaction

from greenmeasure.accounts.models import Account
from stress.fuzz import Fuzz

SPOILT: dict[Any, tuple[Any, ...]] = {
    models.DateTimeField: (datetime(1, 1, 1, tzinfo=UTC), datetime(9999, 12, 31, 23, 59, tzinfo=UTC)),
    models.DateField: (date(1, 1, 1), date(9999, 12, 31)),
    models.FloatField: (math.inf, -1e308, 5e-324),
}


def columns() -> Iterator[tuple[type[models.Model], Any, tuple[Any, ...]]]:
    """Every column of the house's own tables that is spoilt, with what it is spoilt with."""
    for model in apps.get_models():
        if model.__module__.startswith("greenmeasure."):
            for field in model._meta.concrete_fields:
                kind = next((k for k in SPOILT if isinstance(field, k)), None)
                if kind:
                    yield model, field, SPOILT[kind]


def spoil(fuzz: Fuzz, screens: Collection[str] = (), values: int = 3) -> dict[str, str]:
    """Spoil each column in turn after the story was told, and read.

    Args:
        fuzz: whose story was told.
        screens: that are read; all that the story opened unless named.
        values: how many of a column's spoilt values are tried.

    Returns:
        What broke, with the column that did it.
    """
    found: dict[str, str] = {}
    mine = {name: call for name, call in fuzz.screens.items() if call.who == "manager"}  # guests have left by now
    calls = {name: call for name, call in mine.items() if not screens or name in screens}
    for model, field, spoilt in columns():
        row = model._base_manager.order_by("-pk").first()
        if row is None:
            continue
        for value in spoilt[:values]:
            try:
                with transaction.atomic():
                    model._base_manager.filter(pk=row.pk).update(**{field.attname: value})
                    for account in Account.objects.all():
                        account.touch()
                    for name, call in calls.items():
                        answer = fuzz.ask(call)
                        if answer.status >= 500:
                            found.setdefault(answer.broke, f"{name} with {model.__name__}.{field.name} = {value}")
                    transaction.set_rollback(True)
            except IntegrityError:  # a constraint of the table keeps such a row out
                continue
    return found
