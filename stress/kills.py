"""A server killed in the middle of saving, again and again: what it has acknowledged is there, and nothing is there by half.

Saves of every kind are sent to a real server one after another, each with a key of its own. Every so often the server is killed
(SIGKILL) while one of them is under way, and started anew; the save that was cut off is sent again with its key, as a browser
would. At the end each acknowledged save is looked for, once, and the database is read through.
"""

import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from dataclasses import dataclass, field
from datetime import date, timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import requests

from stress.databases import Database, database
from stress.proxy import ROOT, free_port, wait_for
from stress.story import AREA, FEED, PASSWORD, SPRAY, SPRAYER, STRIP, job, q


@dataclass
class Kept:
    """What a run came to."""

    saves: int = 0
    kills: int = 0
    cut_off: int = 0
    acknowledged: Counter[str] = field(default_factory=Counter)
    wrong: list[str] = field(default_factory=list)


class Server:
    """The server on a folder of its own, that can be killed and started anew."""

    def __init__(self, folder: Path, database: Database) -> None:
        self.port = free_port()
        self.env = os.environ | {
            "GREENMEASURE_VAR": str(folder),
            "DATABASE_URL": database.address,
            "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
        }
        subprocess.run([sys.executable, "manage.py", "bring_up_to_date"], cwd=ROOT, env=self.env, check=True)
        self.start()

    def start(self) -> None:
        words = [sys.executable, "-m", "greenmeasure.serve", "--port", str(self.port)]
        self.process = subprocess.Popen(words, cwd=ROOT, env=self.env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        wait_for(self.port)

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


class Saving:
    """A manager who saves things of every kind."""

    def __init__(self, server: Server) -> None:
        self.server, self.http, self.n = server, requests.Session(), 0
        self.http.trust_env = False
        self.csrf = self.http.get(self.url("/api/session"), timeout=20).json()["csrf"]
        found = {"name": "Killed", "units": "us", "time_zone": "UTC", "username": "m", "full_name": "M", "password": PASSWORD}
        self.csrf = self.send("POST", "/api/accounts", found).json()["csrf"]
        self.area = self.made("areas", AREA)["id"]
        self.spray, self.feed = self.made("products", SPRAY | {"rules": {}}), self.made("products", FEED)
        self.sprayer = self.made("machines", SPRAYER)["id"]

    def url(self, path: str) -> str:
        return f"http://127.0.0.1:{self.server.port}{path}"

    def send(self, method: str, path: str, body: Any, key: str = "") -> requests.Response:
        headers = {"X-CSRFToken": self.csrf, "Content-Type": "application/json"} | ({"Idempotency-Key": key} if key else {})
        return self.http.request(method, self.url(path), data=json.dumps(body), headers=headers, timeout=20)

    def made(self, path: str, body: Any) -> Any:
        answer = self.send("POST", f"/api/accounts/killed/{path}", body)
        assert answer.status_code == 201, answer.text
        return answer.json()

    def next(self) -> tuple[str, str, Any, str]:
        """The next save: its kind, its path, its body, and the name by which it is found again in its table."""
        self.n += 1
        name, today = f"n{self.n:05}", str(date.today())
        past = str(date.today() - timedelta(days=300 + self.n))
        phrase = SPRAY["rates"][0]["phrase"]
        rates = [{"phrase": phrase}, {"phrase": phrase, "use": "another"}]
        kinds: list[tuple[str, str, Any]] = [
            ("ground_area", "areas", AREA | {"name": name, "measure": CIRCLE}),
            ("shelf_product", "products", SPRAY | {"name": name, "rules": {}, "rates": rates}),
            ("kit_machine", "machines", SPRAYER | {"name": name}),
            ("kit_vessel", "vessels", CUP | {"name": name}),
            ("shelf_lot", f"products/{self.spray['id']}/lots", {"number": name, "left": q(9, "gal")}),
            ("kit_calibration", f"machines/{self.sprayer}/calibrations", {"figures": STRIP, "taken_on": today, "note": name}),
            ("ground_soilreading", f"areas/{self.area}/soil", {"taken_on": today, "spot": name, "ph": 6}),
            ("water_task", f"areas/{self.area}/tasks", {"texts": [name]}),
            ("reckon_keptmix", "mixes", {"name": name, "job": self.job()}),
            ("book_application", "rounds/done", {"job": self.job(on=past), "finish": self.used(name), "reason": "then"}),
            ("accounts_site", "sites", {"name": name, "time_zone": "UTC"}),
        ]
        return (*kinds[self.n % len(kinds)], name)

    def job(self, **more: Any) -> dict[str, Any]:
        return job(self.area, self.spray, self.sprayer, q(0.6, "fl_oz/kft2"), **more)

    def used(self, name: str) -> dict[str, Any]:
        return {"used": [{"amount": q(4.2, "fl_oz")}], "note": name}


CIRCLE = {"method": "circle", "values": {"radius": 40}}
CUP = {"shape": "cup", "capacity": q(8, "fl_oz"), "graduation": q(1, "fl_oz")}
WHERE = {
    "kit_calibration": "note",
    "ground_soilreading": "spot",
    "water_task": "text",
    "shelf_lot": "number",
    "book_application": "note",
}
"""By which column a save is found again, where that is not its name."""
MISSING = "select count(*) from {} x where {} not exists (select 1 from {} y where y.{} = x.id)"
WHOLE = (
    ("a round without its components", MISSING.format("rounds_round", "", "rounds_roundcomponent", "round_id")),
    ("a round without its areas", MISSING.format("rounds_round", "", "rounds_roundpart", "round_id")),
    (
        "a finished round without its application",
        MISSING.format("rounds_round", "status = 'done' and", "book_application", "round_id"),
    ),
    ("an application without its entries", MISSING.format("book_application", "", "book_entry", "application_id")),
    (
        "a measured area without its measurement",
        MISSING.format("ground_area", "name like 'n0%' and", "ground_measurement", "area_id"),
    ),
    (
        "a product without all of its rates",
        "select count(*) from shelf_product p where p.name like 'n0%'"
        " and (select count(*) from shelf_raterow r where r.product_id = p.id) <> 2",
    ),
    ("a key without its answer", "select count(*) from accounts_sent where status = 0"),
)  # fmt: skip
"""What would be there by half."""


def killed(saves: int, kills: int, seed: int = 1, begin: dict[str, Any] | None = None) -> Kept:
    """Save so often, and kill so often in between; on a copy of the database `begin`, on a new one where there is none."""
    rnd, kept = random.Random(seed), Kept()
    with tempfile.TemporaryDirectory() as held, database(Path(held), begin) as own:
        server = Server(Path(held), own)
        try:
            saving = Saving(server)
            at = set(rnd.sample(range(saves), kills))
            names: list[tuple[str, str]] = []
            for n in range(saves):
                kind, path, body, name = saving.next()
                if _save(saving, kept, f"/api/accounts/killed/{path}", body, n in at, rnd):
                    names.append((kind, name))
                    kept.acknowledged[kind] += 1
        finally:
            server.kill()
        _look(own, names, kept)
    return kept


def _save(saving: Saving, kept: Kept, path: str, body: Any, kill: bool, rnd: random.Random) -> bool:
    """Send one save, with a kill while it is under way where one is due; gives whether it was acknowledged."""
    key = str(uuid4())
    kept.saves += 1
    if kill:
        kept.kills += 1
        killer = threading.Timer(rnd.uniform(0.0, 0.04), saving.server.kill)
        killer.start()
        try:
            answer = saving.send("POST", path, body, key)
        except requests.RequestException:
            kept.cut_off += 1
            answer = None
        killer.join()
        saving.server.start()
        if answer is not None and answer.status_code == 201:
            return True
    answer = saving.send("POST", path, body, key)
    if answer.status_code != 201:
        kept.wrong.append(f"{path} was answered {answer.status_code}: {answer.text[:160]}")
    return answer.status_code == 201


def _look(own: Database, names: list[tuple[str, str]], kept: Kept) -> None:
    """Look for every acknowledged save, and for what is there by half."""
    if own.sqlite:
        ((whole,),) = own.rows("pragma integrity_check")
        if whole != "ok":
            kept.wrong.append(f"the database is damaged: {whole}")
        if own.rows("pragma foreign_key_check"):
            kept.wrong.append("a row refers to one that is not there")
    for table, name in names:
        ((count,),) = own.rows(f"select count(*) from {table} where {WHERE.get(table, 'name')} = %s", (name,))
        if count != 1:
            kept.wrong.append(f"{table} {name} was acknowledged and is there {count} times")
    for what, asked in WHOLE:
        ((count,),) = own.rows(asked)
        if count:
            kept.wrong.append(f"{count} times {what}")


def told(kept: Kept, begun: float) -> str:
    """What a run came to, in a line."""
    kinds = ", ".join(f"{n} {kind}" for kind, n in sorted(kept.acknowledged.items()))
    return (
        f"kills: {kept.saves} saves, {kept.kills} kills (SIGKILL) while one was under way, {kept.cut_off} of them cut off; "
        f"{sum(kept.acknowledged.values())} acknowledged ({kinds}); {len(kept.wrong)} wrong; {time.monotonic() - begun:.0f} s"
    )
