"""What was seen on the ground."""

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Path, Router
from ninja.files import UploadedFile

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against
from greenmeasure.ground.queries import area_of
from greenmeasure.scouting import actions, followups, queries
from greenmeasure.scouting.schemas import (
    AfterOut,
    ColourOut,
    EyesOut,
    FollowUpIn,
    FollowUpOut,
    LooksOut,
    PairOut,
    PhotoIn,
    PhotoOut,
    ScoutIn,
    ScoutOut,
    SpotIn,
    SpotOut,
    WhyIn,
)

router = Router(tags=["scouting"])
photos_router = Router(tags=["scouting"])
area_router = Router(tags=["scouting"])


@router.get("/kinds", response=LooksOut, auth=VIEWER)
def list_looks(request: HttpRequest, account: Path[str]) -> LooksOut:
    """Everything that can be looked for, with the scale it is scored on and what it is mistaken for."""
    return queries.looks(account_of(request))


@router.post("", response={201: ScoutOut}, auth=APPLICATOR)
def add_scouting(request: HttpRequest, account: Path[str], data: ScoutIn) -> tuple[int, ScoutOut]:
    """Keep a scout report."""
    return 201, queries.scout_out(actions.add_scouting(account_of(request), user_of(request), data))


@router.post("/{report_id}/strike", response=ScoutOut, auth=APPLICATOR)
def strike_scouting(request: HttpRequest, account: Path[str], report_id: Id, data: WhyIn) -> ScoutOut:
    """Strike a report with a reason; it stays readable."""
    return queries.scout_out(actions.strike_scouting(account_of(request), user_of(request), report_id, data.why))


@router.get("/after/{application_id}", response=AfterOut, auth=VIEWER)
def get_after(request: HttpRequest, account: Path[str], application_id: Id) -> AfterOut:
    """What to expect after an application, when to look, and what was seen."""
    return followups.after(account_of(request), application_id)


@router.post("/followups", response={201: FollowUpOut}, auth=APPLICATOR)
def answer_followup(request: HttpRequest, account: Path[str], data: FollowUpIn) -> tuple[int, FollowUpOut]:
    """Say how it is after an application."""
    return 201, followups.followup_out(actions.answer_followup(account_of(request), user_of(request), data))


@router.post("/followups/{follow_id}/strike", response=FollowUpOut, auth=APPLICATOR)
def strike_followup(request: HttpRequest, account: Path[str], follow_id: Id, data: WhyIn) -> FollowUpOut:
    """Strike what was said of an application, with a reason; it stays readable."""
    found = account_of(request)
    one = followups.followup_of(found, follow_id)
    return followups.followup_out(actions.strike_followup(found, user_of(request), one, data.why))


@area_router.get("/{area_id}/eyes", response=EyesOut, auth=VIEWER)
def get_eyes(request: HttpRequest, account: Path[str], area_id: Id) -> EyesOut:
    """What was seen on an area: spots, photographs, reports."""
    return queries.eyes(account_of(request), area_id)


@area_router.post("/{area_id}/spots", response={201: SpotOut}, auth=APPLICATOR)
def add_spot(request: HttpRequest, account: Path[str], area_id: Id, data: SpotIn) -> tuple[int, SpotOut]:
    """Keep a fixed spot of an area, to be looked at again."""
    found = account_of(request)
    return 201, queries.spot_out(actions.save_spot(found, area_of(found, area_id), data))


@area_router.put("/{area_id}/spots/{spot_id}", response=SpotOut, auth=APPLICATOR)
def change_spot(request: HttpRequest, account: Path[str], area_id: Id, spot_id: Id, data: SpotIn) -> SpotOut:
    """Change a spot's name or place."""
    found = account_of(request)
    with against(data, lambda: queries.spot_out(queries.spot_of(found, spot_id))):
        return queries.spot_out(actions.save_spot(found, area_of(found, area_id), data, queries.spot_of(found, spot_id)))


@area_router.delete("/{area_id}/spots/{spot_id}", response={204: None}, auth=APPLICATOR)
def remove_spot(request: HttpRequest, account: Path[str], area_id: Id, spot_id: Id) -> tuple[int, None]:
    """Look at a spot no more; its photographs stay."""
    actions.remove_spot(account_of(request), spot_id)
    return 204, None


@area_router.post("/{area_id}/photos", response={201: PhotoOut}, auth=APPLICATOR)
def add_photo(
    request: HttpRequest, account: Path[str], area_id: Id, file: File[UploadedFile], told: Form[PhotoIn]
) -> tuple[int, PhotoOut]:
    """Keep a photograph of an area: sized down, its place removed and its time kept."""
    found = account_of(request)
    area = area_of(found, area_id)
    return 201, queries.photo_out(actions.add_photo(found, user_of(request), area, file.name or "photograph", file.read(), told))


@photos_router.get("/pair", response=PairOut, auth=VIEWER)
def get_pair(request: HttpRequest, account: Path[str], a: Id, b: Id) -> PairOut:
    """Two photographs beside each other, and what makes them hard to compare."""
    return queries.pair(account_of(request), a, b)


@photos_router.get("/{photo_id}/picture", auth=VIEWER, openapi_extra=sends("image/jpeg"))
def get_picture(request: HttpRequest, account: Path[str], photo_id: Id, small: bool = False) -> HttpResponse:
    """A photograph's file, whole or small."""
    return _picture(queries.file(queries.photo_of(account_of(request), photo_id), small), "image/jpeg")


@photos_router.get("/{photo_id}/mask", auth=VIEWER, openapi_extra=sends("image/png"))
def get_mask(request: HttpRequest, account: Path[str], photo_id: Id) -> HttpResponse:
    """A photograph in which what does not count as green turf is faded."""
    return _picture(queries.masked(queries.photo_of(account_of(request), photo_id)), "image/png")


@photos_router.get("/{photo_id}/colour", response=ColourOut, auth=VIEWER)
def get_colour(request: HttpRequest, account: Path[str], photo_id: Id) -> ColourOut:
    """What a photograph says of its colour, with what is to be doubted."""
    return queries.colour(queries.photo_of(account_of(request), photo_id))


@photos_router.put("/{photo_id}", response=PhotoOut, auth=APPLICATOR)
def change_photo(request: HttpRequest, account: Path[str], photo_id: Id, data: PhotoIn) -> PhotoOut:
    """Change what is noted of a photograph."""
    found = account_of(request)
    with against(data, lambda: queries.photo_out(queries.photo_of(found, photo_id))):
        return queries.photo_out(actions.change_photo(found, queries.photo_of(found, photo_id), data))


@photos_router.delete("/{photo_id}", response={204: None}, auth=APPLICATOR)
def remove_photo(request: HttpRequest, account: Path[str], photo_id: Id) -> tuple[int, None]:
    """Remove a photograph for good."""
    found = account_of(request)
    actions.remove_photo(found, queries.photo_of(found, photo_id))
    return 204, None


def _picture(data: bytes, kind: str) -> HttpResponse:
    """A picture that a browser keeps for itself: what is under its address never changes."""
    answer = HttpResponse(data, content_type=kind)
    answer["Content-Disposition"] = "inline"
    answer["X-Content-Type-Options"] = "nosniff"
    answer["Content-Security-Policy"] = "default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; sandbox"
    answer["Cache-Control"] = "private, max-age=86400, immutable"
    return answer
