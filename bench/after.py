"""A big account warm, after a tick of a round and after new hours have come in: `python -m bench.after`, in a process of its own.

Printed are ratios to a yardstick of the same run, the reading of a thousand rows of the book by the ORM, and to warm.
"""

import itertools
import json
import os
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
CLOCK = "2026-08-05T10:15:00Z"
PATHS = {
    "today": "today",
    "due list": "season/due",
    "products": "products",
    "areas": "areas",
    "machines": "machines",
    "rounds": "rounds",
    "book": "book",
    "story": "areas/1/story",
    "scouting": "areas/1/eyes",
    "sky": "sky",
    "a round": "rounds/1",
}
TOUCHES = 40
GROWN = ("story", "scouting", "book")
"""What is held against the demo account as it was, with its dozens of entries and a handful of pictures."""


def run() -> None:
    """Measure in a process of its own, for Django is set up once."""
    with tempfile.TemporaryDirectory() as var:
        env = {
            **os.environ,
            "GREENMEASURE_VAR": var,
            "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
            "GREENMEASURE_CLOCK": CLOCK,
            "ALLOWED_HOSTS": "testserver",
            "PRIVATE_STATIONS": "1",
        }
        for command in (["bring_up_to_date"], ["load_demo"]):
            subprocess.run([sys.executable, "manage.py", *command], cwd=ROOT, env=env, check=True, stdout=subprocess.DEVNULL)
        subprocess.run([sys.executable, "-m", "bench.after"], cwd=ROOT, env=env, check=True)


def median(work: Callable[[], object], rounds: int = 3, before: Callable[[], object] = lambda: None) -> float:
    """The median of some rounds [s], each after something that is not timed."""
    times = []
    for _ in range(rounds):
        before()
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return sorted(times)[len(times) // 2]


def _noted(asked: list[str], execute: Callable[..., Any], sql: str, params: Any, many: bool, context: Any) -> Any:
    asked.append(sql)
    return execute(sql, params, many, context)


def measure() -> None:
    """Print the ratios."""
    import django

    django.setup()
    from django.db import connection
    from django.test import Client

    from bench import big
    from greenmeasure.accounts.models import Account, Membership, User
    from greenmeasure.book.models import Entry

    account = Account.objects.get(slug=big.SLUG)
    client = Client()
    user = User.objects.filter(pk__in=Membership.objects.filter(account=account).values("user")).first()
    assert user
    client.force_login(user, "django.contrib.auth.backends.ModelBackend")
    at = f"/api/accounts/{big.SLUG}"

    def ask(path: str, body: Any = None) -> Any:
        answer = (
            client.get(f"{at}/{path}")
            if body is None
            else client.post(f"{at}/{path}", json.dumps(body), content_type="application/json")
        )
        assert answer.status_code < 300, (path, answer.status_code, answer.content[:400])
        return json.loads(answer.content)

    def touched() -> None:
        Account.objects.get(pk=account.pk).touch()

    def measured() -> dict[str, tuple[float, float]]:
        """Warm, and after everything has changed [s], by the name of what grows."""
        found = {}
        for name in GROWN:
            work = partial(ask, PATHS[name])
            work()
            found[name] = (median(work, 7), median(work, 5, touched))
        return found

    small = measured()
    began = time.perf_counter()
    big.make(big.Size())
    print(f"(made in {time.perf_counter() - began:.0f} s)", flush=True)
    account = Account.objects.get(slug=big.SLUG)
    print("5,000 entries and 2,000 pictures, of what the demo account takes with its dozens:")
    for name, (warm, fresh) in measured().items():
        print(f"{name:<12}{warm / small[name][0]:9.1f}x warm{fresh / small[name][1]:9.1f}x after a change of everything")
    product = next(p for p in ask("products") if p["sprayed"] and p["contents"] and p["rates"])
    machine = next(m for m in ask("machines") if m["kind"] == "sprayer")
    row = product["rates"][0]
    dose = {"row_id": row["id"], "rate": {"value": row["high"]["value"], "unit": row["high"]["unit"]}}
    parts = [{"area_id": a["id"], "doses": [dose]} for a in ask("areas")["areas"][:1]]
    job = {"mix": [{"product_id": product["id"]}], "machine_id": machine["id"], "parts": parts}

    reads: dict[str, Callable[[], object]] = {"reckon": lambda: ask("reckon/job", job)}
    reads |= {name: partial(ask, path) for name, path in PATHS.items()}
    begun = ask("rounds", job)
    turns = itertools.cycle([True, False])

    def mark(load: int, act: str, done: bool) -> None:
        ask(f"rounds/{begun['id']}/ticks", {"load": load, "act": act, "done": done})

    for gear in begun["sheet"]["wear"]:
        mark(0, gear["key"], True)
    load = begun["sheet"]["loads"][0]

    def tick() -> None:
        """An act of a load ticked, or taken back."""
        mark(load["number"], load["acts"][0]["key"], next(turns))

    def fetch() -> None:
        for station in Account.objects.get(pk=account.pk).stations.all():
            station.renew()

    yard = median(lambda: [e.pk for e in Entry.objects.all()[:1000]], 7)
    print(f"{'':<12}{'warm':>10}{'queries':>9}{'after a tick':>14}{'of warm':>9}{'after hours':>13}{'of warm':>9}")
    for name, work in reads.items():
        work()
        asked: list[str] = []
        with connection.execute_wrapper(partial(_noted, asked)):
            work()
        warm = median(work, 5)
        ticked, fetched = median(work, 3, tick), median(work, 3, fetch)
        print(
            f"{name:<12}{warm / yard:9.2f}x{len(asked):9d}{ticked / yard:13.2f}x{ticked / warm:8.1f}x"
            f"{fetched / yard:12.2f}x{fetched / warm:8.1f}x",
            flush=True,
        )
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    for _ in range(TOUCHES):
        tick()
        for work in (reads["reckon"], reads["today"]):
            work()
    grown = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    print(f"memory after {TOUCHES} touches {grown / 1000:.0f} MB, before them {before / 1000:.0f} MB")


if __name__ == "__main__":
    measure()
