"""Put a backup back: `python manage.py restore FILE`. What stood before is backed up first."""

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from greenmeasure.accounts.management.commands.backup import database
from greenmeasure.common import clock, pictures
from greenmeasure.common.backup import PICTURES, Unsound, back_up, bring, check, copy, kept, shown
from greenmeasure.common.private import keep_private


class Command(BaseCommand):
    """Puts a backup back, and brings it up to date."""

    help = "Put a backup in the database's place, and bring it up to the code. What stood there is backed up first."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("file", type=Path, nargs="?", help="the backup; the newest one of --from unless named")
        parser.add_argument("--from", dest="folder", type=Path, default=Path(settings.VAR) / "backups")

    def handle(self, *args: Any, **options: Any) -> None:
        folder: Path = options["folder"]
        file: Path | None = options["file"] or next(reversed(kept(folder)), None)
        if file is None or not file.is_file():
            raise CommandError(f"There is no backup {file or 'in ' + str(folder)}.")
        standing = database()
        try:
            check(file)
            with TemporaryDirectory() as aside:  # read to its end first: pruning may let the very file go
                held = Path(aside) / "held.sqlite3"
                copy(file, held)
                if standing.exists():
                    before = back_up(standing, folder, len(kept(folder)) + 1, clock.now(), pictures.folder())
                    self.stdout.write(f"What stood before is in {before}.")
                connection.close()
                copy(held, standing)
                bring(file.parent / PICTURES, pictures.folder(), shown(held))
            check(standing)
        except (Unsound, OSError) as wrong:
            raise CommandError(f"Nothing was put back. {wrong}") from None
        keep_private()
        call_command("bring_up_to_date")
        self.stdout.write(f"{file.name} is put back and up to date. Restart the server: it keeps things in memory.")
