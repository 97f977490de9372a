"""Requests made wrong on purpose: sound ones with a few places changed, and ones grown from the schema alone."""

import copy
import json
import random
import re
from collections.abc import Iterator
from typing import Any

DEEP = 150
NUMBERS: tuple[Any, ...] = (
    0, -1, 1, 2**31, 2**63, 2**64, 10**30, -(10**18), 1e308, -1e308, 5e-324, 1e-320, 0.1, 1e15, 1e16,
    float("nan"), float("inf"), float("-inf"),
)  # fmt: skip
TEXTS: tuple[str, ...] = (
    "", " ", "0", "-1", "nan", "inf", "1e999", "5e-324", "1/0", "1 1/2", "9" * 400, "9" * 5000, "1,2,3", "½", "١٢", "１２",
    "\x00", "a\x00b", "\ud800", "\udcff\ud83d", "\u202e", "é" * 70_000, "a" * 301, "=1+1", "＝1+1", "'; DROP TABLE x; --",
    "0001-01-01", "9999-12-31", "0000-00-00", "2026-02-30", "0001-01-01T00:00:00Z", "9999-12-31T23:59:59+14:00",
    "2026-06-01T07:30:00", "07:30:00+05:00", "24:00", "23:59:60", "07:30:00.123456Z", "America", "US/../..",
    "../../etc", "Mars/Base",
    "furlong", "lb/kft2", "{}", "[]", "null", "{", "true", "http://127.0.0.1:9", "http://[::", "ftp://x", "garbage",
)  # fmt: skip
OTHERS: tuple[Any, ...] = (None, True, False, [], {}, [None], [1], {"a": 1}, {"value": 1}, [[]], [[], [[]]], {"$ref": "#"})
BODIES: tuple[bytes, ...] = (
    b"", b"{", b"[]", b"null", b"1", b'"x"', b"{}", b"\xff\xfe{}", b"{\"a\":NaN}", b"9" * 5000, b'{"a":' + b"9" * 5000 + b"}",
    b"[" * 100_000, b'{"a":' * 5000 + b"1" + b"}" * 5000, b'{"text": "\\ud800"}', b'{"a":1,"a":2}', b"\x00", b"{}" * 3,
)  # fmt: skip
QUERIES: tuple[str, ...] = (
    "year=-1", "year=0", "year=99999999999999999999", "on=0001-01-01", "on=9999-12-31", "page=-1", "page=0", "page=1e9",
    "page=" + "9" * 30,
    "hour=24:00", "hour=%00", "words=%00", "words=%ED%A0%80", "words=" + "a" * 5000, "site_id=0", "site_id=-1",
    "site_id=" + "9" * 25,
    "weeks=3", "weeks=-5", "weeks=" + "9" * 5000, "field=garbage", "disease=garbage", "wanted=nan", "wanted=1e999",
    "unit=garbage",
    "%00=%00", "a[]=1",
)  # fmt: skip
IDS: tuple[Any, ...] = (0, -1, 999_999, 2**31, 2**63, "9" * 30, "x", "%00", "%F0%9F", "1.5", " ", "a" * 2000)


DAYS = (
    *(t for t in TEXTS if re.match(r"\d{4}-", t)),
    "2026-06-01T07:30:00Z",
    "1899-12-31",
    "2101-01-01",
    "2026-6-1",
    "01/06/2026",
    "1700000000",
)
CLOCKS = ("24:00", "07:30:00+05:00", "23:59:60", "7", "-07:30", "07:30:00.123456Z", "12:00 AM", "99:99")
FIGURES = (
    *NUMBERS,
    "0",
    "-1",
    "nan",
    "inf",
    "1e999",
    "5e-324",
    "1/0",
    "1 1/2",
    "9" * 400,
    "9" * 59,
    "1/" + "9" * 50,
    "0." + "0" * 50 + "1",
    "",
)
NAMES = (
    "",
    "furlong",
    "America",
    "US/../..",
    "../../etc",
    "Mars/Base",
    "garbage",
    "\x00",
    "lb/kft2",
    "kft2",
    "lb",
    "ft",
    "%",
    "degC",
    "s",
    "psi",
)


def _kin(value: Any, key: Any) -> tuple[Any, ...]:
    """Values of the same sort that a sum may not expect."""
    if key in ("unit", "time_zone", "zone", "disease", "target", "method", "kind", "shape", "formulation", "grass", "field"):
        return NAMES
    if isinstance(value, int | float) and not isinstance(value, bool):
        return FIGURES
    if isinstance(value, str):
        if re.match(r"\d{4}-\d\d-\d\d", value):
            return DAYS
        if re.fullmatch(r"\d\d:\d\d", value):
            return CLOCKS
        if re.fullmatch(r"[-\d ./½]+", value):
            return FIGURES
    return ()


class Wrong:
    """Makes requests wrong, the same way again for the same seed."""

    def __init__(self, seed: int, components: dict[str, Any]) -> None:
        self.random = random.Random(seed)
        self.components = components

    def nasty(self) -> Any:
        """Any value that a field may not expect."""
        pool = self.random.choice((NUMBERS, TEXTS, TEXTS, OTHERS))
        return copy.deepcopy(self.random.choice(pool))

    def near(self, value: Any, key: Any = "") -> Any:
        """A value like this one that is not quite it; `key` is what it is called."""
        one = self.random.random()
        if one < 0.55 and (kin := _kin(value, key)):
            return self.random.choice(kin)
        if isinstance(value, bool) or value is None or one < (0.1 if isinstance(value, str) and len(value) > 80 else 0.4):
            return self.nasty()
        if isinstance(value, int | float):
            return self.random.choice((-value, value * 1e6, value / 1e6, value + 0.5, str(value), 0, *NUMBERS))
        if isinstance(value, str) and len(value) > 80 and one < 0.95:
            return self.within(value)
        if isinstance(value, str):
            cut = self.random.randrange(len(value) + 1)
            return self.random.choice(
                (value[:cut], value + value, value[::-1], value.upper(), f" {value} ", value + "\x00", *TEXTS)
            )
        if isinstance(value, list):
            return self.random.choice(([], value * 2, value[:-1], value * 500, [value], dict(enumerate(map(str, value)))))
        return {} if one < 0.7 else [value]

    def within(self, text: str) -> str:
        """A file's text with something changed inside of it: of JSON a place, of a table a cell, a line or its ends."""
        try:
            return json.dumps(self.changed(json.loads(text)))
        except ValueError:
            pass
        lines = text.splitlines(keepends=True)
        at = self.random.randrange(len(lines))
        cells = lines[at].rstrip("\r\n").split(",")
        cells[self.random.randrange(len(cells))] = self.random.choice((*TEXTS, *TEXTS, "x" * 200_000, '"', '"a\n'))
        cell = "".join((*lines[:at], ",".join(cells) + "\n", *lines[at + 1 :]))
        ends = text.replace("\r\n", "\n").replace("\n", "\r")
        return self.random.choice((cell, cell, cell, cell, ends, text * 50, lines[0], "".join(lines[1:]), text[: len(text) // 2]))

    def changed(self, body: Any) -> Any:
        """A copy of a body with one to three of its places changed, dropped or told twice; now and then very deep."""
        made = copy.deepcopy(body)
        for _ in range(self.random.choice((1, 1, 1, 2, 3))):
            spots = list(places(made))
            if not spots:
                return self.nasty()
            holder, key = self.random.choice(spots)
            act = self.random.random()
            if act < 0.1:
                del holder[key]
            elif act < 0.13:
                holder[key] = deep(self.random.choice(("list", "dict")))
            elif act < 0.18 and isinstance(holder, dict):
                holder[self.random.choice(("", "__proto__", "id", "version", "x" * 500))] = self.nasty()
            else:
                holder[key] = self.near(holder[key], key)
        return made

    def grown(self, schema: dict[str, Any], depth: int = 0) -> Any:
        """A value that a schema of the document allows, or nearly."""
        if self.random.random() < 0.04:
            return self.nasty()
        if "$ref" in schema:
            return self.grown(self.components[schema["$ref"].rsplit("/", 1)[1]], depth + 1)
        if options := schema.get("anyOf") or schema.get("oneOf"):
            return self.grown(self.random.choice(options), depth + 1)
        if "enum" in schema:
            return self.random.choice(schema["enum"])
        if "const" in schema:
            return schema["const"]
        match schema.get("type"):
            case "object" if "properties" in schema:
                asked = schema.get("required", [])
                keys = [k for k in schema["properties"] if k in asked or self.random.random() < (0.5 if depth < 6 else 0.1)]
                return {k: self.grown(schema["properties"][k], depth + 1) for k in keys}
            case "object":
                return {str(self.nasty())[:20]: self.nasty() for _ in range(self.random.randrange(3))}
            case "array":
                return [
                    self.grown(schema.get("items", {}), depth + 1) for _ in range(self.random.randrange(4) if depth < 8 else 0)
                ]
            case "string":
                return self.random.choice(("x", "2026-06-01", "07:30", "N", "ft", *TEXTS))
            case "number" | "integer":
                return self.random.choice((1, 2, 3, 10, *NUMBERS))
            case "boolean":
                return self.random.choice((True, False))
            case _:
                return self.nasty()


def places(body: Any) -> Iterator[tuple[Any, Any]]:
    """Every place of a body, as what holds it and its key there."""
    pairs = body.items() if isinstance(body, dict) else enumerate(body) if isinstance(body, list) else ()
    for key, value in list(pairs):
        yield body, key
        yield from places(value)


def deep(kind: str) -> Any:
    """A value nested far deeper than anything that is asked for."""
    made: Any = 1
    for _ in range(DEEP):
        made = [made] if kind == "list" else {"a": made}
    return made


def as_json(body: Any) -> bytes:
    """A body as it is sent, NaN and lone surrogates with it."""
    return json.dumps(body).encode("utf-8", "surrogatepass")
