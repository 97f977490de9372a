"""What rows come to, kept in memory until they change.

Typing a rate asks for the same product, area and machine at every key. The door that lets a request in has read the
club and with it `Club.revision`, so that what was read under that revision can be used again without asking the
database. Years of weather go by their station's own revision, so that a tick in a round does not read them afresh.
Whatever is kept is for reading only; changes go through an app's `actions`.
"""

from collections import OrderedDict
from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import Any, Protocol, TypeVar
from uuid import UUID


class Revised(Protocol):
    """A row that says by its revision when what belongs to it has changed."""

    pk: Any
    revision: Any


R = TypeVar("R", bound=Revised)
T = TypeVar("T")

MOST_KEPT = 256
"""How many answers are kept in all; the one unused for longest goes first."""

_kept: OrderedDict[tuple[str, int, UUID], Any] = OrderedDict()
_lock = Lock()


def kept(read: Callable[[R], T]) -> Callable[[R], T]:
    """Keep what `read` makes of a club, or of another row that has a revision, until that revision changes."""
    name = f"{read.__module__}.{read.__qualname__}"

    @wraps(read)
    def wrapped(row: R) -> T:
        key = (name, row.pk, row.revision)
        with _lock:
            if key in _kept:
                _kept.move_to_end(key)
                return _kept[key]  # type: ignore[no-any-return]
        found = read(row)
        with _lock:
            _kept[key] = found
            while len(_kept) > MOST_KEPT:
                _kept.popitem(last=False)
        return found

    return wrapped
