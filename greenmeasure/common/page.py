"""The page that carries the interface, and plain answers for what is not there."""

from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache

from greenmeasure.common.doorway import REFUSALS, refusal

NONCE_MARK = "__CSP_NONCE__"
NOT_BUILT = "<!doctype html><title>Green Measure</title><p>The interface is not built yet. Run <code>make build</code>.</p>"


@lru_cache(maxsize=4)
def _index(path: Path, changed: int) -> str:
    return path.read_text(encoding="utf-8")


@never_cache
def page(request: HttpRequest) -> HttpResponse:
    """The built index page, with this answer's nonce in it."""
    path = Path(settings.WEB_BUILD) / "index.html"
    if not path.exists():
        return HttpResponse(NOT_BUILT, status=503)
    html = _index(path, path.stat().st_mtime_ns)
    return HttpResponse(html.replace(NONCE_MARK, str(request.csp_nonce)))  # type: ignore[attr-defined]


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """The answer to what is no request, or one beyond all bounds."""
    return _told(request, 413 if isinstance(exception, RequestDataTooBig) else 400)


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """The answer where there is nothing."""
    return _told(request, 404)


def server_error(request: HttpRequest) -> HttpResponse:
    """The answer where something broke."""
    return _told(request, 500)


def _told(request: HttpRequest, status: int) -> HttpResponse:
    if request.path.startswith("/api/"):
        return refusal(status)
    return HttpResponse(f"<!doctype html><title>Green Measure</title><p>{REFUSALS[status][1]}</p>", status=status)
