"""Serve Green Measure with waitress: `python -m greenmeasure.serve [--port 8000]`."""

import argparse
import os


def main() -> None:
    parser = argparse.ArgumentParser(description="Serve Green Measure.")
    parser.add_argument("--host", default=os.environ.get("HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", "8000")))
    parser.add_argument("--threads", type=int, default=4)
    given = parser.parse_args()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings")
    from waitress import create_server

    from greenmeasure.wsgi import application

    try:
        server = create_server(application, host=given.host, port=given.port, threads=given.threads)
    except OSError as taken:
        raise SystemExit(f"Port {given.port} cannot be opened ({taken.strerror}). Try: make demo PORT=8001") from None
    print(f"Green Measure is at http://{given.host}:{given.port}  (Ctrl+C stops it)", flush=True)
    server.run()


if __name__ == "__main__":
    main()
