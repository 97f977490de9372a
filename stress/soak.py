"""Many at once for a while: writers who change the same rows, readers who look on. No request meets a lock, no change is lost.

Each writer reads a lot of the shelf that all of them change, adds one to the number in its note, and saves it under the version
it read; who comes too late is told so, and begins again. At the end the note holds as many as were acknowledged. Several servers
may stand on one database: what one has acknowledged the next one tells at once.
"""

import random
import statistics
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Any

import requests

from stress.databases import database
from stress.kills import Saving, Server
from stress.story import q


@dataclass
class Soaked:
    """What a run came to: how often each answer came, the changes that counted, how often another server was behind what had been
    acknowledged, and how long readers waited [s].
    """

    writers: int
    readers: int
    statuses: Counter[int] = field(default_factory=Counter)
    changed: int = 0
    found: int = 0
    behind: int = 0
    alone: list[float] = field(default_factory=list)
    among: list[float] = field(default_factory=list)

    @property
    def wrong(self) -> list[str]:
        """What did not hold."""
        bad = sorted(s for s in self.statuses if s >= 500 or s in (0, 422))
        said = [f"{self.statuses[s]} answers of {s}" for s in bad]
        if self.changed != self.found:
            said.append(f"{self.changed} changes were acknowledged, {self.found} are there")
        return said + ([f"{self.behind} times a server was behind another"] if self.behind else [])


def soaked(seconds: float, writers: int = 16, readers: int = 16, begin: dict[str, Any] | None = None, servers: int = 1) -> Soaked:
    """Let so many write and read for so long [s], at so many servers of one database: a copy of `begin`, or a new one."""
    found = Soaked(writers, readers)
    with tempfile.TemporaryDirectory() as held, database(Path(held), begin) as own:
        every = [Server(Path(held), own) for _ in range(servers)]
        try:
            saving = Saving(every[0])
            lot = saving.made(f"products/{saving.spray['id']}/lots", {"number": "shared", "left": q(9, "gal"), "note": "0"})[
                "lots"
            ][0]
            people = [_another(saving, every[i % servers]) for i in range(writers + readers)]
            _for(seconds / 3, [lambda: _read(people[0], found, found.alone)])
            doing: list[Callable[[], None]] = [
                partial(_write, who, _another(who, every[-1]), lot["id"], found) for who in people[:writers]
            ]
            doing += [partial(_read, who, found, found.among) for who in people[writers:]]
            _for(seconds, doing)
            found.found = int(_lot(saving, lot["id"])["note"])
        finally:
            for server in every:
                server.kill()
    return found


def _another(saving: Saving, server: Server) -> Saving:
    """The same manager at another browser, and at this server."""
    other = object.__new__(Saving)
    other.__dict__.update(saving.__dict__)
    other.server, other.http = server, requests.Session()
    other.http.trust_env = False
    other.http.cookies.update(saving.http.cookies)
    return other


def _for(seconds: float, doing: list[Callable[[], None]]) -> None:
    """Do all of it side by side, over and over, for so long [s]."""
    end = time.monotonic() + seconds

    def over_and_over(once: Callable[[], None]) -> None:
        while time.monotonic() < end:
            once()

    threads = [threading.Thread(target=over_and_over, args=(once,)) for once in doing]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def _lot(who: Saving, pk: int) -> Any:
    every = who.send("GET", "/api/accounts/killed/products", None).json()
    return next(lot for product in every for lot in product["lots"] if lot["id"] == pk)


def _noted(found: Soaked, answer: Callable[[], requests.Response]) -> requests.Response | None:
    try:
        made = answer()
    except requests.RequestException:
        found.statuses[0] += 1
        return None
    found.statuses[made.status_code] += 1
    return made


def _write(who: Saving, elsewhere: Saving, pk: int, found: Soaked) -> None:
    lot = _lot(who, pk)
    body = {k: lot[k] for k in ("number", "version", "received_on", "expires_on")}
    body |= {"left": q(9, "gal"), "note": str(int(lot["note"]) + 1)}
    path = f"/api/accounts/killed/products/{who.spray['id']}/lots/{pk}"
    answer = _noted(found, lambda: who.send("PUT", path, body))
    if answer is not None and answer.status_code == 200:
        behind = int(_lot(elsewhere, pk)["note"]) < int(body["note"])
        with _COUNTING:
            found.changed += 1
            found.behind += behind


_COUNTING = threading.Lock()


def _read(who: Saving, found: Soaked, waited: list[float]) -> None:
    path = random.choice(("today", "areas", "products", "book", "rounds", "machines"))
    begun = time.perf_counter()
    if _noted(found, lambda: who.send("GET", f"/api/accounts/killed/{path}", None)) is not None:
        waited.append(time.perf_counter() - begun)


def p95(waited: list[float]) -> float:
    """How long 95 of 100 waited at most [s]."""
    return statistics.quantiles(waited, n=20)[-1] if len(waited) > 1 else 0.0


def told(found: Soaked) -> str:
    """What a run came to, in a line."""
    answers = ", ".join(f"{n} of {status}" for status, n in sorted(found.statuses.items()))
    ratio = p95(found.among) / p95(found.alone)
    return (
        f"soak: {found.writers} writers and {found.readers} readers: {answers}; {found.changed} changes acknowledged, "
        f"{found.found} there; p95 of a reader among them is {ratio:.1f} times that of one alone, "
        f"{ratio / (found.writers + found.readers):.2f} for each of them"
    )
