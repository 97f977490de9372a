"""Bring the database up to the code: `python manage.py bring_up_to_date`. What `make demo` and `make serve` begin with."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import OperationalError, ProgrammingError, connection
from django.db.migrations.exceptions import InconsistentMigrationHistory
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.recorder import MigrationRecorder

from greenmeasure.common.fresh import is_new, make_tables
from greenmeasure.common.private import keep_private


class Command(BaseCommand):
    """Brings the database up to the code, or says what to do."""

    help = "Migrate the database, and say what to do where it cannot be: one that is newer than the code, or of before 2026-11."

    def handle(self, *args: Any, **options: Any) -> None:
        known = set(MigrationExecutor(connection).loader.disk_migrations)
        applied = set(MigrationRecorder(connection).applied_migrations())
        unknown = sorted(f"{app}.{name}" for app, name in applied - known if app in {a for a, _ in known})
        where = connection.settings_dict["NAME"]
        if unknown:
            raise CommandError(
                f"The database {where} was written by a newer Green Measure ({unknown[0]}). Bring the code up to date, or point "
                "DATABASE_URL or GREENMEASURE_VAR at another one. Nothing was changed."
            )
        try:
            keep_private()
            if is_new():
                make_tables()
            else:
                call_command("migrate", verbosity=0)
            keep_private()
        except (OperationalError, ProgrammingError, InconsistentMigrationHistory) as broken:
            raise CommandError(
                f"The database {where} cannot be brought up to date ({broken}). It is of before the tables were kept still: put "
                "it aside and begin with a new one (GREENMEASURE_VAR=another-folder make demo), and bring areas, products and "
                "the book over by the files that the old version exports."
            ) from None
