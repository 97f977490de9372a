"""Sky: weather in, what it comes to, and the hours fit to work."""

from datetime import date

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Path, Router
from ninja.files import UploadedFile

from core.errors import InputError
from greenmeasure.common.answers import ready
from greenmeasure.common.auth import APPLICATOR, MANAGER, VIEWER, club_of, user_of
from greenmeasure.ground.models import Area
from greenmeasure.sky import actions, clocks, files, fit, overview, schools, stations, strip
from greenmeasure.sky.fetching import fetch
from greenmeasure.sky.schemas import ClockOut, FitIn, FitOut, LongOut, SchoolsOut, ScoutOut, SkyDayOut, SkyOut, StripOut
from greenmeasure.sky.station_schemas import (
    FetchOut,
    HandIn,
    HandOut,
    KeptOut,
    MappingIn,
    RhythmIn,
    RhythmOut,
    ScoutIn,
    StationIn,
    StationsOut,
    TakenOut,
    WatchesOut,
    WatchIn,
)
from greenmeasure.sky.weather import station_of

router = Router(tags=["sky"])
WEEKS = {2, 5, 10, 17}


@router.get("", response=SkyOut, auth=VIEWER)
def get_sky(request: HttpRequest, club: Path[str]) -> SkyOut:
    """The state of the sky in a sentence, the days to come, and every watched disease that is near its threshold."""
    return overview.sky(club_of(request))


@router.get("/strip", response=StripOut, auth=VIEWER)
def get_strip(request: HttpRequest, club: Path[str], area_id: int, weeks: int = 5) -> StripOut:
    """An area on one time axis: weather, risks, covers, scout reports, clocks."""
    if weeks not in WEEKS:
        raise InputError("weeks", weeks, f"{weeks} weeks are not offered.", f"Pick one of {', '.join(map(str, sorted(WEEKS)))}.")
    return strip.strip(club_of(request), area_id, weeks)


@router.get("/day", response=SkyDayOut, auth=VIEWER)
def get_sky_day(request: HttpRequest, club: Path[str], area_id: int, on: date) -> SkyDayOut:
    """A day unfolded into its hours, and how each model came to its value."""
    return strip.sky_day(club_of(request), area_id, on)


@router.get("/long", response=LongOut, auth=VIEWER)
def get_long_series(request: HttpRequest, club: Path[str], field: str = "air") -> HttpResponse:
    """One field of all that is known, hour by hour."""
    return ready(strip.long_series(club_of(request), field))


@router.get("/clocks", response=list[ClockOut], auth=VIEWER)
def get_clocks(request: HttpRequest, club: Path[str]) -> list[ClockOut]:
    """Where each regulator stands on each area."""
    return clocks.all_clocks(club_of(request))


@router.post("/hours", response=FitOut, auth=VIEWER)
def fit_hours(request: HttpRequest, club: Path[str], data: FitIn) -> FitOut:
    """Hours fit to put down a product, or a tank of several, on an area."""
    return fit.fit(club_of(request), data)


@router.get("/schools", response=SchoolsOut, auth=VIEWER)
def get_schools(request: HttpRequest, club: Path[str], area_id: int, disease: str, year: int | None = None) -> SchoolsOut:
    """The calendar and the threshold school over a season that has been."""
    return schools.schools(club_of(request), area_id, disease, year)


# --- where weather comes from -----------------------------------------------------------------------------------


@router.get("/station", response=StationsOut, auth=VIEWER)
def get_station(request: HttpRequest, club: Path[str]) -> StationsOut:
    """The club's station with what came of it."""
    return stations.stations_out(club_of(request))


@router.put("/station", response=StationsOut, auth=MANAGER)
def save_station(request: HttpRequest, club: Path[str], data: StationIn) -> StationsOut:
    """Set the club's station up, or change it."""
    found = club_of(request)
    actions.save_station(found, data, station_of(found))
    return stations.stations_out(found)


@router.post("/station/fetch", response=FetchOut, auth=APPLICATOR)
def fetch_now(request: HttpRequest, club: Path[str]) -> FetchOut:
    """Ask the station's services now; what fails is told in the answer."""
    return stations.fetch_out(fetch(actions.station_in(club_of(request))))


@router.post("/station/preview", response=TakenOut, auth=MANAGER)
def preview_weather(
    request: HttpRequest, club: Path[str], file: File[UploadedFile], mapping: Form[str] = "", year: Form[int | None] = None
) -> TakenOut:
    """What a file of weather would come to; nothing is kept. `mapping` is a MappingIn as JSON, guessed where it is empty."""
    return files.taken_out(club_of(request), _read(request, file, mapping, year))


@router.post("/station/keep", response={201: KeptOut}, auth=MANAGER)
def keep_weather(
    request: HttpRequest, club: Path[str], file: File[UploadedFile], mapping: Form[str] = "", year: Form[int | None] = None
) -> tuple[int, KeptOut]:
    """Keep a file of weather: all of it that can be, or nothing where something stands against the whole."""
    return 201, files.keep_file(club_of(request), _read(request, file, mapping, year))


def _read(request: HttpRequest, file: UploadedFile, mapping: str, year: int | None) -> files.Read:
    given = MappingIn.model_validate_json(mapping) if mapping else None
    return files.read_file(club_of(request), file.name or "file", file.read(), given, year)


@router.post("/readings", response={201: HandOut}, auth=APPLICATOR)
def add_hand_reading(request: HttpRequest, club: Path[str], data: HandIn) -> tuple[int, HandOut]:
    """Keep a reading by hand: a rain gauge, a soil thermometer, a leaf, snow."""
    return 201, stations.hand_out(actions.add_by_hand(club_of(request), user_of(request), data))


@router.delete("/readings/{reading_id}", response={204: None}, auth=APPLICATOR)
def remove_hand_reading(request: HttpRequest, club: Path[str], reading_id: int) -> tuple[int, None]:
    """Take a reading by hand back."""
    actions.remove_by_hand(club_of(request), reading_id)
    return 204, None


# --- how areas are watched --------------------------------------------------------------------------------------


@router.get("/areas/{area_id}/watch", response=WatchesOut, auth=VIEWER)
def get_watches(request: HttpRequest, club: Path[str], area_id: int) -> WatchesOut:
    """How an area is watched, disease by disease, and what comes back on it every week."""
    return stations.watches_out(club_of(request), area_id)


@router.put("/areas/{area_id}/watch/{disease}", response=WatchesOut, auth=MANAGER)
def save_watch(request: HttpRequest, club: Path[str], area_id: int, disease: str, data: WatchIn) -> WatchesOut:
    """Say how an area is watched for a disease."""
    found = club_of(request)
    actions.save_watch(Area.objects.one(found, area_id), disease, data)
    found.refresh_from_db()
    return stations.watches_out(found, area_id)


@router.post("/scouting", response={201: ScoutOut}, auth=APPLICATOR)
def add_scouting(request: HttpRequest, club: Path[str], data: ScoutIn) -> tuple[int, ScoutOut]:
    """Keep a scout report."""
    return 201, strip.scout_out(actions.add_scouting(club_of(request), user_of(request), data))


@router.delete("/scouting/{scouting_id}", response={204: None}, auth=APPLICATOR)
def remove_scouting(request: HttpRequest, club: Path[str], scouting_id: int) -> tuple[int, None]:
    """Take a scout report back."""
    actions.remove_scouting(club_of(request), scouting_id)
    return 204, None


@router.post("/rhythms", response={201: RhythmOut}, auth=MANAGER)
def add_rhythm(request: HttpRequest, club: Path[str], data: RhythmIn) -> tuple[int, RhythmOut]:
    """Keep a weekly mowing, watering, or hours that the club keeps free."""
    return 201, stations.rhythm_out(actions.add_rhythm(club_of(request), data))


@router.delete("/rhythms/{rhythm_id}", response={204: None}, auth=MANAGER)
def remove_rhythm(request: HttpRequest, club: Path[str], rhythm_id: int) -> tuple[int, None]:
    """Take a weekly one back."""
    actions.remove_rhythm(club_of(request), rhythm_id)
    return 204, None
