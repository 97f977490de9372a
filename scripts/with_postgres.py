"""Run a command against a PostgreSQL of its own, in a folder that is gone afterwards: `make test-postgres`.

The server is Debian's, listens on a socket in that folder alone, and ends with the command. The command finds it in
`TEST_DATABASE_URL`, and in `DATABASE_URL` a database of the same server that no test is run in.
"""

import contextlib
import os
import pwd
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import quote

PORT = 54329
"""Of the socket's name; nothing listens on it over the network."""
QUICK = ("fsync=off", "synchronous_commit=off", "full_page_writes=off", "autovacuum=off")
"""For a database that is thrown away."""
LINES = 100
"""Connections at once: the trials with many writers open one a thread."""


def programs() -> Path:
    """The folder of Debian's newest PostgreSQL. Raises SystemExit where there is none."""
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: float(p.parts[-3]))
    if not found:
        raise SystemExit("PostgreSQL is missing: apt-get install postgresql")
    return found[-1].parent


@contextlib.contextmanager
def postgres(*settings: str) -> Iterator[str]:
    """A PostgreSQL with these settings, by the address of its first database."""
    programs_at, owner = programs(), _owner()
    with tempfile.TemporaryDirectory(prefix="gm-pg-") as made:
        folder = Path(made)
        if owner:
            shutil.chown(folder, owner)
        data, log = folder / "data", folder / "log"

        def run(name: str, *said: str) -> None:
            done = subprocess.run(
                [str(programs_at / name), *said], user=owner, cwd=folder, capture_output=True, text=True, check=False
            )
            if done.returncode:
                told = log.read_text(encoding="utf-8") if log.exists() else ""
                raise SystemExit(f"{name} failed.\n{done.stdout}{done.stderr}{told}")

        run("initdb", "-D", str(data), "-U", "green", "--auth=trust", "--encoding=UTF8", "--locale=C.UTF-8", "--no-sync")
        said = ["listen_addresses=", f"unix_socket_directories={folder}", f"port={PORT}", f"max_connections={LINES}", *settings]
        (data / "postgresql.auto.conf").write_text("".join(f"{k} = '{v}'\n" for k, v in (s.split("=", 1) for s in said)))
        # pg_ctl hands its own output on to the server, which would hold a pipe open for ever
        start = [str(programs_at / "pg_ctl"), "-D", str(data), "-l", str(log), "-w", "-s", "start"]
        subprocess.run(start, user=owner, cwd=folder, check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        try:
            run("createdb", "-h", str(folder), "-p", str(PORT), "-U", "green", "green")
            yield f"postgres://green@{quote(str(folder), safe='')}:{PORT}/green"
        finally:
            run("pg_ctl", "-D", str(data), "-m", "immediate", "-s", "stop")


def _owner() -> str | None:
    """Whom the server runs as: PostgreSQL refuses to be root's."""
    if os.geteuid():
        return None
    try:
        return pwd.getpwnam("postgres").pw_name
    except KeyError:
        raise SystemExit("There is no user `postgres`; Debian's package makes one: apt-get install postgresql") from None


def main() -> int:
    """Run what was asked, and give its exit code."""
    if len(sys.argv) < 2:
        raise SystemExit("Say what to run: python -m scripts.with_postgres COMMAND …")
    with postgres(*QUICK) as address:
        return subprocess.run(
            sys.argv[1:], env={**os.environ, "DATABASE_URL": address, "TEST_DATABASE_URL": address}, check=False
        ).returncode


if __name__ == "__main__":
    sys.exit(main())
