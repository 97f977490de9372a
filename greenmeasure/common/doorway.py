"""What every answer of the API goes out with: a refusal in the one shape, and word to keep no copy on the way."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse, JsonResponse

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


class DoorwayMiddleware:
    """The last to see an answer of the API."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        answer = self.get_response(request)
        if not request.path.startswith("/api/"):
            return answer
        if answer.status_code >= 400 and not answer.get("Content-Type", "").startswith("application/json"):
            told = refusal(answer.status_code)
            if "Allow" in answer:
                told["Allow"] = answer["Allow"]
            answer = told
        answer.headers.setdefault("Cache-Control", "no-store")
        return answer
