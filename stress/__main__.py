"""`python -m stress fuzz|…`: the long form of each break test, on loopback and in a data folder of its own."""

import argparse
import os
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager

KINDS = ["fuzz", "rows", "proxy", "kills", "soak"]


def main() -> int:
    """Run what is asked for; the exit status tells whether all of it held."""
    parser = argparse.ArgumentParser(description="Break tests.")
    parser.add_argument("what", nargs="*", default=KINDS, choices=KINDS)
    parser.add_argument("--calls", type=int, default=10_000, help="wrong requests in all")
    parser.add_argument("--saves", type=int, default=1000)
    parser.add_argument("--kills", type=int, default=60)
    parser.add_argument("--seconds", type=float, default=60, help="how long the soak lasts")
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings_test")
    import django

    django.setup()
    held = True
    if "fuzz" in given.what:
        held &= fuzz(given.calls, given.seed)
    if "rows" in given.what:
        held &= rows()
    if "proxy" in given.what:
        held &= proxy()
    if "kills" in given.what:
        held &= kills(given.saves, given.kills)
    if "soak" in given.what:
        held &= soak(given.seconds)
    return 0 if held else 1


def fuzz(calls: int, seed: int) -> bool:
    """Wrong requests at every operation."""
    from stress.fuzz import Fuzz, the_world

    with database(), the_world() as service:
        run = Fuzz(service, max(1, calls // STEPS), seed)
        found = run.run()
    statuses = ", ".join(f"{n} of {status}" for status, n in sorted(found.statuses.items()))
    missing = sorted(set(run.document.operations) - found.told_well)
    print(f"fuzz: {found.calls} wrong requests (seed {seed}): {statuses}")
    print(f"fuzz: {len(found.told_well)} of {len(run.document.operations)} operations answered well", *missing)
    for what, shown in found.problems.items():
        print(f"  {what}\n    {shown[:600]}")
    return not found.problems and not missing


def rows() -> bool:
    """Rows that no door lets in."""
    from stress.fuzz import Fuzz, the_world
    from stress.poison import columns, spoil

    with database(), the_world() as service:
        run = Fuzz(service, 0)
        run.run()
        broken = spoil(run)
    print(f"rows: {len(list(columns()))} columns spoilt in turn, {len(run.screens)} screens read after each: {len(broken)} broke")
    for what, where in broken.items():
        print(f"  {where}: {what}")
    return not broken


def kills(saves: int, how_often: int) -> bool:
    """A server killed while it saves."""
    from stress.kills import killed, told

    begun = time.monotonic()
    kept = killed(saves, how_often)
    print(told(kept, begun))
    for wrong in kept.wrong[:20]:
        print(f"  {wrong}")
    return not kept.wrong


def soak(seconds: float) -> bool:
    """Many at once."""
    from stress.soak import soaked, told

    found = soaked(seconds, servers=2)
    print(told(found))
    for wrong in found.wrong:
        print(f"  {wrong}")
    return not found.wrong


def proxy() -> bool:
    """A TLS proxy before the server."""
    from stress.proxy import tried

    wrong = tried()
    print(f"proxy: {'held' if not wrong else 'did not hold: ' + '; '.join(wrong)}")
    return not wrong


@contextmanager
def database() -> Iterator[None]:
    """A database of its own for as long as a test lasts."""
    from django.db import connection

    from greenmeasure.common.fresh import note_landed_in_tests

    note_landed_in_tests()
    connection.creation.create_test_db(verbosity=0)
    try:
        yield
    finally:
        connection.creation.destroy_test_db(None, verbosity=0)


STEPS = 160
"""Steps of the story, about."""

if __name__ == "__main__":
    sys.exit(main())
