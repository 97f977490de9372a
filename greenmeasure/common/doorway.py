"""What every answer of the API goes out with: all of its changes or none, a refusal in the one shape, and word to keep no
copy on the way.
"""

from collections.abc import Callable
from contextlib import ExitStack

from django.db import transaction
from django.http import HttpRequest, HttpResponse, JsonResponse

from greenmeasure.common import kept

REFUSALS = {
    400: ("bad_request", "The request cannot be read."),
    403: ("forbidden", "That is not allowed."),
    404: ("not_found", "There is nothing at this address."),
    405: ("not_allowed", "That cannot be asked of this address."),
    413: ("too_large", "That is larger than anything that is taken here."),
    429: ("too_many", "That was asked too often. Wait a little."),
    500: ("server_error", "Something broke here, not in what you typed. Nothing was half-saved."),
}


def refusal(status: int) -> JsonResponse:
    """A refusal that nothing more is known about."""
    code, message = REFUSALS.get(status, ("error", "That cannot be answered."))
    return JsonResponse({"code": code, "message": message, "fields": []}, status=status)


def begin_changes(request: HttpRequest) -> None:
    """From here on, what a request changes is kept if it is answered well, and undone if it is refused.

    The door calls this that lets in whoever may change things; a reader never waits for a writer.
    """
    if not begun(request):
        request.changes.enter_context(kept.apart())  # type: ignore[attr-defined]
        request.changes.enter_context(transaction.atomic())  # type: ignore[attr-defined]
        request.changes_begun = True  # type: ignore[attr-defined]


def begun(request: HttpRequest) -> bool:
    """Whether the request is within its transaction."""
    return getattr(request, "changes_begun", False)


class DoorwayMiddleware:
    """The last to see an answer of the API."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if not request.path.startswith("/api/"):
            return self.get_response(request)
        with ExitStack() as changes:
            changes.enter_context(kept.read_anew())
            request.changes = changes  # type: ignore[attr-defined]
            answer = self.get_response(request)
            if answer.status_code >= 400 and begun(request):
                transaction.set_rollback(True)
        if answer.status_code >= 400 and not answer.get("Content-Type", "").startswith("application/json"):
            told = refusal(answer.status_code)
            if "Allow" in answer:
                told["Allow"] = answer["Allow"]
            answer = told
        answer.headers.setdefault("Cache-Control", "no-store")
        return answer
