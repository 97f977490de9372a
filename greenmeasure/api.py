"""The API: one router a place, errors of one shape, an OpenAPI document that the front end's client is made from."""

from functools import cache
from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI, Schema
from ninja.errors import ValidationError, ValidationErrorContext
from ninja.openapi.schema import OpenAPISchema

from greenmeasure.accounts.api import house, members, session, sites
from greenmeasure.archive.api import account_router as account_archive
from greenmeasure.archive.api import router as archive
from greenmeasure.book.api import router as book
from greenmeasure.common import errors
from greenmeasure.common.bounds import BoundedParser
from greenmeasure.ground.api import router as ground
from greenmeasure.kit.api import router as kit
from greenmeasure.kit.api import vessels_router as vessels
from greenmeasure.outcomes.api import router as outcomes
from greenmeasure.outings.api import public as calendars
from greenmeasure.outings.api import router as outings
from greenmeasure.passes.api import router as passes
from greenmeasure.planner.api import router as plans
from greenmeasure.programme.api import router as programme
from greenmeasure.proof.api import router as proof
from greenmeasure.reckon.api import mixes_router as mixes
from greenmeasure.reckon.api import router as reckon
from greenmeasure.rounds.api import router as rounds
from greenmeasure.scouting.api import area_router as eyes
from greenmeasure.scouting.api import photos_router as photos
from greenmeasure.scouting.api import router as scouting
from greenmeasure.season.api import router as season
from greenmeasure.shelf.api import router as shelf
from greenmeasure.sky.api import router as sky
from greenmeasure.stores.api import router as stores
from greenmeasure.story.api import router as story
from greenmeasure.today.api import router as today
from greenmeasure.trials.api import router as trials
from greenmeasure.water.api import router as water
from greenmeasure.work.api import router as work


class Api(NinjaAPI):
    """Names operations by their function, and tells of the one error shape at every door."""

    def validation_error_from_error_contexts(self, error_contexts: list[ValidationErrorContext[Any]]) -> ValidationError:
        """What ninja makes of pydantic's errors, with the values at fault, which it leaves out."""
        wrong = super().validation_error_from_error_contexts(error_contexts)
        given = [e["input"] for c in error_contexts for e in c.pydantic_validation_error.errors(include_url=False)]
        for error, value in zip(wrong.errors, given, strict=True):
            error["input"] = value
        return wrong

    def get_openapi_operation_id(self, operation) -> str:  # type: ignore[no-untyped-def]
        return str(operation.view_func.__name__)

    @cache  # noqa: B019 - there is one API in a process
    def get_openapi_schema(self, **kwargs) -> OpenAPISchema:  # type: ignore[no-untyped-def, override]
        """The document, which takes seconds to make, and is for reading only."""
        schema = super().get_openapi_schema(**kwargs)
        schema["components"]["schemas"]["ErrorOut"] = errors.ErrorOut.model_json_schema(
            ref_template="#/components/schemas/{model}"
        )
        for name, definition in schema["components"]["schemas"]["ErrorOut"].pop("$defs", {}).items():
            schema["components"]["schemas"].setdefault(name, definition)
        answer = {"content": {"application/json": {"schema": {"$ref": "#/components/schemas/ErrorOut"}}}}
        for path in schema["paths"].values():
            for operation in path.values():
                operation["responses"]["default"] = {"description": "Anything else", **answer}
                told = operation["responses"].get(200, {}).get("content", {})
                if len(told) > 1 and "application/x-ndjson" in told:
                    del told["application/json"]  # a line for each thing, and never all as one
        return schema


api = Api(title="Green Measure", version="1", docs_url=None, openapi_url="/openapi.json", parser=BoundedParser())
errors.install(api)


class Health(Schema):
    """Whether the server answers."""

    ok: bool


@api.get("/health", response=Health, auth=None, tags=["health"])
def health(request: HttpRequest) -> Health:
    """Whether the server answers; touches nothing."""
    return Health(ok=True)


api.add_router("", session)
api.add_router("", archive)
api.add_router("", calendars)
ACCOUNT = "/accounts/{account}"
api.add_router(ACCOUNT, account_archive)
api.add_router(f"{ACCOUNT}/today", today)
api.add_router(f"{ACCOUNT}/members", members)
api.add_router(f"{ACCOUNT}/house", house)
api.add_router(f"{ACCOUNT}/sites", sites)
api.add_router(f"{ACCOUNT}/areas", ground)
api.add_router(ACCOUNT, water)
api.add_router(ACCOUNT, story)
api.add_router(f"{ACCOUNT}/works", work)
api.add_router(f"{ACCOUNT}/areas", eyes)
api.add_router(f"{ACCOUNT}/photos", photos)
api.add_router(f"{ACCOUNT}/scouting", scouting)
api.add_router(f"{ACCOUNT}/products", shelf)
api.add_router(f"{ACCOUNT}/machines", kit)
api.add_router(f"{ACCOUNT}/vessels", vessels)
api.add_router(f"{ACCOUNT}/reckon", reckon)
api.add_router(f"{ACCOUNT}/mixes", mixes)
api.add_router(f"{ACCOUNT}/passes", passes)
api.add_router(f"{ACCOUNT}/sky", sky)
api.add_router(f"{ACCOUNT}/season", season)
api.add_router(f"{ACCOUNT}/rounds", rounds)
api.add_router(f"{ACCOUNT}/book", book)
api.add_router(f"{ACCOUNT}/proof", proof)
api.add_router(f"{ACCOUNT}/trials", trials)
api.add_router(f"{ACCOUNT}/programme", programme)
api.add_router(f"{ACCOUNT}/outings", outings)
api.add_router(f"{ACCOUNT}/plans", plans)
api.add_router(f"{ACCOUNT}/outcomes", outcomes)
api.add_router(f"{ACCOUNT}/stores", stores)
