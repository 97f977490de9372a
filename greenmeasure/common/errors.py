"""Errors of one shape: a code, a sentence, and the fields at fault with what to do about each."""

from collections.abc import Callable, Iterable, Mapping
from datetime import date
from typing import Any, ParamSpec, TypeVar

from django.core.exceptions import ValidationError
from django.db import IntegrityError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError
from ninja.errors import ValidationError as RequestError
from pydantic import BaseModel

from core.errors import InputError
from greenmeasure.common.mending import MendOut, mend_out
from greenmeasure.common.versions import Change, Changed

P = ParamSpec("P")
T = TypeVar("T")


class ChoiceOut(BaseModel):
    """One way to read an ambiguous input."""

    text: str
    meaning: str


class FieldOut(BaseModel):
    """A field at fault: what was given, what is wrong with it, what to do, and where, if that is elsewhere."""

    field: str
    value: str
    problem: str
    remedy: str
    choices: list[ChoiceOut] = []
    mend: MendOut | None = None


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
        mend=mend_out(fault.mend),
    )


def told(fault: InputError) -> ErrorOut:
    """A fault as an answer tells it."""
    return ErrorOut(code=fault.code, message=fault.sentence, fields=[_field(fault)])


_SAID = {
    "missing": ("It is missing.", "Say what it is."),
    "string_too_long": ("It is too long.", "{max_length:,} characters at the most."),
    "too_long": ("{actual_length} are too many.", "{max_length:,} at the most."),
    "too_short": ("{actual_length} are too few.", "{min_length:,} at the least."),
    "greater_than_equal": ("It is too small.", "{ge:,} at the least."),
    "less_than_equal": ("It is too large.", "{le:,} at the most."),
    "finite_number": ("That is not a number to measure with.", "Enter a finite number."),
    "timezone_aware": ("The time names no zone.", "Write it like 2026-06-01T07:30:00Z."),
    "timezone_naive": ("A time of day there has no zone.", "Write it like 07:30."),
    "int_from_float": ("It is no whole number.", "Enter a whole number."),
}
"""What a shape's fault is called, by pydantic's name for it; the others are told in pydantic's own words."""
_DAYS = ("It lies outside the years that are kept.", "Pick a day of these years.")


def request_faults(errors: Iterable[Mapping[str, Any]]) -> list[InputError]:
    """The faults that pydantic found, one a field; of a number that may be typed, what is wrong with it as text."""
    return list({fault.field: fault for fault in map(_request_fault, errors)}.values())


def _request_fault(error: Mapping[str, Any]) -> InputError:
    where = [str(part) for part in error["loc"] if part not in ("body", "data", "payload", "query", "path")]
    # pydantic names the tried members of a union; the form only knows the field
    where = [part for part in where if part not in ("str", "float", "int") and not part.startswith(("constrained-", "function-"))]
    value, context = error.get("input", ""), error.get("ctx") or {}
    value = value.get("value", "") if isinstance(value, dict) else value
    shown = str(value)[:120] if "password" not in where and isinstance(value, str | int | float | date) else ""
    problem, remedy = f"{error['msg']}.", ""
    if isinstance(context.get("ge", context.get("le")), str | date):
        problem, remedy = _DAYS
    elif said := _SAID.get(error["type"]):
        problem, remedy = (part.format(**context) for part in said)
    return InputError(".".join(where) or "request", shown, problem, remedy)


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
        faults = request_faults(wrong.errors)
        return answer(request, 422, "invalid", "The request was not understood.", [_field(f) for f in faults])

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
        if isinstance(wrong.__cause__, InputError):  # what a parser refused
            return _input(request, wrong.__cause__)
        codes = {400: "bad_request", 403: "forbidden", 404: "not_found", 429: "too_many"}
        code = codes.get(wrong.status_code, "error")
        return answer(request, wrong.status_code, code, str(wrong), [])
