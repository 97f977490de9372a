"""Wrong requests at every operation: none may break the server, and every answer is of the shape that the document tells.

Each operation is tried just before the season's story asks for it, so that its sound request would be answered well; whatever
a wrong one did is undone. Where one was taken for good, every screen is read before it is undone: what was let in may not
take a screen down.
"""

import json
import re
import sys
import traceback
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import UTC, datetime
from functools import cached_property
from pathlib import Path
from threading import Thread
from typing import Any
from unittest.mock import patch
from urllib.parse import quote, urlencode

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client
from jsonschema import Draft202012Validator

from greenmeasure.accounts.models import User
from greenmeasure.api import api
from greenmeasure.sky.fetching import fetch, wanted
from greenmeasure.tests.base import make_account
from sims.weather_service import Service
from stress.mutate import BODIES, IDS, QUERIES, Wrong, as_json
from stress.story import Call, the_season

SCREENS = (
    "read_today",
    "get_due",
    "export_due",
    "get_sky",
    "get_strip",
    "list_areas",
    "list_products",
    "list_machines",
    "read_book",
    "list_tasks",
)
ANSWER = 900
"""Characters of an answer that are shown."""


@dataclass(frozen=True)
class Answer:
    """An answer as it came."""

    status: int
    kind: str
    content: bytes
    broke: str = ""


@dataclass(frozen=True)
class Operation:
    """One operation of the document."""

    name: str
    method: str
    path: str
    body: dict[str, Any] | None
    answers: dict[str, Any]


class Document:
    """The API's document, as far as answers are held against it."""

    def __init__(self) -> None:
        self.text = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api")))
        self.components: dict[str, Any] = self.text["components"]["schemas"]
        self.operations = {o.name: o for o in self._operations()}

    def _operations(self) -> Iterator[Operation]:
        for path, methods in self.text["paths"].items():
            for method, told in methods.items():
                content = told.get("requestBody", {}).get("content", {})
                body = content.get("application/json", {}).get("schema")
                yield Operation(told["operationId"], method.upper(), re.sub(r"^/api/?", "/api/", path), body, told["responses"])

    @cached_property
    def _validators(self) -> dict[str, Draft202012Validator]:
        return {}

    def problem(self, operation: Operation, answer: Answer) -> str:
        """How an answer is not what the document tells; empty where it is."""
        status, content, kind = answer.status, answer.content, answer.kind
        if status >= 500:
            return f"answered {status}, {answer.broke}"
        told = operation.answers.get(str(status)) or operation.answers["default"]
        schemas = {k: c.get("schema") for k, c in told.get("content", {}).items()}
        if not schemas:
            return f"{len(content)} bytes where none are told" if content else ""
        if kind not in schemas:
            return f"answered {status} as {kind or 'nothing'}, told as {', '.join(schemas)}"
        if kind not in ("application/json", LINES):
            return ""
        try:
            values = [
                json.loads(part, parse_constant=_no_number) for part in (content.splitlines() if kind == LINES else [content])
            ]
        except ValueError as wrong:
            return f"answered {status} with what is no JSON: {wrong}"
        key = json.dumps(schemas[kind], sort_keys=True)
        if key not in self._validators:
            self._validators[key] = Draft202012Validator({**schemas[kind], "components": {"schemas": self.components}})
        wrong_at = next((w for value in values for w in self._validators[key].iter_errors(value)), None)
        return f"answered {status} not as told: {wrong_at.json_path}: {wrong_at.message[:200]}" if wrong_at else ""


LINES = "application/x-ndjson"
"""The kind of an answer that comes as a line of JSON for each thing."""


def _broke(raised: Any) -> str:
    """What was raised, and where in the house."""
    if not raised:
        return ""
    frames = [f for f in traceback.extract_tb(raised[2]) if "site-packages" not in f.filename and "/lib/python" not in f.filename]
    where = f"{Path(frames[-1].filename).name}:{frames[-1].lineno}" if frames else "outside the house"
    return f"{raised[0].__name__} at {where}: {str(raised[1])[:120]}"


def _no_number(text: str) -> float:
    raise ValueError(f"{text} is no JSON number")


@dataclass
class Found:
    """What a run came to."""

    calls: int = 0
    statuses: Counter[int] = field(default_factory=Counter)
    told_well: set[str] = field(default_factory=set)
    problems: dict[str, str] = field(default_factory=dict)

    def note(self, what: str, shown: str) -> None:
        self.problems.setdefault(what, shown)


NOW = datetime(2026, 8, 12, 10, 20, tzinfo=UTC)
"""The moment of the story: a humid August morning."""


@contextmanager
def the_world() -> Iterator[str]:
    """An account `alder` with its people and nothing else, at the story's moment; gives where the simulated weather answers."""
    account = make_account("alder")
    for kind in (account.areas, account.products, account.machines):
        kind.all().delete()
    service = Service(now=NOW)
    Thread(target=service.serve_forever, daemon=True).start()
    try:
        with patch("greenmeasure.common.clock.now", return_value=NOW):
            yield service.url
    finally:
        service.shutdown()
        service.server_close()


class Fuzz:
    """The story told by clients of an account, with `tries` wrong requests before each of its steps."""

    def __init__(self, service: str, tries: int, seed: int = 1) -> None:
        self.document = Document()
        self.wrong = Wrong(seed, self.document.components)
        self.story = the_season(service, NOW)
        self.tries = tries
        self.found = Found()
        self.screens: dict[str, Call] = {}

    def run(self) -> Found:
        """Tell the story to its end. Needs a database that holds the account `alder` alone."""
        assert self.manager.session.session_key, "the manager is signed in before anything is undone"
        answer: Any = None
        while True:
            try:
                call = self.story.send(answer)
            except StopIteration:
                return self.found
            for _ in range(self.tries):
                self.try_wrong(call)
            answer = self.told(call)

    # --- sound requests

    def told(self, call: Call) -> Any:
        """What a sound request is answered; that it is not well answered is a problem."""
        operation = self.document.operations[call.operation]
        answer = self.ask(call)
        problem = self.document.problem(operation, answer)
        if not 200 <= answer.status < 300:
            problem = problem or f"answered {answer.status}"
        if problem:
            raise AssertionError(f"The story stops at {call.operation}: {problem}: {answer.content[:ANSWER]!r}")
        self.found.told_well.add(call.operation)
        if call.operation == "fetch_now":
            for station in wanted():
                fetch(station)
        if operation.method == "GET":
            self.screens[call.operation] = call
        if answer.kind == "application/zip":
            return answer.content
        text = answer.content.decode("utf-8", "replace")
        if answer.kind == LINES:
            return [json.loads(part) for part in text.splitlines()]
        return json.loads(text) if answer.kind == "application/json" and text else text

    # --- wrong ones

    def try_wrong(self, call: Call) -> None:
        """Send one wrong request, and undo what it did."""
        operation = self.document.operations[call.operation]
        path, query, body, call = self.made_wrong(call, operation)
        with transaction.atomic():
            answer = self.send(call, operation, path, query, body)
            self.found.calls += 1
            self.found.statuses[answer.status] += 1
            shown = f"{operation.method} {path}?{query} {body[:ANSWER]!r} → {answer.content[:ANSWER]!r}"
            if problem := self.document.problem(operation, answer):
                self.found.note(f"{call.operation}: {problem}", shown)
            if operation.method != "GET" and answer.status < 300 and call.who == "manager":
                self.read_screens(call, shown)
            transaction.set_rollback(True)

    def read_screens(self, after: Call, shown: str) -> None:
        """Read every screen that the story has opened before."""
        for name in SCREENS:
            if call := self.screens.get(name):
                answer = self.ask(call)
                if answer.status >= 500:
                    self.found.note(f"{name} after {after.operation}: answered {answer.status}, {answer.broke}", shown)

    def made_wrong(self, call: Call, operation: Operation) -> tuple[str, str, bytes, Call]:
        """Path, query and body of a request like this one that is wrong somewhere."""
        chance = self.wrong.random.random
        path, query, body = dict(call.path), urlencode(call.query), as_json(call.body) if call.body is not None else b""
        where = chance()
        if operation.body is not None and where < 0.85:
            how = chance()
            if how < 0.65 and call.body:
                body = as_json(self.wrong.changed(call.body))
            elif how < 0.92:
                body = as_json(self.wrong.grown(operation.body))
            else:
                body = self.wrong.random.choice(BODIES)
        elif call.file is not None and where < 0.85:
            call = self.wrong_file(call)
        elif where < 0.92 and (call.query or operation.method == "GET"):
            query = self.wrong_query(call)
        else:
            for key in path:
                path[key] = self.wrong.random.choice(IDS)
            if not path:
                query = self.wrong.random.choice(QUERIES)
        return self.path(operation, path), query, body, call

    def wrong_query(self, call: Call) -> str:
        given = (
            {k: str(self.wrong.near(v)) for k, v in call.query.items()} if self.wrong.random.random() < 0.6 else dict(call.query)
        )
        return "&".join((urlencode(given, errors="surrogatepass"), self.wrong.random.choice(QUERIES)))

    def wrong_file(self, call: Call) -> Call:
        from dataclasses import replace

        assert call.file is not None
        content, rnd = call.file.content, self.wrong.random
        cut = rnd.randrange(len(content))
        line = content.splitlines()
        content = rnd.choice(
            (
                b"", content[:cut], content[cut:], content.replace(b"\n", b"\r"), content + b"\x00" * 9, b"\xff" * 50,
                content.replace(b",", b";"), line[0] + b"\n" + b"x" * 200_000, line[0] + b"\n" + b"9" * 5000 + b",1,1,1,1\n",
                content.replace(b"2026", b"0001"), content.replace(b"2026", b"9999"), content.replace(b"2", b"nan"),
                line[0] * 300, b'"' * 5000, b"a,b\n" * 20, b"%PDF-1.4 no pdf", b"GIF89a",
            )
        )  # fmt: skip
        if isinstance(call.body, dict):
            extra = {
                k: rnd.choice(("garbage", "{}", "[]", "1", '{"columns": 1}', '{"time": "x", "zone": "America", "columns": {}}'))
                for k in call.body
            }
            extra["year"] = rnd.choice(("", "0", "-1", "9999", "2026", "x", "9" * 30))
        else:
            extra = call.body
        return replace(
            call,
            file=replace(call.file, content=content, kind=rnd.choice((call.file.kind, "image/jpeg", "application/pdf"))),
            body=extra,
        )

    # --- sending

    def ask(self, call: Call) -> Answer:
        """Send a call as it stands."""
        operation = self.document.operations[call.operation]
        body = b"" if call.body is None else as_json(call.body)
        return self.send(call, operation, self.path(operation, call.path), urlencode(call.query), body)

    def path(self, operation: Operation, given: dict[str, Any]) -> str:
        filled = operation.path.replace("{account}", "alder")
        return re.sub(r"\{(\w+)\}", lambda m: quote(str(given[m[1]]), safe="%", errors="surrogatepass"), filled)

    def client(self, who: str) -> Client:
        client = Client(raise_request_exception=False)
        if who == "twice":
            self.client("guest")
        if who != "stranger":
            user = User.objects.get(username="manager-alder" if who == "manager" else "viewer-alder")
            client.force_login(user, "django.contrib.auth.backends.ModelBackend")
        return client

    @cached_property
    def manager(self) -> Client:
        return self.client("manager")

    def send(self, call: Call, operation: Operation, path: str, query: str, body: bytes) -> Answer:
        client = self.manager if call.who == "manager" else self.client(call.who)
        where = f"{path}?{query}" if query else path
        if call.file is not None:
            form = {k: v for k, v in (call.body or {}).items() if v != ""}
            answer: Any = client.post(
                where, form | {"file": SimpleUploadedFile(call.file.name, call.file.content, call.file.kind)}
            )
        else:
            sent = body if operation.body is not None else b""
            answer = client.generic(operation.method, where, sent, content_type="application/json")
        kind = answer.headers.get("Content-Type", "").split(";")[0]
        try:
            content = b"".join(answer) if answer.streaming else answer.content
        except Exception:  # a stream that breaks has been begun as a 200
            return Answer(500, kind, b"", _broke(sys.exc_info()))
        return Answer(answer.status_code, kind, content, _broke(getattr(answer, "exc_info", None)))
