"""Settings for tests: a fast hasher, a database file that live-server tests can share, no lockout unless asked for."""

import atexit
import os
import shutil
import tempfile
from pathlib import Path

os.environ.setdefault("SECRET_KEY", "only-for-tests-and-never-for-anything-else")

import dj_database_url

from greenmeasure.settings import *  # noqa: F403 - a settings module hands on every name of its base
from greenmeasure.settings import DATABASES

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
AXES_ENABLED = False
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "loggers": {"django.request": {"level": "ERROR"}, "axes": {"level": "ERROR"}, "pypdf": {"level": "CRITICAL"}},
}
ALLOWED_HOSTS = ["*"]
PRIVATE_STATIONS = True
SAMPLE = "alder"

VAR = Path(tempfile.gettempdir()) / f"greenmeasure-test-{os.getpid()}"
atexit.register(shutil.rmtree, VAR, ignore_errors=True)
_FILE = Path(tempfile.gettempdir()) / f"greenmeasure-test-{os.getpid()}.sqlite3"
if elsewhere := os.environ.get("TEST_DATABASE_URL"):
    DATABASES["default"] = dj_database_url.parse(elsewhere)
    DATABASES["default"]["TEST"] = {"MIGRATE": False}
else:
    DATABASES["default"] = {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": str(_FILE),
        "TEST": {"NAME": str(_FILE), "MIGRATE": False},
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA synchronous=OFF; PRAGMA busy_timeout=20000;",
        },
    }
DATABASES["default"]["CONN_MAX_AGE"] = None  # a connection's first query reads the whole schema
TEST_RUNNER = "greenmeasure.tests.runner.Runner"
