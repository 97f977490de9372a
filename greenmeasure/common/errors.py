"""Errors of one shape: a code, a sentence, and the fields at fault with what to do about each."""

from collections.abc import Callable
from typing import Any, ParamSpec, TypeVar

from django.core.exceptions import ValidationError
from django.db import IntegrityError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError
from ninja.errors import ValidationError as RequestError
from pydantic import BaseModel

from core.errors import InputError
from greenmeasure.common.versions import Change, Changed

P = ParamSpec("P")
T = TypeVar("T")


class ChoiceOut(BaseModel):
    """One way to read an ambiguous input."""

    text: str
    meaning: str


class FieldOut(BaseModel):
    """A field at fault: what was given, what is wrong with it, and what to do."""

    field: str
    value: str
    problem: str
    remedy: str
    choices: list[ChoiceOut] = []


class ErrorOut(BaseModel):
    """Every answer that is not the one asked for."""

    code: str
    message: str
    fields: list[FieldOut] = []
    changes: list[Change] = []
    version: int | None = None


class Faulty(Exception):
    """Several inputs at fault at once."""

    def __init__(self, faults: list[InputError]) -> None:
        self.faults = faults
        super().__init__("; ".join(map(str, faults)))


class Conflict(Exception):
    """The request is sound, but not in the state things are in."""


class Missing(Exception):
    """What was asked for is not there, or not this account's."""

    def __init__(self, what: str) -> None:
        self.what = what
        super().__init__(f"There is no such {what} here.")


class Faults:
    """Gathers the faults of several inputs, so that a form hears of all of them at once."""

    def __init__(self) -> None:
        self.found: list[InputError] = []

    def of(self, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T | None:
        """What `work` returns, or None with its fault kept."""
        try:
            return work(*args, **kwargs)
        except InputError as fault:
            self.found.append(fault)
        except Faulty as several:
            self.found += several.faults
        return None

    def add(self, field: str, value: object, problem: str, remedy: str = "") -> None:
        self.found.append(InputError(field, value, problem, remedy))

    def raise_any(self) -> None:
        if self.found:
            raise Faulty(self.found)


def _field(fault: InputError) -> FieldOut:
    value = "" if fault.value is None else str(fault.value)
    return FieldOut(
        field=fault.field,
        value=value,
        problem=fault.problem,
        remedy=fault.remedy,
        choices=[ChoiceOut(text=c.text, meaning=c.meaning) for c in fault.choices],
    )


def _request_field(error: dict[str, Any]) -> FieldOut:
    where = [str(part) for part in error["loc"] if part not in ("body", "data", "payload", "query", "path")]
    # pydantic names the tried members of a union; the form only knows the field
    where = [part for part in where if part not in ("str", "float", "int", "function-after")]
    value = error.get("input", "")
    shown = "" if isinstance(value, dict | list) else str(value)
    return FieldOut(field=".".join(where) or "request", value=shown, problem=f"{error['msg']}.", remedy="")


def install(api: NinjaAPI) -> None:
    """Shape every error the API can answer with."""

    def answer(request: HttpRequest, status: int, code: str, message: str, fields: list[FieldOut]) -> HttpResponse:
        said = ErrorOut(code=code, message=message, fields=fields).model_dump(exclude={"changes", "version"})
        return api.create_response(request, said, status=status)

    @api.exception_handler(InputError)
    def _input(request: HttpRequest, fault: InputError) -> HttpResponse:
        return answer(request, 422, fault.code, fault.sentence, [_field(fault)])

    @api.exception_handler(Faulty)
    def _faulty(request: HttpRequest, several: Faulty) -> HttpResponse:
        first = several.faults[0]
        more = len(several.faults) - 1
        message = first.sentence if not more else f"{first.sentence} ({more} more to mend.)"
        return answer(request, 422, first.code, message, [_field(f) for f in several.faults])

    @api.exception_handler(RequestError)
    def _request(request: HttpRequest, wrong: RequestError) -> HttpResponse:
        fields: dict[str, FieldOut] = {}
        for error in wrong.errors:
            found = _request_field(error)
            fields.setdefault(found.field, found)
        return answer(request, 422, "invalid", "The request was not understood.", list(fields.values()))

    @api.exception_handler(ValidationError)
    def _validation(request: HttpRequest, wrong: ValidationError) -> HttpResponse:
        fields = [
            FieldOut(field=name, value="", problem=" ".join(messages), remedy="") for name, messages in wrong.message_dict.items()
        ]
        return answer(request, 422, "invalid", fields[0].problem if fields else "Invalid.", fields)

    @api.exception_handler(Missing)
    def _missing(request: HttpRequest, missing: Missing) -> HttpResponse:
        return answer(request, 404, "not_found", str(missing), [])

    @api.exception_handler(Conflict)
    def _conflict(request: HttpRequest, conflict: Conflict) -> HttpResponse:
        return answer(request, 409, "conflict", str(conflict), [])

    @api.exception_handler(Changed)
    def _changed(request: HttpRequest, changed: Changed) -> HttpResponse:
        said = ErrorOut(code="changed", message=str(changed), changes=changed.changes, version=changed.version)
        return api.create_response(request, said.model_dump(), status=409)

    @api.exception_handler(IntegrityError)
    def _at_once(request: HttpRequest, clash: IntegrityError) -> HttpResponse:
        said = "Somebody else changed the same thing at the same moment. Nothing was saved: look again, and repeat it."
        return answer(request, 409, "conflict", said, [])

    @api.exception_handler(AuthenticationError)
    def _authentication(request: HttpRequest, wrong: AuthenticationError) -> HttpResponse:
        return answer(request, 401, "signed_out", "You are signed out. Sign in and go on; what you typed is kept.", [])

    @api.exception_handler(HttpError)
    def _http(request: HttpRequest, wrong: HttpError) -> HttpResponse:
        codes = {400: "bad_request", 403: "forbidden", 404: "not_found", 429: "too_many"}
        code = codes.get(wrong.status_code, "error")
        return answer(request, wrong.status_code, code, str(wrong), [])
