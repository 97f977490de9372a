"""The plan that is made."""

from collections.abc import Generator, Iterator

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import MANAGER, VIEWER, account_of, user_of
from greenmeasure.common.answers import sends_lines
from greenmeasure.planner import actions, queries
from greenmeasure.planner.facts import ask_in
from greenmeasure.planner.making import made
from greenmeasure.planner.schemas import PlanAskIn, PlanEventOut, PlanOptionsOut, PlanTakeIn
from greenmeasure.programme.queries import programme
from greenmeasure.programme.schemas import ProgrammeOut

router = Router(tags=["plans"])


@router.get("/options", response=PlanOptionsOut, auth=VIEWER)
def read_plan_options(request: HttpRequest, account: Path[str]) -> PlanOptionsOut:
    """What the form of a plan begins with."""
    return queries.options(account_of(request))


@router.post("/make", response=PlanEventOut, auth=VIEWER, openapi_extra=sends_lines("PlanEventOut"))
def make_plan(request: HttpRequest, account: Path[str], data: PlanAskIn) -> StreamingHttpResponse:
    """Make a plan; nothing is kept. The answer is a line of JSON for each `PlanEventOut`: how far it is, and at its end the plan.

    It ends where nobody listens any more.
    """
    found = account_of(request)
    answer = StreamingHttpResponse(_lines(made(found, ask_in(found, data))), content_type="application/x-ndjson")
    answer["Content-Encoding"] = "identity"  # packed it would be held back until there is enough of it
    answer["X-Accel-Buffering"] = "no"
    return answer


def _lines(events: Generator[PlanEventOut, None, None]) -> Iterator[bytes]:
    try:
        for event in events:
            yield event.model_dump_json(exclude_none=True).encode() + b"\n"
    finally:
        events.close()


@router.post("/take", response={201: ProgrammeOut}, auth=MANAGER)
def take_plan(request: HttpRequest, account: Path[str], data: PlanTakeIn) -> tuple[int, ProgrammeOut]:
    """Keep a plan as steps of the programme, in the place of those that a plan made before."""
    found = account_of(request)
    actions.take(found, user_of(request), data)
    return 201, programme(found, data.ask.year)
