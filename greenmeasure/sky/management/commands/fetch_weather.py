"""Ask every station's service for its weather: `python manage.py fetch_weather`. Safe to run twice, and from cron."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from greenmeasure.sky.fetching import fetch
from greenmeasure.sky.models import Station


class Command(BaseCommand):
    """Asks every station's service."""

    help = "Ask every station's service for its weather. Ends with 1 where one did not answer; the others are kept."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--account", help="only the stations of the account with this address")

    def handle(self, *args: Any, **options: Any) -> None:
        stations = Station.objects.kept().exclude(url="", probe_url="").select_related("account")
        if options["account"]:
            stations = stations.filter(account__slug=options["account"])
        failed = 0
        for station in stations:
            made = fetch(station)
            failed += not made.ok
            said = made.problem or f"{made.hours} hours, {made.new} new"
            self.stdout.write(f"{station.account.name}, {station.name}: {said}")
        if failed:
            raise CommandError(f"{failed} of {len(stations)} stations did not answer.", returncode=1)
