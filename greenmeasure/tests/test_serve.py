"""The server as it is started, spoken to over a socket."""

import json
import socket
import threading

from django.test import SimpleTestCase
from waitress import create_server

from greenmeasure.serve import Channel


def spoken_to(*sent: bytes) -> bytes:
    """What a server that answers nothing of its own says to these bytes."""
    server = create_server(
        lambda environ, start: [b""], host="127.0.0.1", port=0, threads=1, ident=None, clear_untrusted_proxy_headers=True
    )
    server.channel_class = Channel
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        with socket.create_connection(("127.0.0.1", server.effective_port), timeout=10) as line:
            line.sendall(b"".join(sent))
            answer = b""
            while part := line.recv(65536):
                answer += part
            return answer
    finally:
        server.close()


class OwnRefusals(SimpleTestCase):
    def test_what_is_no_request_is_refused_in_the_one_shape(self) -> None:
        for sent in (b"\x00\x01garbage\r\n\r\n", b"GET / HTTP/1.1\r\nContent-Length: x\r\n\r\n"):
            head, _, body = spoken_to(sent).partition(b"\r\n\r\n")
            self.assertIn(b" 400 ", head.splitlines()[0])
            self.assertIn(b"application/json", head)
            self.assertNotIn(b"waitress", head)
            self.assertEqual(json.loads(body)["code"], "bad_request")
