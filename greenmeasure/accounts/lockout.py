"""The answer when too many sign-ins have failed, in the API's own shape."""

from typing import Any

from django.http import HttpRequest, JsonResponse

MESSAGE = "Too many sign-ins failed. Wait 15 minutes, then try again; nothing is lost."


def locked_out(request: HttpRequest, credentials: dict[str, Any] | None = None, *args: Any) -> JsonResponse:
    """What is said after too many failures, in the one error shape."""
    return JsonResponse({"code": "too_many", "message": MESSAGE, "fields": []}, status=429)
