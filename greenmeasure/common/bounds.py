"""What any request may hold: how deep, how long, how large, of which days. The one place that bounds them.

Two nets. `BoundedParser` reads a body or a query before anything else does, and refuses what no form ever sends: numbers that
are none, texts that are no text, nesting without end. `In`, the base of every shape that comes in, gives each of its
fields a bound where the field states none of its own, so that the document tells it too; paths and queries use `Id` and
`Word`. `greenmeasure/tests/test_bounds.py` walks the document and holds that no field is without.
"""

import json
import sys
from datetime import UTC, date, datetime
from typing import Annotated, Any, TypeVar

from django.http import HttpRequest
from django.utils.datastructures import MultiValueDict
from ninja import Schema
from ninja.params.models import ParamModel
from ninja.parser import Parser
from pydantic import BaseModel, Field, GetCoreSchemaHandler, StringConstraints, ValidationError
from pydantic_core import CoreSchema

from core.errors import InputError, NotUnderstood
from core.units import HUGEST, LONGEST_NUMBER
from greenmeasure.common.errors import Faulty, request_faults

for built_when_used in (Schema, ParamModel):
    built_when_used.model_config["defer_build"] = True
"""What ninja makes of each operation's answer and of its parameters: hundreds of shapes, of which a process uses some."""

DEEPEST = 16
"""Levels of nesting; a MultiPolygon in a feature of a collection has 9."""
LARGEST_WHOLE, MOST_FLOAT = 2**53 - 1, sys.float_info.max
"""A number's distance from 0: what JavaScript reads back as it was, and what is a number at all."""
LONGEST, LONGEST_FILE = 4_000, 5_000_000
"""Characters of a text, and of a file's text."""
MOST_ITEMS = 2_000
"""Entries of a list or a mapping that states no bound of its own."""
FIRST_DAY, LAST_DAY = date(1900, 1, 1), date(2999, 12, 31)
"""Far from where the calendar ends, so that no sum with days leaves it; what is too late for a form, the form says."""
FIRST_MOMENT, LAST_MOMENT = datetime(1900, 1, 1, tzinfo=UTC), datetime(2999, 12, 31, tzinfo=UTC)

Id = Annotated[int, Field(ge=0, le=LARGEST_WHOLE)]
"""A row's id in a path or a query."""
Word = Annotated[str, StringConstraints(max_length=200)]
"""A word in a path or a query."""
Day = Annotated[date, Field(ge=FIRST_DAY, le=LAST_DAY)]
"""A day in a query."""


class BoundedParser(Parser):
    """Reads what was sent, and refuses what is beyond every bound."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body's JSON. Raises InputError as `bounded`; ValueError and RecursionError where it is no JSON."""
        return bounded(json.loads(request.body))

    def parse_querydict(self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest) -> Any:
        """A query's or a form's fields. Raises InputError as `bounded`."""
        found = super().parse_querydict(data, list_fields, request)
        bounded({k: v for k, v in found.items() if isinstance(v, str)})
        return found


def read_json(text: str, field: str = "text") -> Any:
    """What a file's text holds, within bounds.

    Raises:
        NotUnderstood: it is no JSON.
        InputError: as `bounded`.
    """
    try:
        return bounded(json.loads(text))
    except InputError:
        raise
    except json.JSONDecodeError as wrong:
        where = f"line {wrong.lineno}: {wrong.msg}"
    except (ValueError, RecursionError) as wrong:
        where = "it is nested without end" if isinstance(wrong, RecursionError) else "a number in it is too long"
    raise NotUnderstood(field, text[:40], f"It is no JSON ({where}).", "Pick a file that was saved whole.")


M = TypeVar("M", bound=BaseModel)


def shaped(model: type[M], given: Any, field: str = "") -> M:
    """What a file holds, as a shape that comes in.

    Raises:
        Faulty: every field at fault, at once.
    """
    try:
        return model.model_validate(given)
    except ValidationError as wrong:
        faults = request_faults(dict(e) for e in wrong.errors(include_url=False))
    raise Faulty([f.on(".".join(filter(None, (field, f.field)))) for f in faults])


def bounded(given: Any) -> Any:
    """`given`, of JSON's types, if all of it is within bounds.

    Raises:
        InputError: names the place that is not.
    """
    left = [("", given, 0)]
    while left:
        where, value, depth = left.pop()
        if depth > DEEPEST:
            raise InputError(where, "", f"It is nested deeper than {DEEPEST} levels.", "Send it flatter.")
        match value:
            case dict():
                left += [(where, key, depth) for key in value]
                quantity = value.keys() == {"value", "unit"}
                left += [(where if quantity else f"{where}.{key}"[:120].lstrip("."), v, depth + 1) for key, v in value.items()]
            case list():
                left += [(f"{where}.{i}".lstrip("."), v, depth + 1) for i, v in enumerate(value)]
            case str():
                _text(where, value)
            case bool() | None:
                pass
            case _:
                _number(where, value)
    return given


def _text(where: str, value: str) -> None:
    if len(value) > LONGEST_FILE:
        raise InputError(where, value[:40], f"A text of {len(value):,} characters is too long.", f"At most {LONGEST_FILE:,}.")
    if "\x00" in value or (not value.isascii() and any("\ud800" <= c <= "\udfff" for c in value)):
        shown = value[:40].replace("\x00", "�").encode(errors="replace").decode()
        raise InputError(where, shown, "It holds characters that are no text.", "Type it anew.")


def _number(where: str, value: float) -> None:
    if not -MOST_FLOAT <= value <= MOST_FLOAT:
        raise InputError(
            where, f"{value:g}" if isinstance(value, float) else "", "That is no number to reckon with.", "Check it."
        )


_BOUNDS: dict[str, dict[str, Any]] = {
    "str": {"max_length": LONGEST},
    "int": {"ge": -LARGEST_WHOLE, "le": LARGEST_WHOLE},
    "float": {"ge": -HUGEST, "le": HUGEST, "allow_inf_nan": False},
    "date": {"ge": FIRST_DAY, "le": LAST_DAY},
    "datetime": {"ge": FIRST_MOMENT, "le": LAST_MOMENT, "tz_constraint": "aware"},
    "time": {"tz_constraint": "naive"},
    "list": {"max_length": MOST_ITEMS},
    "dict": {"max_length": MOST_ITEMS},
}
_SAME = {"ge": "gt", "le": "lt"}
_TYPED_NUMBER = {"float", "str"}


def _bind(schema: Any) -> None:
    """Give every bare type of a core schema its bound; what states one keeps it. Models inside have bound themselves."""
    if isinstance(schema, list | tuple):
        for part in schema:
            _bind(part)
    if not isinstance(schema, dict):
        return
    for key, bound in _BOUNDS.get(schema.get("type", ""), {}).items():
        if _SAME.get(key, key) not in schema:
            schema.setdefault(key, bound)
    if schema.get("type") == "union":
        _bind_typed_number(schema["choices"])
    for key, part in schema.items():
        if key not in ("metadata", "serialization", "ref"):
            _bind(part)


def _bind_typed_number(choices: list[Any]) -> None:
    """A number that may be typed is short."""
    kinds = {c["type"]: c for c in choices if isinstance(c, dict)}
    if set(kinds) == _TYPED_NUMBER:
        kinds["str"].setdefault("max_length", LONGEST_NUMBER)


class In(Schema):
    """What comes in. Whatever field states no bound gets the house's."""

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        found = handler(source)
        _bind(found)
        return found
