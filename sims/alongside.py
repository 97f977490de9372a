"""The simulated service beside the application: started in a thread, its weather fetched every half hour."""

from collections.abc import Callable
from datetime import datetime
from threading import Event, Thread

from sims.weather_service import Service

EVERY = 1800.0


def start(port: int, now: Callable[[], datetime], fetch: Callable[[], None]) -> Service:
    """Serve the simulated weather on a port by the application's clock, and call `fetch` at once and every half hour.

    Raises:
        OSError: the port is taken.
    """
    service = Service(port, clock=now)
    Thread(target=service.serve_forever, name="sims", daemon=True).start()
    Thread(target=_often, args=(fetch,), name="fetch", daemon=True).start()
    return service


def _often(fetch: Callable[[], None]) -> None:
    waiting = Event()
    while True:
        fetch()
        waiting.wait(EVERY)
