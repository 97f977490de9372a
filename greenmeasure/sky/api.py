"""Sky: weather in, what it comes to, and the hours fit to work."""

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Path, Router
from ninja.files import UploadedFile

from core.errors import InputError
from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of, user_of
from greenmeasure.accounts.models import Site
from greenmeasure.accounts.sites import site_of
from greenmeasure.common.answers import ready
from greenmeasure.common.bounds import FIRST_DAY, LAST_DAY, Day, Id, Word, read_json, shaped
from greenmeasure.common.clock import moment_at
from greenmeasure.common.versions import against
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.sky import actions, clocks, files, fit, locks, overview, schools, stations, strip
from greenmeasure.sky.schemas import ClockOut, FitIn, FitOut, HoldIn, LockOut, LongOut, SchoolsOut, SkyDayOut, SkyOut, StripOut
from greenmeasure.sky.station_schemas import (
    HandIn,
    HandOut,
    KeptOut,
    MappingIn,
    RhythmIn,
    RhythmOut,
    StationIn,
    StationOut,
    StationsOut,
    TakenOut,
    WatchesOut,
    WatchIn,
    WatchOut,
)
from greenmeasure.sky.weather import station_of

router = Router(tags=["sky"])
WEEKS = {2, 5, 10, 17}


@router.get("", response=SkyOut, auth=VIEWER)
def get_sky(request: HttpRequest, account: Path[str], site_id: Id | None = None) -> SkyOut:
    """The state of a site's sky in a sentence, the days to come, and every watched disease that is near its threshold."""
    found = account_of(request)
    return overview.sky(found, site_of(found, site_id))


@router.get("/strip", response=StripOut, auth=VIEWER)
def get_strip(request: HttpRequest, account: Path[str], area_id: Id, weeks: Id = 5) -> StripOut:
    """An area on one time axis: weather, risks, covers, scout reports, clocks."""
    if weeks not in WEEKS:
        raise InputError("weeks", weeks, f"{weeks} weeks are not offered.", f"Pick one of {', '.join(map(str, sorted(WEEKS)))}.")
    return strip.strip(account_of(request), area_id, weeks)


@router.get("/day", response=SkyDayOut, auth=VIEWER)
def get_sky_day(request: HttpRequest, account: Path[str], area_id: Id, on: Day) -> SkyDayOut:
    """A day unfolded into its hours, and how each model came to its value."""
    return strip.sky_day(account_of(request), area_id, on)


@router.get("/long", response=LongOut, auth=VIEWER)
def get_long_series(request: HttpRequest, account: Path[str], field: Word = "air", site_id: Id | None = None) -> HttpResponse:
    """One field of all that is known of a site, hour by hour."""
    return ready(strip.long_series(site_of(account_of(request), site_id), field))


@router.get("/clocks", response=list[ClockOut], auth=VIEWER)
def get_clocks(request: HttpRequest, account: Path[str]) -> list[ClockOut]:
    """Where each regulator stands on each area."""
    return clocks.all_clocks(account_of(request))


@router.get("/locks", response=list[LockOut], auth=VIEWER)
def get_locks(
    request: HttpRequest, account: Path[str], area_id: Id | None = None, on: Day | None = None, hour: Word = ""
) -> list[LockOut]:
    """What must not happen on the ground now, or at another time, and until when; of one area, or of each on its own."""
    found = account_of(request)
    where = area_of(found, area_id) if area_id is not None else found
    return locks.locks(found, moment_at(where, on, hour), area_id)


@router.post("/hours", response=FitOut, auth=VIEWER)
def fit_hours(request: HttpRequest, account: Path[str], data: FitIn) -> FitOut:
    """Hours fit to put down a product, or a tank of several, on an area."""
    return fit.fit(account_of(request), data)


@router.get("/schools", response=SchoolsOut, auth=VIEWER)
def get_schools(request: HttpRequest, account: Path[str], area_id: Id, disease: Word, year: Id | None = None) -> SchoolsOut:
    """The calendar and the threshold school over a season that has been."""
    return schools.schools(account_of(request), area_id, disease, year)


# --- where weather comes from -----------------------------------------------------------------------------------


@router.get("/station", response=StationsOut, auth=VIEWER)
def get_station(request: HttpRequest, account: Path[str], site_id: Id | None = None) -> StationsOut:
    """A site's station with what came of it."""
    return stations.stations_out(site_of(account_of(request), site_id))


@router.put("/station", response=StationsOut, auth=MANAGER)
def save_station(request: HttpRequest, account: Path[str], data: StationIn, site_id: Id | None = None) -> StationsOut:
    """Set a site's station up, or change it."""
    site = site_of(account_of(request), site_id)

    def stands() -> StationOut:
        return stations.station_out(actions.station_in(site))

    with against(data, stands):
        actions.save_station(site, data, station_of(site))
    return stations.stations_out(site)


@router.post("/station/fetch", response=StationsOut, auth=APPLICATOR)
def fetch_now(request: HttpRequest, account: Path[str], site_id: Id | None = None) -> StationsOut:
    """Want the station's hours now. The fetching process asks for them; how far it is stands in `asking`."""
    site = site_of(account_of(request), site_id)
    actions.want(actions.station_in(site))
    return stations.stations_out(site)


@router.post("/station/preview", response=TakenOut, auth=MANAGER)
def preview_weather(
    request: HttpRequest,
    account: Path[str],
    file: File[UploadedFile],
    mapping: Form[str] = "",
    year: Form[int | None] = None,
    site_id: Id | None = None,
) -> TakenOut:
    """What a file of weather would come to; nothing is kept. `mapping` is a MappingIn as JSON, guessed where it is empty."""
    site = site_of(account_of(request), site_id)
    return files.taken_out(site, _read(site, file, mapping, year))


@router.post("/station/keep", response={201: KeptOut}, auth=MANAGER)
def keep_weather(
    request: HttpRequest,
    account: Path[str],
    file: File[UploadedFile],
    mapping: Form[str] = "",
    year: Form[int | None] = None,
    site_id: Id | None = None,
) -> tuple[int, KeptOut]:
    """Keep a file of weather: all of it that can be, or nothing where something stands against the whole."""
    site = site_of(account_of(request), site_id)
    return 201, files.keep_file(site, _read(site, file, mapping, year))


def _read(site: Site, file: UploadedFile, mapping: str, year: int | None) -> files.Read:
    if year is not None and not FIRST_DAY.year <= year <= LAST_DAY.year:
        raise InputError("year", year, f"{year} is no year to lay weather in.", "Give one of these years.")
    given = shaped(MappingIn, read_json(mapping, "mapping"), "mapping") if mapping else None
    return files.read_file(site, file.name or "file", file.read(), given, year)


@router.post("/readings", response={201: HandOut}, auth=APPLICATOR)
def add_hand_reading(request: HttpRequest, account: Path[str], data: HandIn) -> tuple[int, HandOut]:
    """Keep a reading by hand: a rain gauge, a soil thermometer, a leaf, snow."""
    return 201, stations.hand_out(actions.add_by_hand(account_of(request), user_of(request), data))


@router.delete("/readings/{reading_id}", response={204: None}, auth=APPLICATOR)
def remove_hand_reading(request: HttpRequest, account: Path[str], reading_id: Id) -> tuple[int, None]:
    """Take a reading by hand back."""
    actions.remove_by_hand(account_of(request), reading_id)
    return 204, None


# --- how areas are watched --------------------------------------------------------------------------------------


@router.get("/areas/{area_id}/watch", response=WatchesOut, auth=VIEWER)
def get_watches(request: HttpRequest, account: Path[str], area_id: Id) -> WatchesOut:
    """How an area is watched, disease by disease, and what comes back on it every week."""
    return stations.watches_out(account_of(request), area_id)


@router.put("/areas/{area_id}/watch/{disease}", response=WatchesOut, auth=MANAGER)
def save_watch(request: HttpRequest, account: Path[str], area_id: Id, disease: Word, data: WatchIn) -> WatchesOut:
    """Say how an area is watched for a disease."""
    found = account_of(request)

    def stands() -> WatchOut:
        found.refresh_from_db()
        return next(w for w in stations.watches_out(found, area_id).watches if w.disease == disease)

    with against(data, stands):
        actions.save_watch(Area.objects.one(found, area_id), disease, data)
    found.refresh_from_db()
    return stations.watches_out(found, area_id)


@router.put("/areas/{area_id}/holds/{active}", response=list[ClockOut], auth=MANAGER)
def save_hold(request: HttpRequest, account: Path[str], area_id: Id, active: Word, data: HoldIn) -> list[ClockOut]:
    """Set how long a regulator's active holds on an area, in degree days."""
    found = account_of(request)

    def stands() -> HoldIn:
        found.refresh_from_db()
        return clocks.hold_of(found, area_id, active)

    with against(data, stands):
        actions.save_hold(Area.objects.one(found, area_id), active, data)
    found.refresh_from_db()
    return clocks.all_clocks(found)


@router.post("/rhythms", response={201: RhythmOut}, auth=MANAGER)
def add_rhythm(request: HttpRequest, account: Path[str], data: RhythmIn) -> tuple[int, RhythmOut]:
    """Keep a weekly mowing, watering, or hours that a site keeps free."""
    return 201, stations.rhythm_out(actions.add_rhythm(account_of(request), data))


@router.delete("/rhythms/{rhythm_id}", response={204: None}, auth=MANAGER)
def remove_rhythm(request: HttpRequest, account: Path[str], rhythm_id: Id) -> tuple[int, None]:
    """Take a weekly one back."""
    actions.remove_rhythm(account_of(request), rhythm_id)
    return 204, None
