"""Rows as they are read: days and numbers within the same bounds as what comes in, whoever put them there.

A version of before, or somebody's own hand, may have left a day in year 1 or a number without end in the database. Read as
it stands, one such row would take every screen down that meets it. So it is read as nothing where its column may be empty,
and else as the nearest value that can be reckoned with; `amiss` finds all such rows, for the screens to name them.
"""

import math
from collections.abc import Callable, Collection, Iterator
from dataclasses import dataclass
from datetime import date, datetime
from functools import cache
from typing import Any

from django.apps import apps
from django.db import models

from core.units import HUGEST, TINIEST
from greenmeasure.common.bounds import FIRST_DAY, FIRST_MOMENT, LAST_DAY, LAST_MOMENT


def nearest_number(value: float) -> float:
    """The nearest number that can be reckoned with."""
    if value == 0 or TINIEST <= abs(value) <= HUGEST:
        return value
    if math.isnan(value):
        return 0.0
    return math.copysign(min(max(abs(value), TINIEST), HUGEST), value)


def nearest_day(value: date) -> date:
    """The nearest day of the years that are kept."""
    return min(max(value, FIRST_DAY), LAST_DAY)


def nearest_moment(value: datetime) -> datetime:
    """The nearest moment of the years that are kept."""
    return min(max(value, FIRST_MOMENT), LAST_MOMENT)


NEAREST: tuple[tuple[type[Any], Callable[[Any], Any], Any, Any], ...] = (
    (models.DateTimeField, nearest_moment, FIRST_MOMENT, LAST_MOMENT),
    (models.DateField, nearest_day, FIRST_DAY, LAST_DAY),
    (models.FloatField, nearest_number, -HUGEST, HUGEST),
)
"""By the kind of a column: how it is read, and between what it lies."""


class HouseRow(models.Model):
    """A table of the house."""

    class Meta:
        abstract = True

    @classmethod
    def from_db(cls, db: str | None, field_names: Collection[str], values: Collection[Any], **more: Any) -> Any:
        """The row, its days and numbers within bounds."""
        found, bounds = list(values), _bounds(cls)
        for i, name in enumerate(field_names):
            bound = bounds.get(name)
            if bound is not None and (value := found[i]) is not None:
                near = bound[0](value)
                if near != value:
                    found[i] = None if bound[1] else near
        return super().from_db(db, field_names, found, **more)


@cache
def _bounds(model: type[models.Model]) -> dict[str, tuple[Callable[[Any], Any], bool]]:
    """How each bounded column of a table is read, and whether it may be empty."""
    return {f.attname: (kind[1], f.null) for f in model._meta.concrete_fields if (kind := _kind(f))}


def _kind(field: Any) -> tuple[type[Any], Callable[[Any], Any], Any, Any] | None:
    return next((kind for kind in NEAREST if isinstance(field, kind[0])), None)


# --- telling of them --------------------------------------------------------------------------------------------


HOLDERS = ("area", "product", "machine")
"""What a row without a name of its own is called after."""


@dataclass(frozen=True)
class Amiss:
    """A value that cannot be: in which row of which table, and what it is read as."""

    table: str
    row: str
    column: str
    value: str
    read_as: str


def amiss(account: Any, app: str = "") -> list[Amiss]:
    """All values of an account that cannot be, or those in the tables of an app; weather has its own way to set them aside."""
    every = [(model, path) for model, path in _tables() if app in ("", model._meta.app_label)]
    return [found for model, path in every for found in _amiss_in(model, path, account)]


@cache
def _tables() -> tuple[tuple[type[HouseRow], str], ...]:
    """The tables that belong to an account, each with the way to it."""
    models_of_rows = [m for m in apps.get_models() if issubclass(m, HouseRow)]
    found = [(m, way_to_account(m)) for m in models_of_rows]
    return tuple((m, path) for m, path in found if path and not any(f.name == "station" for f in m._meta.concrete_fields))


@cache
def way_to_account(model: Any) -> str:
    """The shortest way from a table to its account by what it must refer to; empty where there is none."""
    return _path(model, frozenset())


def _path(model: Any, seen: frozenset[Any]) -> str:
    ways = [f for f in model._meta.concrete_fields if f.is_relation and not f.null and f.related_model not in seen]
    if any(f.name == "account" for f in ways):
        return "account"
    longer = [(f.name, _path(f.related_model, seen | {model})) for f in ways]
    return min((f"{name}__{rest}" for name, rest in longer if rest), key=len, default="")


def _amiss_in(model: Any, path: str, account: Any) -> Iterator[Amiss]:
    columns = [(f, kind) for f in model._meta.concrete_fields if (kind := _kind(f))]
    if not columns:
        return
    beyond = models.Q()
    for field, (_, _, low, high) in columns:
        beyond |= models.Q(**{f"{field.attname}__lt": low}) | models.Q(**{f"{field.attname}__gt": high})
        if isinstance(field, models.FloatField):
            tiny = models.Q(**{f"{field.attname}__gt": -TINIEST, f"{field.attname}__lt": TINIEST})
            beyond |= tiny & ~models.Q(**{field.attname: 0})
    bad = model._base_manager.filter(beyond, **{path: account})
    names = [f.attname for f, _ in columns]
    for pk, *values in bad.values_list("pk", *names)[:20]:
        row = model._base_manager.get(pk=pk)
        for (field, kind), value in zip(columns, values, strict=True):
            if value is not None and kind[1](value) != value:
                read_as = getattr(row, field.attname)
                yield Amiss(str(model._meta.verbose_name), _called(row), str(field.verbose_name), _said(value), _said(read_as))


def _called(row: Any) -> str:
    """What people call a row, or what it lies on; its number where it has no name."""
    named = (getattr(row, "name", ""), getattr(row, "number", ""), *(getattr(getattr(row, k, None), "name", "") for k in HOLDERS))
    return next((n for n in named if n), str(row.pk))


def _said(value: Any) -> str:
    return "nothing" if value is None else value.isoformat()[:10] if isinstance(value, date) else f"{value:g}"
