"""Serve Green Measure with waitress: `python -m greenmeasure.serve [--port 8000] [--sims 8321]`."""

import argparse
import atexit
import json
import os
import signal
import subprocess
import sys
from pathlib import Path
from threading import Thread

from waitress import create_server
from waitress.channel import HTTPChannel
from waitress.task import ErrorTask

MOST_BYTES = 64_000_000
"""Bytes of a request: an archive with years of weather and labels. Each door asks for less of its own."""


class Refusal(ErrorTask):  # type: ignore[misc]
    """What waitress refuses before Django sees it, in the shape of every other refusal."""

    def execute(self) -> None:
        """Answer, and hang up."""
        wrong = self.request.error
        said = {"code": "bad_request", "message": f"The request cannot be read: {wrong.reason.lower()}.", "fields": []}
        body = json.dumps(said).encode()
        self.status = f"{wrong.code} {wrong.reason}"
        self.response_headers.append(("Content-Type", "application/json"))
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


class Channel(HTTPChannel):  # type: ignore[misc]
    """A connection that refuses as the house does."""

    error_task_class = Refusal


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description="Serve Green Measure.")
    parser.add_argument("--host", default=os.environ.get("HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", "8000")))
    parser.add_argument("--threads", type=int, default=4)
    parser.add_argument("--sims", type=int, default=0, metavar="PORT", help="serve the simulated weather on this port too")
    parser.add_argument("--fetch", action="store_true", help="start the process that fetches weather, and end it with this one")
    given = parser.parse_args()
    if given.sims:
        os.environ.setdefault("PRIVATE_STATIONS", "1")
        os.environ.setdefault("SAMPLE", "alder-quay")
        if "EMAIL_HOST" not in os.environ:
            os.environ.update(EMAIL_HOST="127.0.0.1", EMAIL_PORT=str(given.sims + 1), EMAIL_TLS="0")
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings")
    from django.conf import settings

    from greenmeasure.wsgi import application

    try:
        server = create_server(
            application,
            host=given.host,
            port=given.port,
            threads=given.threads,
            ident=None,
            max_request_body_size=MOST_BYTES,
            **_trusted(os.environ.get("PROXY", "")),
        )
    except OSError as taken:
        raise SystemExit(f"Port {given.port} cannot be opened ({taken.strerror}). Try: make demo PORT=8001") from None
    server.channel_class = Channel
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))  # so that what was begun beside it is ended too
    if given.sims:
        _sims(given.sims)
    if given.sims or given.fetch:
        _beside(settings.ROOT, "fetch_weather")
        if settings.EMAIL_HOST:
            _beside(settings.ROOT, "send_summaries")
    print(f"Green Measure is at http://{given.host}:{given.port}  (Ctrl+C stops it)", flush=True)
    server.run()


def _trusted(proxy: str) -> dict[str, object]:
    """What waitress is told of a proxy: whom to believe, and what. From anybody else those headers are dropped."""
    if not proxy:
        return {"clear_untrusted_proxy_headers": True}
    headers = "x-forwarded-for x-forwarded-host x-forwarded-proto"
    return {"trusted_proxy": proxy, "trusted_proxy_headers": headers, "clear_untrusted_proxy_headers": True}


def _sims(port: int) -> None:
    """The simulated weather service and mailbox, for the demo account."""
    from greenmeasure.common.clock import now
    from sims.mailbox import Mailbox
    from sims.weather_service import Service

    try:
        service = Service(port, clock=now)
    except OSError as taken:
        raise SystemExit(f"Port {port} for the simulated weather cannot be opened ({taken.strerror}).") from None
    Thread(target=service.serve_forever, name="sims", daemon=True).start()
    print(f"Simulated weather comes from http://127.0.0.1:{port}", flush=True)
    try:
        box = Mailbox(port + 1, port + 2)
    except OSError as taken:
        raise SystemExit(f"Ports {port + 1} and {port + 2} for the simulated mailbox cannot be opened ({taken}).") from None
    atexit.register(box.close)
    print(f"Letters that go out are shown at http://127.0.0.1:{port + 2}/letters", flush=True)


def _beside(root: Path, command: str) -> None:
    """A process of its own that stays at a command, for as long as this one lives."""
    made = subprocess.Popen([sys.executable, str(root / "manage.py"), command, "--forever"], stdout=subprocess.DEVNULL)
    atexit.register(made.terminate)


if __name__ == "__main__":
    main()
