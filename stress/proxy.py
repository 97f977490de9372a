"""A TLS proxy before the server, for real: nginx with the configuration of docs/nginx.conf, a certificate made for the occasion.

Held: plain HTTP is sent to HTTPS; cookies are for HTTPS alone; browsers are told to stay with it; the CSRF check passes with the
outer name; who asks is told by the proxy, and by nobody before it.
"""

import os
import shutil
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import requests
import urllib3

ROOT = Path(__file__).resolve().parent.parent
NAME = "turf.example"


def free_port() -> int:
    """A port that nobody listens on."""
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


@contextmanager
def running() -> Iterator[tuple[int, int]]:
    """The server behind nginx in a folder of its own; gives the ports of HTTP and HTTPS."""
    plain, tls, inner = free_port(), free_port(), free_port()
    with tempfile.TemporaryDirectory() as held:
        folder = Path(held)
        key, pem = folder / "key", folder / "pem"
        made = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "1", "-subj", f"/CN={NAME}"]
        subprocess.run([*made, "-keyout", str(key), "-out", str(pem)], check=True, capture_output=True)
        server = (ROOT / "docs" / "nginx.conf").read_text(encoding="utf-8")
        for old, new in (
            ("listen 80", f"listen 127.0.0.1:{plain}"),
            ("listen 443", f"listen 127.0.0.1:{tls}"),
            ("127.0.0.1:8000", f"127.0.0.1:{inner}"),
            (f"/etc/ssl/{NAME}.pem", str(pem)),
            (f"/etc/ssl/{NAME}.key", str(key)),
            ("https://$host$", f"https://$host:{tls}$"),
        ):
            assert old in server, f"docs/nginx.conf has no {old!r} any more"
            server = server.replace(old, new)
        logs = f"access_log off; error_log {folder}/error.log; client_body_temp_path {folder}/b; proxy_temp_path {folder}/p;"
        rest = f"fastcgi_temp_path {folder}/f; uwsgi_temp_path {folder}/u; scgi_temp_path {folder}/s;"
        (folder / "nginx.conf").write_text(
            f"daemon off; pid {folder}/pid; error_log {folder}/error.log; events {{}}\nhttp {{ {logs} {rest}\n{server}}}\n"
        )
        env = os.environ | {
            "GREENMEASURE_VAR": str(folder / "var"),
            "HTTPS": "1",
            "PROXY": "127.0.0.1",
            "ALLOWED_HOSTS": NAME,
            "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
        }
        subprocess.run([sys.executable, "manage.py", "bring_up_to_date"], cwd=ROOT, env=env, check=True)
        both = [
            subprocess.Popen([sys.executable, "-m", "greenmeasure.serve", "--port", str(inner)], cwd=ROOT, env=env, stdout=-3),
            subprocess.Popen(["nginx", "-c", str(folder / "nginx.conf"), "-p", str(folder)], stderr=-3),
        ]
        try:
            wait_for(inner)
            wait_for(tls)
            yield plain, tls
        finally:
            for process in both:
                process.terminate()
                process.wait(10)


def wait_for(port: int) -> None:
    """Wait until somebody listens on a port."""
    for _ in range(150):
        try:
            socket.create_connection(("127.0.0.1", port), 1).close()
            return
        except OSError:
            time.sleep(0.1)
    raise SystemExit(f"Nothing answers on port {port}.")


def tried() -> list[str]:
    """What does not hold behind the proxy."""
    if not shutil.which("nginx"):
        return ["nginx is not installed: apt-get install nginx-light"]
    urllib3.disable_warnings()
    wrong: list[str] = []

    def hold(what: str, true: bool) -> None:
        if not true:
            wrong.append(what)

    with running() as (plain, tls), requests.Session() as session:
        session.verify, session.trust_env = False, False
        host, outer = {"Host": f"{NAME}:{tls}"}, f"https://127.0.0.1:{tls}"
        sent_on = session.get(f"http://127.0.0.1:{plain}/a/x", headers={"Host": NAME}, allow_redirects=False)
        hold("plain HTTP is sent to HTTPS", sent_on.headers.get("Location", "").startswith(f"https://{NAME}:{tls}/a/x"))
        first = session.get(f"{outer}/api/session", headers=host)
        hold(f"the session is told over HTTPS ({first.status_code})", first.status_code == 200)
        hold("browsers are told to stay with HTTPS", "max-age" in first.headers.get("Strict-Transport-Security", ""))
        hold("cookies are for HTTPS alone", "Secure" in first.headers.get("Set-Cookie", ""))
        found = {
            "name": "Behind",
            "units": "us",
            "time_zone": "UTC",
            "username": "m",
            "full_name": "M",
            "password": "three unrelated words",
        }
        more = host | {
            "X-CSRFToken": first.json()["csrf"],
            "Origin": f"https://{NAME}:{tls}",
            "Referer": f"https://{NAME}:{tls}/",
            "X-Forwarded-For": "203.0.113.77",
            "Cookie": f"csrftoken={session.cookies.get('csrftoken')}",
        }
        made = session.post(f"{outer}/api/accounts", json=found, headers=more)
        hold(f"a form is taken under the outer name ({made.status_code} {made.text[:120]})", made.status_code == 201)
        cookie = "; ".join(f"{c.name}={c.value}" for c in session.cookies)
        told = session.get(f"{outer}/api/session/open", headers=host | {"Cookie": cookie}).json()
        hold(f"who asks is whom the proxy names ({told})", isinstance(told, list) and told[0]["address"] == "127.0.0.1")
        another = session.get(f"{outer}/api/session", headers={"Host": "evil.example"})
        hold("a name that is not this server's is refused", another.status_code in (400, 404, 421))
    return wrong
