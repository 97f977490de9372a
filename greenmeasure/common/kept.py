"""What rows come to, kept in memory until they change.

Typing a rate asks for the same product, area and machine at every key. The door that lets a request in has read the account, and
with it a revision for each part of it: its ground, its shelf, its book. A reader says of which parts it reads; what it made
under their revisions is used again without asking the database, by every process on its own, until one of them changes. Years of
weather go by their station's own revision, so that a tick in a round does not read them afresh.

Whatever is kept is for reading only; changes go through an app's `actions`. All of it together weighs no more than `MOST`: what
was unused for longest goes first, and of each answer the latest alone is there. What is made within a request that changes
things stays with that request: nobody else sees what may be undone.
"""

import os
import threading
from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from functools import update_wrapper
from typing import Any, Concatenate, Generic, ParamSpec, Protocol, TypeVar

from greenmeasure.common.weight import weigh

MOST = int(os.environ.get("KEPT_MB", "256")) * 1_000_000
"""What may be kept in one process [bytes, about]."""


class Revised(Protocol):
    """A row that says by its revisions when what belongs to it has changed."""

    pk: Any

    def revisions(self, parts: tuple[str, ...]) -> tuple[Any, ...]:
        """The revisions of some of its parts."""


R = TypeVar("R", bound=Revised)
T = TypeVar("T")
P = ParamSpec("P")
Key = tuple[Any, ...]
Stamp = tuple[Any, ...]


@dataclass(frozen=True)
class _Answer:
    """What a reader made, under which revisions, and what it weighs [bytes]."""

    stamp: Stamp
    value: Any
    weight: int = 0


class Store:
    """Answers by their keys, the one unused for longest first; safe for threads."""

    def __init__(self, most: int) -> None:
        self.most, self.weight = most, 0
        self._answers: OrderedDict[Key, _Answer] = OrderedDict()
        self._making: dict[tuple[Key, Stamp], threading.Event] = {}
        self._lock = threading.Lock()

    def __len__(self) -> int:
        return len(self._answers)

    def found(self, key: Key, stamp: Stamp) -> _Answer | None:
        """The answer of these revisions, if it is there."""
        with self._lock:
            return self._found(key, stamp)

    def _found(self, key: Key, stamp: Stamp) -> _Answer | None:
        answer = self._answers.get(key)
        if answer is None or answer.stamp != stamp:
            return None
        self._answers.move_to_end(key)
        return answer

    def made(self, key: Key, stamp: Stamp, make: Callable[[], Any]) -> Any:
        """The answer of these revisions, made if need be: by one thread, while others that ask for the same wait for it."""
        while True:
            with self._lock:
                if answer := self._found(key, stamp):
                    return answer.value
                under_way = self._making.get((key, stamp))
                if under_way is None:
                    done = self._making[key, stamp] = threading.Event()
                    break
            under_way.wait()
        try:
            value = make()
            self.put(key, stamp, value)
            return value
        finally:
            with self._lock:
                del self._making[key, stamp]
            done.set()

    def put(self, key: Key, stamp: Stamp, value: Any) -> None:
        """Keep an answer in the place of that of earlier revisions; what is too heavy for all the room is not kept."""
        answer = _Answer(stamp, value, weigh(value))
        with self._lock:
            if key in self._answers:
                self.weight -= self._answers.pop(key).weight
            if answer.weight <= self.most:
                self._answers[key] = answer
                self.weight += answer.weight
            while self.weight > self.most:
                self.weight -= self._answers.popitem(last=False)[1].weight


STORE = Store(MOST)
_newest: ContextVar[dict[Key, dict[str, Any]] | None] = ContextVar("newest", default=None)


@contextmanager
def read_anew() -> Iterator[None]:
    """What is asked within goes by the revisions that are read or made within, whichever copy of a row it is asked of: a row
    that is kept holds its account as it was when that row was read.
    """
    before = _newest.set({})
    try:
        yield
    finally:
        _newest.reset(before)


def note(row: Any, revisions: Mapping[str, Any]) -> None:
    """Say that these revisions of a row, by their parts, were read or made just now."""
    if (newest := _newest.get()) is not None:
        newest[type(row), row.pk] = newest.get((type(row), row.pk), {}) | dict(revisions)


def newest_of(row: Any) -> dict[str, Any] | None:
    """The revisions of a row as they were read or made last; None where none were."""
    return (_newest.get() or {}).get((type(row), row.pk))


_own: ContextVar[dict[Key, _Answer] | None] = ContextVar("own", default=None)


@contextmanager
def apart() -> Iterator[None]:
    """Keep what is made from here on to oneself: it may rest on changes that are undone."""
    before = _own.set({})
    try:
        yield
    finally:
        _own.reset(before)


class Kept(Generic[R, P, T]):
    """A reader of a row and maybe more, whose answers are kept until one of the parts that it reads of changes."""

    def __init__(self, read: Callable[Concatenate[R, P], T], parts: tuple[str, ...]) -> None:
        self.read, self.parts = read, parts
        update_wrapper(self, read)

    def __call__(self, row: R, *more: P.args, **named: P.kwargs) -> T:
        key = (self.read, type(row), row.pk, getattr(row, "seen", None), *more, *named.items())
        stamp = row.revisions(self.parts)
        own = _own.get()
        if own is None:
            return STORE.made(key, stamp, lambda: self.make(row, *more, **named))  # type: ignore[no-any-return]
        answer = own.get(key)
        if answer is None or answer.stamp != stamp:
            answer = STORE.found(key, stamp) or _Answer(stamp, self.make(row, *more, **named))
            own[key] = answer
        return answer.value  # type: ignore[no-any-return]

    def make(self, row: R, *more: P.args, **named: P.kwargs) -> T:
        """Read afresh."""
        return self.read(row, *more, **named)


def kept(*parts: str) -> Callable[[Callable[Concatenate[R, P], T]], Kept[R, P, T]]:
    """Keep what a reader makes of an account, or of another row that has revisions, until one of these parts changes.

    What else it is given is part of the question, and must be hashable.
    """
    return lambda read: Kept(read, parts)


class KeptEach(Generic[R, T]):
    """A reader of many things of a row by their ids, whose answers are kept one by one; those that are not are read together."""

    def __init__(self, read: Callable[[R, set[int]], Mapping[int, T]], parts: tuple[str, ...]) -> None:
        self.read, self.parts = read, parts
        update_wrapper(self, read)

    def __call__(self, row: R, ids: set[int]) -> dict[int, T]:
        stamp, own = row.revisions(self.parts), _own.get()
        found: dict[int, T] = {}
        for pk in ids:
            key = self._key(row, pk)
            answer = own.get(key) if own is not None else None
            if answer is None or answer.stamp != stamp:
                answer = STORE.found(key, stamp)
            if answer is not None:
                found[pk] = answer.value
        if missing := ids - set(found):
            for pk, value in self.make(row, missing).items():
                found[pk] = value
                if own is None:
                    STORE.put(self._key(row, pk), stamp, value)
                else:
                    own[self._key(row, pk)] = _Answer(stamp, value)
        return found

    def _key(self, row: R, pk: int) -> Key:
        return (self.read, type(row), row.pk, getattr(row, "seen", None), pk)

    def make(self, row: R, ids: set[int]) -> Mapping[int, T]:
        """Read afresh, one answer for each id."""
        return self.read(row, ids)


def kept_each(*parts: str) -> Callable[[Callable[[R, set[int]], Mapping[int, T]]], KeptEach[R, T]]:
    """As `kept`, for a reader of many things at once that gives an answer for each id it is asked for."""
    return lambda read: KeptEach(read, parts)
