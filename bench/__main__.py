"""Ratios measured in one run: the reckon endpoint against empty endpoints of the same server, the JavaScript's size, the sums.

Every round asks each endpoint once, in turn, over one connection each, so that what slows the machine slows them
alike. Printed are the 50th and 95th percentiles as ratios, never bare times.
"""

import gzip
import http.client
import itertools
import json
import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import cast

from bench import after, landing, models, outing, plan, sky, sums
from bench.timing import best

ROOT = Path(__file__).resolve().parent.parent
PORT = int(os.environ.get("BENCH_PORT", "8178"))
ROUNDS = int(os.environ.get("BENCH_ROUNDS", "400"))
AIM_RATIO, AIM_KB = 2.5, 220


ENTRIES = 5000
MANY = f"import django; django.setup(); from bench import big; big.book({ENTRIES})"
"""Fills the demo's book with copies of its entries."""


DJANGO = "from django.conf import settings; settings.configure(); import django; django.setup(); import ninja"


class Client:
    """One connection with a session."""

    def __init__(self) -> None:
        self.link = http.client.HTTPConnection("127.0.0.1", PORT, timeout=20)
        self.cookies: dict[str, str] = {}

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, bytes]:
        headers = {
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
        }
        self.link.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.link.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie" and (found := re.match(r"(\w+)=([^;]*)", value)):
                self.cookies[found[1]] = found[2]
        return answer.status, answer.read()

    def sign_in(self) -> None:
        about = json.loads((ROOT / "demo" / "account.json").read_text(encoding="utf-8"))
        self.ask("GET", "/api/session")
        body = {"username": about["members"][0]["username"], "password": about["password"]}
        status, said = self.ask("POST", "/api/session", body)
        assert status == 200, said


def a_job(client: Client) -> tuple[dict[str, object], float, str]:
    """A job of the demo account without its rate, the label's highest rate, and that rate's unit."""
    account = "/api/accounts/alder-quay"
    areas, products, machines = (json.loads(client.ask("GET", f"{account}/{x}")[1]) for x in ("areas", "products", "machines"))
    product = next(p for p in products if p["sprayed"] and len(p["contents"]))
    machine = next(m for m in machines if m["kind"] == "sprayer")
    row = product["rates"][0]
    job = {
        "mix": [{"product_id": product["id"]}],
        "machine_id": machine["id"],
        "part": {"area_id": areas["areas"][0]["id"]},
        "row": row["id"],
    }
    return job, row["high"]["value"], row["high"]["unit"]


def timed(work: Callable[[], tuple[int, bytes]]) -> float:
    start = time.perf_counter()
    status, said = work()
    assert status == 200, said
    return time.perf_counter() - start


def percentiles(times: list[float]) -> tuple[float, float]:
    cuts = statistics.quantiles(times, n=100)
    return cuts[49], cuts[94]


def reckon() -> bool:
    """Print the ratios of the reckon endpoint; whether the aim is met."""
    client = Client()
    client.sign_in()
    job, high, unit = a_job(client)
    part, row = cast(dict[str, object], job.pop("part")), job.pop("row")
    account = "/api/accounts/alder-quay"
    rates = itertools.cycle([f"{high * (0.6 + 0.01 * i):.4f}" for i in range(40)])

    def asked() -> dict[str, object]:
        """The job at another rate each time, as it comes while one types."""
        dose = {"row_id": row, "rate": {"value": next(rates), "unit": unit}}
        return {**job, "parts": [{**part, "doses": [dose]}]}

    doors: dict[str, Callable[[], tuple[int, bytes]]] = {
        "empty, signed in": lambda: client.ask("POST", f"{account}/reckon/empty", asked()),
        "empty, no door": lambda: client.ask("GET", "/api/health"),
        "reckon a job": lambda: client.ask("POST", f"{account}/reckon/job", asked()),
    }
    times: dict[str, list[float]] = {name: [] for name in doors}
    for i in range(ROUNDS + 40):
        for name, work in doors.items():
            took = timed(work)
            if i >= 40:
                times[name].append(took)
    p50, p95 = percentiles(times["reckon a job"])
    met = True
    for name in ("empty, signed in", "empty, no door"):
        e50, e95 = percentiles(times[name])
        aim = f"  aim: p95 at most {AIM_RATIO:g}x" if name == "empty, signed in" else ""
        print(f"reckon / {name:<18} p50 {p50 / e50:5.2f}x   p95 {p95 / e95:5.2f}x{aim}")
        if aim:
            met = p95 / e95 <= AIM_RATIO
    return met


def javascript() -> bool:
    """Print the size of what the first view loads; whether the aim is met."""
    dist = ROOT / "web" / "dist"
    names = re.findall(r'(?:src|href)="(/assets/[^"]+\.js)"', (dist / "index.html").read_text(encoding="utf-8"))
    size = sum(len(gzip.compress((dist / n.lstrip("/")).read_bytes(), 9)) for n in set(names)) / 1000
    print(f"initial JavaScript {size:.0f} kB gz in {len(set(names))} files  aim: at most {AIM_KB}")
    return size <= AIM_KB


def main() -> int:
    with tempfile.TemporaryDirectory() as var:
        env = {**os.environ, "GREENMEASURE_VAR": var, "DJANGO_SETTINGS_MODULE": "greenmeasure.settings"}
        for command in (["bring_up_to_date"], ["load_demo"]):
            subprocess.run([sys.executable, "manage.py", *command], cwd=ROOT, env=env, check=True, stdout=subprocess.DEVNULL)
        subprocess.run([sys.executable, "-c", MANY], cwd=ROOT, env=env, check=True)
        serve = [sys.executable, "-m", "greenmeasure.serve", "--port", str(PORT)]
        bare = best(lambda: subprocess.run([sys.executable, "-c", DJANGO], cwd=ROOT, check=True))
        begun = time.perf_counter()
        server = subprocess.Popen(serve, cwd=ROOT, env=env, stdout=subprocess.DEVNULL)
        try:
            for _ in range(2000):
                try:
                    if Client().ask("GET", "/api/health")[0] == 200:
                        break
                except OSError:
                    time.sleep(0.01)
            print(f"start to first health / Django with ninja alone     {(time.perf_counter() - begun) / bare:.2f}x")
            fast = reckon()
        finally:
            server.terminate()
            server.wait()
    small = javascript()
    sums.run()
    landing.run()
    models.run()
    plan.run()
    outing.run()
    sky.run()
    after.run()
    return 0 if fast and small else 1


if __name__ == "__main__":
    sys.exit(main())
