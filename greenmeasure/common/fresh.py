"""The tables of a new database, made at once as the models tell them; the way of all landings is for one that holds something.

A test holds what comes of either against the other.
"""

from collections.abc import Iterator
from contextlib import contextmanager

from django.apps import apps
from django.conf import settings
from django.core.management import call_command
from django.db import connection
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder
from django.db.models.signals import post_migrate


def is_new() -> bool:
    """Whether the database has no tables yet."""
    return not connection.introspection.table_names()


def make_tables() -> None:
    """Make every table of a new database, and note every migration as done."""
    with _migrations_in({config.label: None for config in apps.get_app_configs()}):
        call_command("migrate", run_syncdb=True, verbosity=0)
    note_landed()


@contextmanager
def _migrations_in(modules: dict[str, None]) -> Iterator[None]:
    """Where Django looks for migrations: each app's own folder, but for those named here, which then have none."""
    before = settings.MIGRATION_MODULES
    settings.MIGRATION_MODULES = modules
    try:
        yield
    finally:
        settings.MIGRATION_MODULES = before


def note_landed() -> None:
    """Note every migration as done, in a database whose tables were made at once."""
    recorder = MigrationRecorder(connection)
    recorder.ensure_schema()
    with _migrations_in({}):
        landed = set(MigrationLoader(None).disk_migrations)
    for app, name in landed - set(recorder.applied_migrations()):
        recorder.record_applied(app, name)


def note_landed_in_tests() -> None:
    """Have Django's test runner note them too: its database is made at once, and copied."""

    def note(sender: object, using: str, **more: object) -> None:
        if using == connection.alias and sender is last:
            note_landed()

    last = [config for config in apps.get_app_configs() if config.models_module][-1]
    post_migrate.connect(note, weak=False, dispatch_uid="note_landed")
