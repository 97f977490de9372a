"""Checks that every named thing of a club shares."""

from typing import TypeVar

from core.errors import InputError
from greenmeasure.accounts.models import Club
from greenmeasure.common.models import Belonging

B = TypeVar("B", bound=Belonging)


def free_name(model: type[B], club: Club, name: str, besides: int | None = None) -> str:
    """`name`, if the club has nothing else of that kind under it.

    Raises:
        InputError: the name is empty or taken.
    """
    what = str(model._meta.verbose_name)
    clean = " ".join(name.split())
    if not clean:
        raise InputError("name", name, "The name is empty.", f"Give the {what} a name you will recognise outdoors.")
    taken = model.objects.filter(club=club, name__iexact=clean, archived_at=None).exclude(pk=besides)
    if taken.exists():
        raise InputError("name", name, f"There is already a {what} called “{clean}”.", "Pick another name.")
    return clean


def put_back(item: B) -> B:
    """Undo an archiving.

    Raises:
        InputError: its name has been taken in the meantime.
    """
    item.name = free_name(type(item), item.club, item.name, item.pk)
    item.archived_at = None
    item.save()
    return item
