"""Backups taken under writes, checked, kept so many, and put back."""

import os
import sqlite3
import stat
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path
from unittest import TestCase, skipUnless

from django.conf import settings
from django.db import connection
from django.test import TransactionTestCase as DatabaseTest

from greenmeasure.common.backup import Unsound, back_up, check, copy, kept

NOW = datetime(2026, 11, 29, 6, tzinfo=UTC)


class Copies(TestCase):
    def setUp(self) -> None:
        held = tempfile.TemporaryDirectory()
        self.addCleanup(held.cleanup)
        self.folder = Path(held.name)
        self.live = self.folder / "live.sqlite3"
        with closing(sqlite3.connect(self.live)) as made:
            made.execute("pragma journal_mode=wal")
            made.execute("create table accounts_account (id integer primary key)")
            made.execute("create table pair (a integer primary key, b integer, filling text)")
            made.executemany("insert into pair values (?, ?, ?)", [(n, n, "x" * 900) for n in range(20_000)])
            made.commit()

    def test_a_copy_taken_under_writes_is_whole_and_of_one_moment(self) -> None:
        stop, acknowledged = threading.Event(), [0]

        def write() -> None:
            with closing(sqlite3.connect(self.live, timeout=60)) as line:
                n = 20_000
                while not stop.is_set():
                    line.execute("insert into pair values (?, ?, 'y')", (n, -1))
                    line.execute("update pair set b = ? where a = ?", (n, n))  # a moment between them is never seen
                    line.commit()
                    acknowledged[0] = n = n + 1

        writer = threading.Thread(target=write)
        writer.start()
        try:
            while acknowledged[0] < 20_050:
                time.sleep(0.01)
            before = acknowledged[0]
            made = back_up(self.live, self.folder / "b", 3, NOW)
        finally:
            stop.set()
            writer.join()
        with closing(sqlite3.connect(made)) as copy:
            self.assertEqual(copy.execute("select count(*) from pair where a <> b").fetchone(), (0,))
            self.assertGreaterEqual(copy.execute("select count(*) from pair").fetchone()[0], before)
        self.assertEqual(made.stat().st_mode & 0o077, 0)

    def test_so_many_are_kept_the_newest(self) -> None:
        made = [back_up(self.live, self.folder / "b", 2, NOW + timedelta(hours=n)) for n in range(4)]
        self.assertEqual(kept(self.folder / "b"), made[2:])

    def test_a_copy_that_is_damaged_or_of_something_else_is_none(self) -> None:
        good = back_up(self.live, self.folder / "b", 2, NOW)
        data = bytearray(good.read_bytes())
        data[40_000:60_000] = b"\x07" * 20_000
        (self.folder / "bad").write_bytes(data)
        (self.folder / "text").write_text("no database")
        with closing(sqlite3.connect(self.folder / "other")) as other:
            other.execute("create table x (y)")
        for name in ("bad", "text", "other"):
            with self.assertRaises(Unsound):
                check(self.folder / name)


@skipUnless(connection.vendor == "sqlite", "these copy SQLite's file; PostgreSQL brings its own commands for it")
class Commands(DatabaseTest):
    """The commands as an operator gives them, on a data folder of their own that begins with the tests' empty database."""

    def setUp(self) -> None:
        held = tempfile.TemporaryDirectory()
        self.addCleanup(held.cleanup)
        self.folder = Path(held.name) / "var"
        self.folder.mkdir(mode=0o755)
        self.live = self.folder / "greenmeasure.sqlite3"
        copy(Path(str(connection.settings_dict["NAME"])), self.live)

    def run_command(self, *words: str, fails: bool = False) -> str:
        env = os.environ | {"GREENMEASURE_VAR": str(self.folder), "DJANGO_SETTINGS_MODULE": "greenmeasure.settings"}
        env.pop("SECRET_KEY", None)
        made = subprocess.run(
            [sys.executable, str(Path(settings.ROOT) / "manage.py"), *words], env=env, capture_output=True, text=True
        )
        self.assertEqual(made.returncode != 0, fails, made.stdout + made.stderr)
        return made.stdout + made.stderr

    def people(self) -> list[str]:
        with closing(sqlite3.connect(self.live)) as line:
            return [n for (n,) in line.execute("select username from accounts_user order by id")]

    def add(self, name: str) -> None:
        columns = "username, full_name, password, is_active, is_staff, is_superuser, email, date_joined"
        with closing(sqlite3.connect(self.live)) as line:
            line.execute(f"insert into accounts_user ({columns}) values (?, ?, '', 1, 0, 0, '', '2026-01-01')", (name, name))
            line.commit()

    def test_put_back_it_is_what_it_was_and_what_stood_there_is_kept(self) -> None:
        self.add("first")
        self.assertIn("checked", self.run_command("backup"))
        self.add("second")
        self.assertIn("put back", self.run_command("restore"))
        self.assertEqual(self.people(), ["first"])
        newest = kept(self.folder / "backups")[-1]
        self.run_command("restore", str(newest))
        self.assertEqual(self.people(), ["first", "second"])
        newest.write_bytes(b"garbage")
        self.assertIn("Nothing was put back", self.run_command("restore", str(newest), fails=True))
        self.assertEqual(self.people(), ["first", "second"])

    def test_the_data_folder_is_its_owners_alone(self) -> None:
        self.live.chmod(0o644)
        self.run_command("bring_up_to_date")
        modes = {p.name: stat.S_IMODE(p.stat().st_mode) for p in (self.folder, *self.folder.iterdir())}
        self.assertLessEqual({"var", "secret_key", "greenmeasure.sqlite3"}, set(modes))
        for name, mode in modes.items():
            self.assertEqual(mode & 0o077, 0, f"{name} has {mode:o}")
