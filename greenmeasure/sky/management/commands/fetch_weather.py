"""Ask every station's service for its weather: `python manage.py fetch_weather`. Safe to run twice, and from cron.

With `--forever` it stays: it asks all of them every half hour, and at once those that somebody wants now.
"""

import time
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import close_old_connections

from greenmeasure.sky.fetching import fetch, wanted, with_services
from greenmeasure.sky.models import Station

EVERY, LOOK = 1800.0, 1.0
"""How often all stations are asked, and how often it is looked whether somebody wants one now [s]."""


class Command(BaseCommand):
    """Asks every station's service."""

    help = "Ask every station's service for its weather. Ends with 1 where one did not answer; the others are kept."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--account", help="only the stations of the account with this address")
        parser.add_argument("--wanted", action="store_true", help="only those that somebody wants now")
        parser.add_argument("--forever", action="store_true", help="stay, and ask again every half hour and when wanted")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["forever"]:
            self.stay()
        stations = wanted() if options["wanted"] else list(with_services())
        if options["account"]:
            stations = [s for s in stations if s.account.slug == options["account"]]
        failed = sum(not self.asked(s) for s in stations)
        if failed:
            raise CommandError(f"{failed} of {len(stations)} stations did not answer.", returncode=1)

    def asked(self, station: Station) -> bool:
        made = fetch(station)
        said = made.problem or f"{made.hours} hours, {made.new} new"
        self.stdout.write(f"{station.account.name}, {station.name}: {said}")
        return made.ok

    def stay(self) -> None:
        """Ask for ever; what goes wrong with one station is told, and the next is asked."""
        due = time.monotonic()
        while True:
            now = time.monotonic()
            every = now >= due
            due = now + EVERY if every else due
            for station in with_services() if every else wanted():
                try:
                    self.asked(station)
                except Exception as wrong:  # the process outlives whatever one service does to it
                    self.stderr.write(f"{station.account.name}, {station.name}: {wrong!r}")
            close_old_connections()
            time.sleep(LOOK)
