"""Answers that are ready to send."""

from django.http import HttpResponse
from pydantic import BaseModel


def ready(answer: BaseModel, status: int = 200) -> HttpResponse:
    """`answer` as JSON, as it is: for the answers that are asked for at every keystroke.

    The endpoint still declares its type; a test holds what it sends against the OpenAPI document.
    """
    return HttpResponse(answer.model_dump_json(), status=status, content_type="application/json; charset=utf-8")
