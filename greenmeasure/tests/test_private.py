"""The data folder and the database are readable by their owner alone."""

import os
import stat
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

from django.conf import settings


class Private(TestCase):
    def test_folder_key_and_database_are_the_owners_alone(self) -> None:
        with tempfile.TemporaryDirectory() as held:
            folder = Path(held) / "var"
            env = os.environ | {"GREENMEASURE_VAR": str(folder), "DJANGO_SETTINGS_MODULE": "greenmeasure.settings"}
            env.pop("SECRET_KEY", None)
            run = [sys.executable, str(Path(settings.ROOT) / "manage.py"), "bring_up_to_date"]
            subprocess.run(run, env=env, check=True, capture_output=True)
            modes = {p.name: stat.S_IMODE(p.stat().st_mode) for p in (folder, *folder.iterdir())}
            self.assertLessEqual({"var", "secret_key", "greenmeasure.sqlite3"}, set(modes))
            for name, mode in modes.items():
                self.assertEqual(mode & 0o077, 0, f"{name} has {mode:o}")
