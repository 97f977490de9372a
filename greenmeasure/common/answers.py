"""Answers that are ready to send, and files among them."""

from typing import Any

from django.http import HttpResponse
from pydantic import BaseModel


def ready(answer: BaseModel, status: int = 200) -> HttpResponse:
    """`answer` as JSON, as it is: for the answers that are asked for at every keystroke.

    The endpoint still declares its type; a test holds what it sends against the OpenAPI document.
    """
    return HttpResponse(answer.model_dump_json(), status=status, content_type="application/json; charset=utf-8")


def sends(*kinds: str) -> dict[str, Any]:
    """What the document tells of an operation that answers with a file of one of these media types."""
    schema = {"type": "object"} if all(k.endswith("json") for k in kinds) else {"type": "string", "format": "binary"}
    return {"responses": {200: {"description": "OK", "content": {k: {"schema": schema} for k in kinds}}}}


def sends_lines(shape: str) -> dict[str, Any]:
    """What the document tells of an operation that answers with a line of JSON for each of many things of one shape."""
    schema = {"$ref": f"#/components/schemas/{shape}"}
    return {"responses": {200: {"description": "OK", "content": {"application/x-ndjson": {"schema": schema}}}}}
