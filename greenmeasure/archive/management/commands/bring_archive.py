"""Bring an archive in from a file on the server: `python manage.py bring_archive FILE USERNAME`. For those too large to send."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from core.errors import InputError
from greenmeasure.accounts.models import User
from greenmeasure.archive.reading import read


class Command(BaseCommand):
    """Makes an account of an archive, with its manager."""

    help = "Make a new account of an archive, with an existing person as its manager."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("username", help="who will be its manager")

    def handle(self, *args: Any, **options: Any) -> None:
        person = User.objects.filter(username=options["username"], is_active=True).first()
        if person is None:
            raise CommandError(f"Nobody signs in as {options['username']}.")
        try:
            with options["file"].open("rb") as file:
                made = read(file, person)
        except InputError as refused:
            raise CommandError(refused.sentence) from None
        except OSError as wrong:
            raise CommandError(f"{options['file']} cannot be read: {wrong.strerror}.") from None
        self.stdout.write(f"{made.name} is brought in, with {person} as its manager.")
