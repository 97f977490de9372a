"""What rows come to, kept in memory until they change.

Typing a rate asks for the same product, area and machine at every key. The door that lets a request in has read the
account and with it `Account.revision`, so that what was read under that revision can be used again without asking the
database. Years of weather go by their station's own revision, so that a tick in a round does not read them afresh.
Whatever is kept is for reading only; changes go through an app's `actions`.
"""

from collections.abc import Callable
from functools import lru_cache, wraps
from typing import Any, Generic, Protocol, TypeVar


class Revised(Protocol):
    """A row that says by its revision when what belongs to it has changed."""

    pk: Any
    revision: Any


R = TypeVar("R", bound=Revised)
T = TypeVar("T")

MOST_KEPT = 32
"""How many answers of each kind are kept; the one unused for longest goes first."""


class _Key(Generic[R]):
    """A row, the same as another of its key, its revision and its limits."""

    def __init__(self, row: R) -> None:
        self.row = row
        self.same = (row.pk, row.revision, getattr(row, "seen", None))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Key) and self.same == other.same

    def __hash__(self) -> int:
        return hash(self.same)


def kept(read: Callable[[R], T]) -> Callable[[R], T]:
    """Keep what `read` makes of an account, or of another row that has a revision, until that revision changes."""

    @lru_cache(maxsize=MOST_KEPT)
    def by_key(key: _Key[R]) -> T:
        return read(key.row)

    @wraps(read)
    def wrapped(row: R) -> T:
        return by_key(_Key(row))

    return wrapped
