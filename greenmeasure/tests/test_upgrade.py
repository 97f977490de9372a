"""Databases of earlier landings are brought up to the code as it stands, and everything in them can be read."""

import json
import os
import sqlite3
import subprocess
import sys
import tempfile
from functools import cache
from pathlib import Path
from typing import Any, ClassVar

from django.conf import settings
from django.db.migrations.loader import MigrationLoader
from django.test import SimpleTestCase

DATA = Path(__file__).parent / "data"
WALK = """
import json, re, sys
import django
django.setup()
from django.conf import settings
settings.ALLOWED_HOSTS = ["*"]
from django.test import Client
from greenmeasure.accounts.models import User
from greenmeasure.tests.test_walls import endpoints

client, told = Client(), {}
client.force_login(User.objects.get(username="manager-alder"), "django.contrib.auth.backends.ModelBackend")
for method, path, name in endpoints():
    if method != "GET" or "{account}" not in path:
        continue
    filled = path.replace("{account}", "alder").replace("{disease}", "dollar_spot")
    filled = re.sub(r"\\{(\\w+)\\}", lambda m: "1", filled)
    if name in ("get_strip", "get_schools"):
        filled += "?area_id=1&disease=dollar_spot"
    if name == "get_sky_day":
        filled += "?area_id=1&on=2026-08-10"
    answer = client.get(filled)
    body = b"".join(answer.streaming_content) if answer.streaming else answer.content
    told[name] = [answer.status_code, json.loads(body) if "json" in answer["Content-Type"] else len(body)]
told["rounds"] = [client.get(f"/api/accounts/alder/rounds/{n}").json() for n in range(1, 5)]
told["reckoned"] = client.post("/api/accounts/alder/reckon/job", sys.argv[1], "application/json").json()
print(json.dumps(told))
"""


TABLES = """
import json
import django
django.setup()
from django.db import connection
told = {}
with connection.cursor() as cursor:
    look = connection.introspection
    for table in look.table_names(cursor):
        columns = [[c.name, c.type_code, c.display_size, c.null_ok] for c in look.get_table_description(cursor, table)]
        found = look.get_constraints(cursor, table)
        rules = [
            [c["columns"], c["primary_key"], c["unique"], c["foreign_key"], c["check"], c["index"]]
            + [name if name.isidentifier() and not name.startswith(("__", "fk_")) and not c["index"] else ""]
            for name, c in found.items()
        ]
        told[table] = [sorted(columns), sorted(rules, key=str)]
print(json.dumps(told))
"""


def run(*args: str, database: Path) -> str:
    """Run Python beside this process, on a database file of its own."""
    env = os.environ | {
        "DATABASE_URL": f"sqlite:///{database}",
        "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
        "GREENMEASURE_CLOCK": "2026-08-12T10:20:00Z",
        "GREENMEASURE_VAR": str(database.parent),
        "SECRET_KEY": "only-for-tests-and-never-for-anything-else",
        "AXES_ENABLED": "",
    }
    done = subprocess.run([sys.executable, *args], cwd=settings.ROOT, env=env, capture_output=True, text=True)
    if done.returncode:
        raise AssertionError(f"{args[:2]} failed:\n{done.stdout[-2000:]}\n{done.stderr[-4000:]}")
    return done.stdout


@cache
def migrated(name: str) -> Path:
    """The database of a landing, migrated once."""
    database = settings.VAR / f"landing-{os.getpid()}" / name / "landing.sqlite3"
    database.parent.mkdir(parents=True)
    held = sqlite3.connect(database)
    held.executescript((DATA / f"{name}.sql").read_text(encoding="utf-8"))
    held.commit()
    held.close()
    run("manage.py", "migrate", "-v0", "--skip-checks", database=database)
    return database


def brought_up(name: str, folder: Path) -> Path:
    """The database of a landing, migrated, to do with as one likes."""
    database = folder / f"{name}.sqlite3"
    with sqlite3.connect(migrated(name)) as held, sqlite3.connect(database) as copy:
        held.backup(copy)
    return database


def unapplied(database: Path) -> set[tuple[str, str]]:
    """The migrations of the code that a database has not had, by app and name."""
    with sqlite3.connect(database) as held:
        applied = set(held.execute("select app, name from django_migrations"))
    return set(MigrationLoader(None).disk_migrations) - applied


NO_OUTING = ("get_outing", "print_outing", "print_outing_notices", "print_outing_notes")
"""What is answered about an outing, where there is none."""


class Landing(SimpleTestCase):
    """A database of an earlier landing, brought up and walked through: an account with something of everything."""

    name: ClassVar[str]
    renamed: ClassVar[dict[str, str]] = {"sky_scouting": "scouting_scouting"}
    """What its tables are called now."""
    no_mix: ClassVar[int] = 404
    """What opening its first kept mix is answered."""
    area_name: ClassVar[str] = "area_name"
    """What an entry called its area's name."""
    folder: ClassVar[Any]
    told: ClassVar[dict[str, Any]]
    database: ClassVar[Path]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(cls.folder.cleanup)
        cls.database = brought_up(cls.name, Path(cls.folder.name))
        rate = {"value": 0.5, "unit": "fl_oz/kft2"}
        job = {
            "mix": [{"product_id": 5}],
            "machine_id": 1,
            "parts": [{"area_id": 1, "doses": [{"row_id": 5, "rate": rate}]}],
            "on": "2026-08-13",
        }
        cls.told = json.loads(run("-c", WALK, json.dumps(job), database=cls.database).splitlines()[-1])

    def rows(self, query: str) -> list[Any]:
        with sqlite3.connect(self.database) as held:
            return held.execute(query).fetchall()

    def test_every_reading_door_answers(self) -> None:
        walked = {n: said for n, said in self.told.items() if n not in ("rounds", "reckoned")}
        self.assertGreater(len(walked), 25)
        # No photograph, nothing due, no mix kept, a short season, no trial.
        nothing = ("get_label", "get_picture", "get_mask", "get_colour", "read_trial")
        no_photo = dict.fromkeys(nothing, 404) | {"get_pair": 422, "read_turn_as_job": 422}
        else_told = no_photo | dict.fromkeys(NO_OUTING, 404) | {"get_due_whole": 422, "open_mix": self.no_mix, "get_schools": 422}
        else_told = {n: status for n, status in else_told.items() if status != 200}
        self.assertEqual({n: status for n, (status, _) in walked.items() if status != 200}, else_told)

    def test_entries_know_their_product_by_id_though_it_was_renamed(self) -> None:
        found = next(a for a in self.told["read_book"][1]["applications"] if a["name"] == "Ruled SC")
        self.assertEqual((found["entries"][0]["product_id"], found["machine_id"], found["area_id"]), (5, 1, 1))
        said = {f["key"]: f["act"] for f in self.told["reckoned"]["parts"][0]["doses"][0]["findings"]}
        self.assertEqual((said["too-soon"], said["season-times"]), ("refuse", "refuse"))
        self.assertEqual(self.told["reckoned"]["name"], "Renamed SC")

    def test_rounds_keep_their_state_their_ticks_and_their_sheets(self) -> None:
        rounds = self.told["rounds"]
        self.assertEqual([r["status"] for r in rounds], ["done", "done", "given_up", "under_way"])
        self.assertTrue(all(r["sheet"]["loads"] and r["sheet"]["headline"] for r in rounds))
        self.assertTrue(rounds[3]["worn"])
        self.assertEqual(len([t for t in rounds[3]["ticks"] if t["load"] == 1]), 1)

    def test_rounds_sheets_and_entries_of_before_are_mixes_of_one(self) -> None:
        self.assertEqual([len(r["mix"]) for r in self.told["rounds"]], [1] * 4)
        self.assertTrue(all(len(p["doses"]) == 1 and p["doses"][0]["rate"] for r in self.told["rounds"] for p in r["parts"]))
        self.assertTrue(all(len(x["pours"]) == 1 for r in self.told["rounds"] for x in r["sheet"]["loads"]))
        apart = self.rows("select count(*) from book_entry where id <> application_id or position <> 0")
        self.assertEqual(apart, [(0,)], "an entry's number is its application's, so that old addresses lead to it")
        before = sqlite3.connect(":memory:")
        before.executescript((DATA / f"{self.name}.sql").read_text(encoding="utf-8"))
        was = before.execute(f"select {self.area_name}, treated_value, zone, note from book_entry order by id").fetchall()
        self.assertEqual(self.rows("select area_name, treated_value, zone, note from book_application order by id"), was)

    def test_nothing_is_lost_on_the_way(self) -> None:
        before = sqlite3.connect(":memory:")
        before.executescript((DATA / f"{self.name}.sql").read_text(encoding="utf-8"))
        tables = [t for (t,) in before.execute("select name from sqlite_master where type = 'table'") if "_" in t]
        self.assertGreater(len(tables), 25)
        for table in tables:
            if table.startswith(("django_", "auth_", "axes_", "sqlite_", "accounts_coming")):
                continue
            count = before.execute(f"select count(*) from {table}").fetchone()
            self.assertEqual([count], self.rows(f"select count(*) from {self.renamed.get(table, table)}"), table)

    def test_it_is_sound_and_needs_no_more_migrations(self) -> None:
        self.assertEqual(self.rows("pragma foreign_key_check"), [])
        self.assertEqual(self.rows("pragma integrity_check"), [("ok",)])
        self.assertEqual(unapplied(self.database), set())


class BeforeAccounts(Landing):
    """The landing before accounts and sites: clubs, one station, entries by name, sheets as answers of the API."""

    name = "before_accounts"
    renamed: ClassVar[dict[str, str]] = {**Landing.renamed, "accounts_club": "accounts_account"}
    area_name = "area"

    def test_the_club_is_an_account_with_a_site_that_has_its_time_zone_and_closed_months(self) -> None:
        site = self.told["list_sites"][1][0]
        self.assertEqual((site["name"], site["time_zone"], site["areas"]), ("Club alder", "America/New_York", 2))
        self.assertEqual([(c["what"], c["why"]) for c in site["closed"]], [("N", "a by-law")])
        self.assertEqual(self.told["get_house"][1]["answers"], {"regulator_again": "degree_days"})
        self.assertEqual({a["site_id"] for a in self.told["list_areas"][1]["areas"]}, {site["id"]})
        self.assertEqual(self.told["get_station"][1]["station"]["name"], "Harbour mast")


class AccountsAndSites(Landing):
    """The landing of accounts and sites: two sites with a station each, and a viewer who sees one of them."""

    name = "accounts_and_sites"

    def test_sites_stations_and_what_a_member_sees_stay_apart(self) -> None:
        sites = {s["name"]: s for s in self.told["list_sites"][1]}
        self.assertEqual({n: s["areas"] for n, s in sites.items()}, {"Site alder": 2, "Fjord yard": 1})
        self.assertEqual((sites["Fjord yard"]["time_zone"], sites["Fjord yard"]["gate"]), ("Europe/Oslo", "code 12"))
        self.assertEqual([(c["what"], c["why"]) for c in sites["Site alder"]["closed"]], [("N", "a by-law")])
        self.assertEqual(self.told["get_station"][1]["station"]["name"], "Harbour mast")
        limited = {m["full_name"]: m["site_ids"] for m in self.told["list_members"][1] if m["site_ids"]}
        self.assertEqual(limited, {"Viewer alder": [sites["Fjord yard"]["id"]]})

    def test_a_round_is_for_the_time_it_was_started(self) -> None:
        self.assertEqual(self.rows("select count(*) from rounds_round where at <> started_at"), [(0,)])
        self.assertTrue(all(r["at"] == r["started_at"] and not r["looked"] for r in self.told["rounds"]))

    def test_what_was_booked_before_has_no_marks(self) -> None:
        applications = self.told["read_book"][1]["applications"]
        entries = [e for a in applications for e in a["entries"]]
        self.assertTrue(entries and not any(e["against"] or e["reason"] for e in entries))
        self.assertFalse(any(a["looked"] for a in applications))

    def test_requests_that_were_answered_are_still_known_by_their_keys(self) -> None:
        self.assertGreater(self.rows("select count(*) from accounts_sent")[0][0], 20)


class LedgerAndDay(AccountsAndSites):
    """The landing of the ledger: rounds with a time and what was looked at, a planned window that knows what it would bring."""

    name = "ledger_and_day"

    def test_a_round_is_for_the_time_it_was_started(self) -> None:
        self.assertEqual(self.rows("select count(*) from rounds_round where at is null"), [(0,)])
        self.assertIn("leaf dry", {part for r in self.told["rounds"] for part in r["looked"].split(", ")})

    def test_what_was_booked_before_has_no_marks(self) -> None:
        self.assertTrue(any("leaf dry" in a["looked"] for a in self.told["read_book"][1]["applications"]))

    def test_a_planned_window_knows_what_it_would_bring(self) -> None:
        (kept,) = self.rows("select facts from season_planned")[0]
        self.assertGreater(json.loads(kept)["litres"], 0)


class Mixes(LedgerAndDay):
    """The landing of mixes: an application holds its entries, a round what was measured of each product."""

    name = "mixes"

    def test_rounds_sheets_and_entries_of_before_are_mixes_of_one(self) -> None:
        self.assertEqual([len(r["mix"]) for r in self.told["rounds"]], [1] * 4)
        found = next(a for a in self.told["read_book"][1]["applications"] if a["note"] == "two in a tank")
        self.assertEqual([(e["product"], e["used"]) for e in found["entries"]], [("Iron SL", "21 fl oz"), ("Dye", "")])

    def test_what_came_since_is_empty(self) -> None:
        """No spots, no crossing, no hose-end, nothing that a product is besides: as if they had never been typed."""
        self.assertEqual(self.rows("select count(*) from rounds_round where spots or crossing <> '' or undiluted"), [(0,)])
        self.assertEqual(self.rows("select count(*) from book_application where spots"), [(0,)])
        self.assertEqual(self.rows("select distinct also, printed from shelf_product"), [("[]", "[]")])
        self.assertEqual(self.rows("select distinct dials from kit_machine"), [("[]",)])
        self.assertTrue(all(r["spots"] is None for r in self.told["rounds"]))


class Doors(Mixes):
    """The landing of spots, kept mixes and doors: sessions that are listed, one revision for an account."""

    name = "doors"
    no_mix = 200
    struck, worked = (0,), (0, 0)

    def test_what_came_since_is_empty(self) -> None:
        self.assertEqual(
            self.rows("select distinct ground_revision, rounds_revision, book_revision from accounts_account"), [(None,) * 3]
        )
        self.assertEqual(self.rows("select count(dew) from sky_reading"), [(0,)])
        self.assertEqual(self.rows("select count(*) from book_application where struck_at is not null"), [self.struck])
        self.assertEqual(self.rows("select count(*) from sky_rhythm where since is null"), [(0,)])
        self.assertEqual(self.rows("select (select count(*) from work_work), (select count(*) from book_former)"), [self.worked])

    def test_a_new_database_has_the_same_tables(self) -> None:
        """One that is made at once from the models, and this one, which has gone the way of all landings."""
        new = Path(self.folder.name) / "new.sqlite3"
        run("manage.py", "bring_up_to_date", database=new)
        self.assertEqual(unapplied(new), set())
        self.assertEqual(*(json.loads(run("-c", TABLES, database=d)) for d in (new, self.database)))

    def test_the_revision_of_an_account_is_now_of_its_own_facts(self) -> None:
        before = sqlite3.connect(":memory:")
        before.executescript((DATA / f"{self.name}.sql").read_text(encoding="utf-8"))
        was = before.execute("select id, revision from accounts_account").fetchall()
        self.assertEqual(self.rows("select id, account_revision from accounts_account"), was)

    def test_spots_are_still_out_and_what_was_kept_is_kept(self) -> None:
        self.assertEqual(self.rows("select count(*) from rounds_round where spots and status = 'under_way'"), [(1,)])
        self.assertEqual(self.rows("select count(*) from book_application where spots"), [(1,)])
        self.assertEqual([m["name"] for m in self.told["list_mixes"][1]], ["Summer iron"])
        self.assertEqual(self.told["open_mix"][0], 200)
        feed = next(p for p in self.told["list_products"][1] if p["name"] == "Weed and feed GR")
        self.assertEqual((feed["also"], feed["printed"]), (["herbicide"], [{"form": "broadcast", "setting": "6 1/2"}]))
        self.assertIn("Marked cup", [v["name"] for v in self.told["list_vessels"][1]])
        self.assertEqual(self.rows("select count(*) from accounts_coming"), [(2,)], "the one listed, and that of this walk")


class Works(SimpleTestCase):
    """The landing of other work and corrections, whose scout reports lay in the sky."""

    def test_scout_reports_move_with_their_rows(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            before = sqlite3.connect(":memory:")
            before.executescript((DATA / "work.sql").read_text(encoding="utf-8"))
            columns = 'id, area_id, "on", {}, seen, severity, "where", note, by'
            was = before.execute(f"select {columns.format('disease')} from sky_scouting order by id").fetchall()
            database = brought_up("work", Path(folder))
            run("manage.py", "bring_up_to_date", database=database)
            with sqlite3.connect(database) as held:
                now = held.execute(f"select {columns.format('what')} from scouting_scouting order by id").fetchall()
                else_ = held.execute("select distinct kind, score, sure, named_by, spot_id, struck_at from scouting_scouting")
                self.assertEqual(else_.fetchall(), [("disease", None, "sure", "eye", None, None)])
                tables = {name for (name,) in held.execute("select name from sqlite_master")}
        self.assertEqual((now, len(was)), (was, 2))
        self.assertNotIn("sky_scouting", tables)


class Programmes(SimpleTestCase):
    """The landing of programmes: steps, their turns moved and skipped, events, a copied year; no plan had been made yet."""

    def test_steps_stay_what_somebody_set_and_can_be_read(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            before = sqlite3.connect(":memory:")
            before.executescript((DATA / "programme.sql").read_text(encoding="utf-8"))
            asked = 'select id, name, year, "when", event_id, copied_id from programme_step order by id'
            turns = 'select step_id, area_id, number, "on", skipped, why from programme_stepturn order by id'
            was = [before.execute(q).fetchall() for q in (asked, turns)]
            database = brought_up("programme", Path(folder))
            with sqlite3.connect(database) as held:
                now = [held.execute(q).fetchall() for q in (asked, turns)]
                self.assertEqual(held.execute("select distinct made from programme_step").fetchall(), [(0,)])
                self.assertEqual(held.execute("select count(*) from sky_hold").fetchone(), (0,))
            told = json.loads(run("-c", PROGRAMME, database=database))
        self.assertEqual((now, [len(rows) for rows in was]), (was, [6, 2]))
        self.assertEqual({t["stand"] for a in told["areas"] for t in a["turns"]} & {"skipped"}, {"skipped"})
        self.assertEqual(sorted(s["name"] for s in told["steps"]), ["Before the day", "Spoon feed", "When it cools"])


PROGRAMME = """
import json
import django
django.setup()
from greenmeasure.accounts.models import Account
from greenmeasure.programme.queries import programme
print(json.dumps(programme(Account.objects.get(slug="alder"), 2026).model_dump(mode="json")))
"""


class Outings(SimpleTestCase):
    """The landing of outings: one is under way, and is gone on with as it stood."""

    def test_an_outing_that_is_under_way_is_gone_on_with(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            told = json.loads(run("-c", OUTING, database=brought_up("outings", Path(folder))))
        self.assertEqual([j["state"] for j in told["jobs"]], ["done", "open", "open", "open", "open"])
        self.assertEqual((told["crew"], told["paused"], told["people"]), ("", "", 1))
        done = {c["text"] for c in told["closing"] if c["done"]}
        self.assertEqual(
            {t for t in done if "rinsed" in t}, {f"{m} is rinsed, cleaned and drained" for m in ("Spreader", "Sprayer")}
        )
        self.assertEqual(told["sites"][0] | {"id": 1}, told["sites"][0] | {"agreed": "", "tell": "", "gate": "code in the shed"})
        (skipped,) = [s for a in told["acts"] for s in a["stops"] if s["state"] == "skipped"]
        self.assertEqual(skipped["why"], "Locked gate")


OUTING = """
import json
import django
django.setup()
from greenmeasure.accounts.models import Account
from greenmeasure.outings.models import Outing
from greenmeasure.outings.queries import outing_out
account = Account.objects.get(slug="alder")
print(json.dumps(outing_out(account, Outing.objects.whole(account).get(status="under_way")).model_dump(mode="json")))
"""


class BringUpToDate(SimpleTestCase):
    """What `make demo` and `make serve` say where a database cannot be brought up to date."""

    def refused(self, *statements: str) -> str:
        with tempfile.TemporaryDirectory() as folder:
            database = brought_up("work", Path(folder))
            with sqlite3.connect(database) as held:
                was = held.execute("select count(*) from book_entry").fetchone()
                for statement in statements:
                    held.execute(statement)
            with self.assertRaises(AssertionError) as caught:
                run("manage.py", "bring_up_to_date", database=database)
            with sqlite3.connect(database) as held:
                self.assertEqual(held.execute("select count(*) from book_entry").fetchone(), was)
        return str(caught.exception)

    def test_a_newer_database_is_left_alone(self) -> None:
        newer = "insert into django_migrations (app, name, applied) values ('book', '0999_of_tomorrow', '2027-01-01')"
        said = self.refused(newer)
        self.assertIn("was written by a newer Green Measure (book.0999_of_tomorrow)", said)
        self.assertIn("Nothing was changed", said)

    def test_one_whose_tables_were_changed_under_it_is_told_what_to_do(self) -> None:
        for which in ("name like '0002%'", "name > '0002'"):  # one that another rests on, and both
            said = self.refused(f"delete from django_migrations where app = 'book' and {which}")
            self.assertIn("cannot be brought up to date", said)
            self.assertIn("GREENMEASURE_VAR=another-folder make demo", said)


del Landing  # its tests are of no landing themselves
