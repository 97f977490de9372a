"""`python -m stress fuzz|…`: the long form of each break test, on loopback and in a data folder of its own."""

import argparse
import os
import sys


def main() -> int:
    """Run what is asked for; the exit status tells whether all of it held."""
    parser = argparse.ArgumentParser(description="Break tests.")
    parser.add_argument("what", nargs="*", default=["fuzz"], choices=["fuzz"])
    parser.add_argument("--calls", type=int, default=10_000, help="wrong requests in all")
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings_test")
    import django

    django.setup()
    held = True
    if "fuzz" in given.what:
        held &= fuzz(given.calls, given.seed)
    return 0 if held else 1


def fuzz(calls: int, seed: int) -> bool:
    """Wrong requests at every operation."""
    from django.db import connection

    from stress.fuzz import Fuzz, the_world

    connection.creation.create_test_db(verbosity=0)
    try:
        with the_world() as service:
            run = Fuzz(service, max(1, calls // STEPS), seed)
            found = run.run()
    finally:
        connection.creation.destroy_test_db(None, verbosity=0)
    statuses = ", ".join(f"{n} of {status}" for status, n in sorted(found.statuses.items()))
    missing = sorted(set(run.document.operations) - found.told_well)
    print(f"fuzz: {found.calls} wrong requests (seed {seed}): {statuses}")
    print(f"fuzz: {len(found.told_well)} of {len(run.document.operations)} operations answered well", *missing)
    for what, shown in found.problems.items():
        print(f"  {what}\n    {shown[:600]}")
    return not found.problems and not missing


STEPS = 160
"""Steps of the story, about."""

if __name__ == "__main__":
    sys.exit(main())
