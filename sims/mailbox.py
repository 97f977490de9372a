"""A simulated mailbox: takes letters by SMTP, keeps the latest, and shows them over HTTP.

`python -m sims.mailbox --smtp 8325 --http 8326`; then `curl localhost:8326/letters`. After `PUT /faults {"refuse": true}` it
takes none.
"""

import argparse
import json
from collections import deque
from email import message_from_bytes
from email.policy import default
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from socket import socket
from threading import Event, Thread
from typing import Any

from aiosmtpd.controller import Controller

MOST = 200
"""How many letters are kept."""


class Taker:
    """What is done with each letter that comes in."""

    def __init__(self) -> None:
        self.letters: deque[dict[str, Any]] = deque(maxlen=MOST)
        self.refuse = False

    async def handle_DATA(self, server: Any, session: Any, envelope: Any) -> str:  # noqa: N802
        """Take a letter, or refuse it."""
        if self.refuse:
            return "451 The mailbox takes no letters now"
        read = message_from_bytes(envelope.content, policy=default)
        body = read.get_body(("plain",))
        text = body.get_content() if body else ""
        self.letters.appendleft({"to": envelope.rcpt_tos, "subject": str(read["Subject"]), "text": text})
        return "250 Taken"


def _free_port() -> int:
    with socket() as one:
        one.bind(("127.0.0.1", 0))
        return int(one.getsockname()[1])


class Mailbox:
    """A mailbox at two ports, for as long as it is open."""

    def __init__(self, smtp: int = 0, http: int = 0) -> None:
        self.taker = Taker()
        self.smtp = smtp or _free_port()
        self.controller = Controller(self.taker, hostname="127.0.0.1", port=self.smtp)
        self.controller.start()
        taker = self.taker

        class Shown(BaseHTTPRequestHandler):
            """The letters over HTTP."""

            def do_GET(self) -> None:
                self.answer(list(taker.letters))

            def do_PUT(self) -> None:
                given = json.loads(self.rfile.read(int(self.headers.get("Content-Length", 0))) or b"{}")
                taker.refuse = bool(given.get("refuse"))
                self.answer({"refuse": taker.refuse})

            def answer(self, told: Any) -> None:
                body = json.dumps(told).encode()
                self.send_response(200)
                self.send_header("Content-Type", "application/json")
                self.send_header("Content-Length", str(len(body)))
                self.end_headers()
                self.wfile.write(body)

            def log_message(self, format: str, *args: Any) -> None:
                """Say nothing."""

        self.server = ThreadingHTTPServer(("127.0.0.1", http), Shown)
        Thread(target=self.server.serve_forever, daemon=True).start()

    @property
    def ports(self) -> tuple[int, int]:
        """Where letters go in by SMTP, and where they are shown."""
        return self.smtp, self.server.server_address[1]

    def close(self) -> None:
        self.controller.stop()
        self.server.shutdown()
        self.server.server_close()


def main() -> None:
    """Take letters until stopped."""
    parser = argparse.ArgumentParser(description="A simulated mailbox.")
    parser.add_argument("--smtp", type=int, default=8325)
    parser.add_argument("--http", type=int, default=8326)
    given = parser.parse_args()
    box = Mailbox(given.smtp, given.http)
    print(f"Letters go in at 127.0.0.1:{box.ports[0]} and are shown at http://127.0.0.1:{box.ports[1]}/letters", flush=True)  # noqa: T201
    Event().wait()


if __name__ == "__main__":
    main()
