"""The data is its owner's alone: the folder and the database in it are closed to everybody else on the machine."""

from pathlib import Path

from django.conf import settings
from django.db import connection

FOLDER, FILE = 0o700, 0o600


def keep_private() -> None:
    """Close the data folder, the key and the database to all but the owner; what is not there yet is left."""
    folder = Path(settings.VAR)
    for path in (folder, folder / "secret_key", *_database()):
        if path.exists():
            path.chmod(FOLDER if path.is_dir() else FILE)


def _database() -> list[Path]:
    """SQLite's file with what it writes beside it; none of another database."""
    if connection.vendor != "sqlite":
        return []
    name = str(connection.settings_dict["NAME"])
    return [Path(name + end) for end in ("", "-wal", "-shm")]
