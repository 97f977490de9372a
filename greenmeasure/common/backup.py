"""Copies of the database, taken while it is written to, and put back. SQLite's own online backup makes them.

A copy is whole with the folder of pictures beside it: photographs are files under the digest of what is in them, so that
all copies share them, and one goes with the last copy that has it. Everything else is in the one file, label pictures too. It is
checked before it gets its name, so that a file under a backup's name is one that can be put back.
"""

import shutil
import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from greenmeasure.common.private import FILE, FOLDER

PATTERN, PICTURES = "greenmeasure-*.sqlite3", "pictures"


class Unsound(Exception):
    """A database file that is none, or is not whole; the message is for people."""


def back_up(database: Path, folder: Path, keep: int, now: datetime, pictures: Path | None = None) -> Path:
    """Copy a database that may be in use into a folder, under the time; older copies beyond `keep` go.

    `pictures` is where its photographs lie. They are copied before it and after it: one that is removed meanwhile is there, and
    one that is added too.

    Raises:
        Unsound: the copy is not whole. Nothing that was there before is touched then.
    """
    folder.mkdir(parents=True, exist_ok=True, mode=FOLDER)
    named = folder / f"greenmeasure-{now.astimezone(UTC):%Y%m%dT%H%M%S%fZ}.sqlite3"
    making = named.with_suffix(".making")
    making.touch(mode=FILE)
    try:
        if pictures:
            bring(pictures, folder / PICTURES)
        copy(database, making)
        check(making)
        if pictures:
            bring(pictures, folder / PICTURES)
        making.replace(named)
    finally:
        making.unlink(missing_ok=True)
    for old in kept(folder)[: -keep or None]:
        old.unlink()
    _prune(folder)
    return named


def bring(pictures: Path, to: Path, only: set[str] | None = None) -> None:
    """Copy those picture files into another folder that are not there yet; all of them, or those of some digests."""
    for file in pictures.glob("*/*.jpg"):
        there = to / file.parent.name / file.name
        if there.exists() or (only is not None and file.name.split(".")[0] not in only):
            continue
        there.parent.mkdir(parents=True, exist_ok=True, mode=FOLDER)
        making = there.with_suffix(".making")
        try:
            shutil.copyfile(file, making)
        except FileNotFoundError:  # it was removed meanwhile
            making.unlink(missing_ok=True)
            continue
        making.chmod(FILE)
        making.replace(there)


def shown(database: Path) -> set[str]:
    """The digests of the pictures that a database shows."""
    with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True, timeout=60)) as held:
        if not held.execute("select 1 from sqlite_master where name = 'scouting_photo'").fetchone():
            return set()
        return {sha for (sha,) in held.execute("select distinct sha from scouting_photo")}


def _prune(folder: Path) -> None:
    """Let those pictures go that no copy shows any more."""
    found = list((folder / PICTURES).glob("*/*.jpg"))
    if not found:
        return
    wanted = set().union(*(shown(copy) for copy in kept(folder)))
    for file in found:
        if file.name.split(".")[0] not in wanted:
            file.unlink(missing_ok=True)


def kept(folder: Path) -> list[Path]:
    """The copies in a folder, the oldest first."""
    return sorted(folder.glob(PATTERN))


def copy(source: Path, to: Path) -> None:
    """Copy a database into another file, whole as of one moment, whoever uses either of them meanwhile.

    In one stretch: with a write-ahead log a reader holds no writer up, while a copy in parts would begin again at each write.
    """
    with (
        closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True, timeout=60)) as found,
        closing(sqlite3.connect(to, timeout=60)) as made,
    ):
        found.backup(made)


def check(database: Path) -> None:
    """Read a database through. Raises Unsound where it is not whole, or not one of ours."""
    try:
        with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True, timeout=60)) as held:
            (said,) = held.execute("pragma integrity_check").fetchone()
            if said != "ok":
                raise Unsound(f"{database.name} is damaged: {said}")
            if lost := held.execute("pragma foreign_key_check").fetchone():
                raise Unsound(f"{database.name} is not whole: a row of {lost[0]} refers to one of {lost[2]} that is not there.")
            if not held.execute("select 1 from sqlite_master where name = 'accounts_account'").fetchone():
                raise Unsound(f"{database.name} is no database of Green Measure.")
    except sqlite3.DatabaseError as wrong:
        raise Unsound(f"{database.name} cannot be read: {wrong}") from None
