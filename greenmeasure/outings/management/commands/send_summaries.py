"""Send each member who asked for it the letter of the day: `python manage.py send_summaries`. Safe to run twice, and from cron.

With `--forever` it stays, and looks every minute whose letter may go out by now.
"""

import time
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import close_old_connections

from greenmeasure.accounts.people import can_mail
from greenmeasure.common import clock
from greenmeasure.outings.summary import send, waiting

LOOK = 60.0
"""How often it is looked whose letter may go out [s]."""


class Command(BaseCommand):
    """Sends the letters of the day."""

    help = "Send each member who asked for it the letter of the day, once. Ends with 1 where one could not be sent."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--forever", action="store_true", help="stay, and look every minute")

    def handle(self, *args: Any, **options: Any) -> None:
        if not can_mail():
            raise CommandError("No letters go out from here: set EMAIL_HOST (see docs/operations.md).")
        while options["forever"]:
            self.sent()
            close_old_connections()
            time.sleep(LOOK)
        if failed := self.sent():
            raise CommandError(f"{failed} letters could not be sent; they are tried again.", returncode=1)

    def sent(self) -> int:
        """Send what waits; how many could not be sent."""
        failed = 0
        for r in waiting(clock.now()):
            try:
                if send(r):
                    self.stdout.write(f"{r.membership.account.name}: {r.membership.user.email}")
            except Exception as wrong:  # one letter keeps back no other
                failed += 1
                self.stderr.write(f"{r.membership.user.email}: {wrong!r}")
        return failed
