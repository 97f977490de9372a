"""Checks that every named thing of an account shares."""

from typing import TypeVar

from django.db import models

from core.errors import InputError
from greenmeasure.common.models import Belonging

N = TypeVar("N", bound=models.Model)
B = TypeVar("B", bound=Belonging)


def free_name(model: type[N], within: models.Model, name: str, besides: int | None = None) -> str:
    """`name`, if the account, or the site, has nothing else of that kind under it.

    Raises:
        InputError: the name is empty or taken.
    """
    what = str(model._meta.verbose_name)
    clean = " ".join(name.split())
    if not clean:
        raise InputError("name", name, "The name is empty.", f"Give the {what} a name you will recognise outdoors.")
    where = str(type(within)._meta.model_name)
    taken = model._default_manager.filter(name__iexact=clean, archived_at=None, **{where: within}).exclude(pk=besides)
    if taken.exists():
        raise InputError("name", name, f"There is already a {what} called “{clean}”.", "Pick another name.")
    return clean


def put_back(item: B) -> B:
    """Undo an archiving.

    Raises:
        InputError: its name has been taken in the meantime.
    """
    item.name = free_name(type(item), item.within, item.name, item.pk)
    item.archived_at = None
    item.next_version()
    item.save()
    return item
