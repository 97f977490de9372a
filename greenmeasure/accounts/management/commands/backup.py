"""Copy the database while it is in use: `python manage.py backup [--to FOLDER] [--keep 14]`. Made for cron."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from greenmeasure.common import clock, pictures
from greenmeasure.common.backup import Unsound, back_up


def database() -> Path:
    """SQLite's file. Raises CommandError where another database is used."""
    if connection.vendor != "sqlite":
        raise CommandError("This server keeps its data in PostgreSQL: back it up with pg_dump, see docs/operations.md.")
    return Path(str(connection.settings_dict["NAME"]))


class Command(BaseCommand):
    """Copies the database, checks the copy, and lets old ones go."""

    help = "Copy the database, as of one moment, while it is in use; check the copy; keep so many."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--to", type=Path, default=Path(settings.VAR) / "backups", help="the folder (var/backups)")
        parser.add_argument("--keep", type=int, default=14, help="how many copies stay (14)")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["keep"] < 1:
            raise CommandError("Keep at least one: --keep 1 or more.")
        try:
            made = back_up(database(), options["to"], options["keep"], clock.now(), pictures.folder())
        except (Unsound, OSError) as wrong:
            raise CommandError(f"There is no new backup; those before stay. {wrong}") from None
        self.stdout.write(f"{made} ({made.stat().st_size / 1e6:.1f} MB), checked; photographs are beside it.")
