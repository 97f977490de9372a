"""A season in the life of an account, one request after another, so that every operation of the API is asked for once in a
state in which it answers well. All of it is invented.
"""

import base64
import io
import json
from collections.abc import Generator
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, timedelta
from typing import Any

from PIL import Image

PASSWORD = "long enough to pass"
PIXEL = base64.b64decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==")


def shot(green: int) -> "File":
    """A photograph of one green."""
    out = io.BytesIO()
    Image.new("RGB", (40, 30), (60, green, 40)).save(out, "JPEG")
    return File("shot.jpg", out.getvalue(), "image/jpeg")


@dataclass(frozen=True)
class File:
    """A file of a form."""

    name: str
    content: bytes
    kind: str


@dataclass(frozen=True)
class Call:
    """One request by the name of its operation: what fills its path, its query, its body; `who` sends it."""

    operation: str
    path: dict[str, Any] = field(default_factory=dict)
    query: dict[str, Any] = field(default_factory=dict)
    body: Any = None
    file: File | None = None
    who: str = "manager"


Told = Generator[Call, Any, None]


def q(value: float | str, unit: str) -> dict[str, Any]:
    """A quantity as a form sends it."""
    return {"value": value, "unit": unit}


AREA: dict[str, Any] = {"name": "North lawn", "size": q(7000, "ft2"), "grass": "creeping_bentgrass", "height": q("1/2", "in")}
SPRAY: dict[str, Any] = {
    "name": "Test SC",
    "kind": "fungicide",
    "formulation": "SC",
    "density": q(9, "lb/gal"),
    "group_code": "3",
    "contents": [{"name": "tebuconazole", "basis": "active", "amount": 20, "unit": "%"}],
    "rates": [
        {
            "use": "preventive",
            "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft",
            "target": "Dollar spot",
            "interval_low": 14,
            "interval_high": 28,
        }
    ],
    "packages": [{"value": 1, "unit": "gal", "price": "320.00"}],
    "rules": {"rain_after": q(2, "h"), "reentry": q(12, "h"), "wind_high": q(15, "mph"), "applications_per_season": 20},
}
FEED: dict[str, Any] = {
    "name": "Test 20-0-10",
    "kind": "fertiliser",
    "formulation": "GR",
    "contents": [{"name": "N", "basis": "N", "amount": 20, "unit": "%", "slow": 8}],
    "rates": [{"phrase": "0.3 to 0.6 lb N per 1,000 sq ft"}],
    "printed": [{"form": "broadcast", "setting": "6 1/2"}],
}
SPRAYER: dict[str, Any] = {
    "name": "Sprayer",
    "kind": "sprayer",
    "capacity": q(4, "gal"),
    "output": q(1, "gal/kft2"),
    "width": q(5, "ft"),
    "nozzle_size": "04",
}
SPREADER: dict[str, Any] = {"name": "Spreader", "kind": "spreader", "capacity": q(40, "lb"), "width": q(10, "ft")}
RING = [[-71.6, 41.2], [-71.5996, 41.2], [-71.5996, 41.2003], [-71.6, 41.2003], [-71.6, 41.2]]
STRIP = {"method": "strip", "length": q(100, "ft"), "width": q(5, "ft"), "runs": [0.5, 0.52], "unit": "gal", "seconds": [25, 26]}
MEASURE: dict[str, Any] = {"method": "circle", "unit": "ft", "values": {"radius": 40}}
PAST = "date,area,product,machine,used,used_unit\n{on},North lawn,Test SC,Sprayer,3.5,fl oz\n"


def weather_file(days: int, until: datetime) -> bytes:
    """Humid hours by the clock of the sky, as a table."""
    rows = ["time,air [degC],humidity [%],rain [mm],wind [m/s]"]
    begin = until.replace(minute=0, second=0, microsecond=0) - timedelta(days=days)
    for i in range(days * 24):
        at = begin + timedelta(hours=i)
        warm = 20 + 6 * ((at.hour % 24) - 12) / 12
        rows.append(f"{at:%Y-%m-%dT%H:%MZ},{warm:.1f},{88 - at.hour},{0.2 if at.hour == 4 else 0},{1 + at.hour / 12:.1f}")
    return "\n".join((*rows, "")).encode()


def geojson(name: str) -> str:
    """One lawn with its outline, a kilometre or so from the first."""
    ring = [[x + 0.01, y] for x, y in RING]
    lawn = {"name": name, "grass": "kentucky_bluegrass", "size": 900, "size_unit": "m2"}
    feature = {"type": "Feature", "properties": lawn, "geometry": {"type": "Polygon", "coordinates": [ring]}}
    return json.dumps({"type": "FeatureCollection", "features": [feature]})


def the_season(service: str, now: datetime) -> Told:
    """Everything, in an order in which each step finds what it needs. `service` is where the simulated weather answers."""
    today = now.date()
    yield Call("health", who="stranger")
    yield Call("open_account", body=_opened(), who="stranger")
    yield Call("sign_in", body={"username": "manager-alder", "password": PASSWORD}, who="stranger")
    yield Call("look_round", who="guest")
    yield Call("get_session")
    yield Call("sign_out", who="guest")
    yield from _oneself()
    yield from _people()
    site = yield from _places()
    area, corner, bank = yield from _ground(today)
    spray, feed, lot = yield from _shelf(today)
    sprayer, spreader = yield from _kit(spray, feed, today)
    yield from _water(area, today)
    yield from _work(area, today)
    yield from _sky(area, site, spray, service, now)
    yield from _reckoning(area, corner, spray, feed, sprayer, spreader)
    yield from _walking(area, sprayer, spray)
    yield from _rounds(area, bank, spray, sprayer, lot, today)
    yield from _due(area, spray, sprayer, now)
    yield from _programme(area, feed, today)
    yield from _plan(today)
    yield from _outing(today)
    yield Call("save_hold", {"area_id": area, "active": "tebuconazole"}, body={"version": 0, "own": "250", "base": "0"})
    yield from _putting_away(corner, spray, feed, sprayer, spreader)
    yield from _leaving()


def _leaving() -> Told:
    archive = yield Call("export_archive")
    yield Call("import_archive", file=File("alder.zip", archive, "application/zip"))
    guests = yield Call("list_sessions", who="twice")
    yield Call("end_session", {"session_id": next(s["id"] for s in guests if not s["this"])}, who="twice")
    yield Call("close_account", body={"name": "Account alder", "password": PASSWORD})


def _opened() -> dict[str, Any]:
    return {
        "name": "Second",
        "units": "metric",
        "time_zone": "Europe/Oslo",
        "username": "new",
        "full_name": "N",
        "password": PASSWORD,
    }


def _oneself() -> Told:
    yield Call("change_me", body={"full_name": "A manager", "email": "manager@example.org"})
    yield Call("forget_password", body={"username": "nobody"}, who="stranger")
    yield Call("list_sessions")
    yield Call("end_other_sessions")
    yield Call("change_password", body={"old": PASSWORD, "new": "three unrelated words"}, who="guest")


def _people() -> Told:
    yield Call("list_members")
    made = yield Call(
        "add_member", body={"username": "helper", "full_name": "A helper", "password": PASSWORD, "role": "viewer", "site_ids": []}
    )
    member = {"member_id": made["id"]}
    link = yield Call("make_reset_link", member)
    uid, token = link["path"].split("/")[2:]
    yield Call("reset_password", body={"uid": uid, "token": token, "password": "other unrelated words"}, who="stranger")
    yield Call("change_member", member, body={"role": "applicator", "site_ids": [], "version": made["version"]})
    yield Call("remove_member", member)
    house = yield Call("get_house")
    changed = {"answers": house["answers"], "season_start": {"month": 3, "day": 1}, "version": house["version"]}
    yield Call("change_house", body=changed)


def _places() -> Generator[Call, Any, int]:
    sites = yield Call("list_sites")
    closed = [{"what": "N", "start": {"month": 11, "day": 15}, "end": {"month": 3, "day": 1}, "why": "By-law"}]
    made = yield Call(
        "add_site", body={"name": "Park", "address": "By the river", "time_zone": "America/Denver", "closed": closed}
    )
    changed = {"name": "The park", "time_zone": "Europe/Oslo", "version": made["version"]}
    yield Call("change_site", {"site_id": made["id"]}, body=changed)
    route = yield Call("add_route", body={"name": "North", "days": [1], "site_ids": [made["id"]]})
    both = {"name": "North", "site_ids": [made["id"], sites[0]["id"]], "version": route["version"]}
    yield Call("change_route", {"route_id": route["id"]}, body=both)
    yield Call("say_way", body={"one_id": made["id"], "other_id": sites[0]["id"], "minutes": 25})
    yield Call("list_routes")
    yield Call("remove_route", {"route_id": route["id"]})
    yield Call("read_sites_year")
    yield Call("read_site", {"site_id": made["id"]})
    yield Call("remove_site", {"site_id": made["id"]})
    return int(sites[0]["id"])


def _ground(today: date) -> Generator[Call, Any, tuple[int, int, int]]:
    yield Call("ground_options")
    yield Call("measure_area", body=MEASURE)
    made = yield Call("add_area", body=AREA | {"shade": "", "slope": "3", "sown_on": "2015-04-01"})
    area = int(made["id"])
    part = {"name": "Corner", "parent_id": area, "share": "1/4", "grass": "creeping_bentgrass", "note": "Wet"}
    corner = yield Call("add_area", body=part)
    at = {"area_id": area}
    hazards = [
        {
            "kind": "water",
            "name": "Pond",
            "buffer": q(10, "ft"),
            "lies": {"how": "spot", "unit": "ft", "x": 20, "y": 30, "across": 8},
        }
    ]
    yield Call("change_area", at, body=AREA | {"version": made["version"], "hazards": hazards, "height_on": str(today)})
    whole = yield Call("add_measurement", at, body=MEASURE | {"taken_on": str(today), "use": False})
    ring = {"method": "ring", "unit": "m", "geometry": {"type": "Polygon", "coordinates": [RING]}, "taken_on": str(today)}
    whole = yield Call("add_measurement", at, body=ring)
    yield Call("use_measurement", at | {"measurement_id": whole["measurements"][0]["id"]})
    card = {
        "how": "lab",
        "lab": "County",
        "number": "17",
        "figures": [{"kind": "p", "value": "24", "unit": "ppm", "method": "Olsen"}],
    }
    taken = {"taken_on": str(today), "spot": "Middle", "ph": "5.6", "depth": q(4, "in")}
    soil = yield Call("add_soil_reading", at, body=taken | card)
    yield Call("plan_ph", at, body={"texture": "loam", "start": str(today), "target": 6.5})
    yield Call("plan_sodium", at, body={"sodium": 18, "exchange": 15, "target": 5, "depth": q(6, "in")})
    yield Call("remove_soil_reading", at | {"reading_id": soil["soil"][0]["id"]})
    yield Call("get_area", at)
    yield Call("preview_geojson", body={"text": geojson("Bank")})
    yield Call("import_geojson", body={"text": geojson("Bank")})
    yield Call("export_geojson")
    yield Call("list_away")
    ground = yield Call("list_areas")
    bank = next(a["id"] for a in ground["areas"] if a["name"] == "Bank")
    lay = {"area_id": bank, "treatments": [{"name": "Feed", "told": "0.5 lb N"}], "least": q(3, "ft"), "blocks": 2}
    yield Call("look_at_layout", body=lay)
    trial = yield Call("begin_trial", body=lay | {"name": "Two rates", "days": "0, 7", "kind": "colour"})
    of = {"trial_id": trial["id"]}
    yield Call("change_trial", of, body={"name": "Rates", "days": "0 7 14", "note": "Early", "version": trial["version"]})
    yield Call("remove_trial", of)
    trial = yield Call("begin_trial", body=lay | {"name": "Two rates", "kind": "colour", "began_on": str(today)})
    of = {"trial_id": trial["id"]}
    yield Call("score_trial", of, body={"scores": [{"plot_id": p["id"], "score": 6 + p["number"] / 2} for p in trial["plots"]]})
    yield Call("end_trial", of)
    yield Call("resume_trial", of)
    yield Call("end_trial", of)
    yield Call("list_trials")
    yield Call("read_trial", of)
    return area, int(corner["id"]), int(bank)


def _shelf(today: date) -> Generator[Call, Any, tuple[Any, Any, int]]:
    yield Call("product_options")
    yield Call(
        "read_label", body={"text": "Lawn food 18-3-6\nFertilizer. Apply 3 lb per 1,000 sq ft every 6 weeks.", "without": [0]}
    )
    yield Call("read_phrase", body={"phrase": "1.5 fl oz per gallon of water", "formulation": "SC"})
    yield Call("read_grade", body={"name": "Test 24-0-6"})
    spray = yield Call("add_product", body=SPRAY)
    feed = yield Call("add_product", body=FEED)
    at = {"product_id": spray["id"]}
    lot = {"number": "L 7", "left": q(2, "gal"), "received_on": str(today), "expires_on": str(today + timedelta(days=400))}
    lots = (yield Call("add_lot", at, body=lot))["lots"]
    yield Call("change_lot", at | {"lot_id": lots[0]["id"]}, body=lot | {"version": lots[0]["version"], "note": "Counted"})
    gone = (yield Call("add_lot", at, body=lot | {"number": "L 8"}))["lots"]
    yield Call("remove_lot", at | {"lot_id": next(row["id"] for row in gone if row["number"] == "L 8")})
    labels = (yield Call("add_label", at, file=File("label.png", PIXEL, "image/png")))["labels"]
    yield Call("get_label", at | {"label_id": labels[0]["id"]})
    yield Call("remove_label", at | {"label_id": labels[0]["id"]})
    row = {"id": spray["rates"][0]["id"]}
    rates = [SPRAY["rates"][0] | row]
    spray = yield Call(
        "change_product", at, body=SPRAY | {"rates": rates, "version": spray["version"], "note": "On the top shelf"}
    )
    csv = yield Call("export_shelf_csv")
    yield Call("preview_shelf", body={"form": "csv", "text": csv})
    shelf = yield Call("export_shelf_json")
    yield Call("import_shelf", body={"form": "json", "text": json.dumps(shelf)})
    yield Call("list_products")
    return spray, feed, int(lots[0]["id"])


def _kit(spray: Any, feed: Any, today: date) -> Generator[Call, Any, tuple[int, int]]:
    yield Call("kit_options")
    made = yield Call("add_machine", body=SPRAYER)
    spreader = int((yield Call("add_machine", body=SPREADER))["id"])
    at = {"machine_id": made["id"]}
    yield Call("change_machine", at, body=SPRAYER | {"version": made["version"], "mark": q(1, "gal"), "note": "Behind the shed"})
    yield Call(
        "nozzle_card", body={"size": "04", "count": 3, "spacing": q(20, "in"), "pressure": q(40, "psi"), "pace": q(3, "mph")}
    )
    yield Call("midway", body={"loaded": q(40, "lb"), "left": q(24, "lb"), "done": "50 %"})
    yield Call("bench", at, body={"figures": STRIP})
    whole = yield Call("keep_calibration", at, body={"figures": STRIP, "taken_on": str(today), "weather": "Calm"})
    yield Call("use_calibration", at | {"calibration_id": whole["calibrations"][0]["id"], "act": "leave"})
    whole = yield Call("clean", at, body={"steps": ["rinse", "cleaner"], "note": "Twice"})
    yield Call("take_cleaning_back", at | {"cleaning_id": whole["cleanings"][0]["id"]})
    yield Call("pace", at, body={"output": q(1, "gal/kft2"), "flow": q(0.5, "gal"), "width": q(5, "ft"), "marks": q(50, "ft")})
    for setting, pounds in ((5, 1), (7, 2)):
        figures = {"method": "weight", "product_id": feed["id"], "setting": setting, "length": q(100, "ft"), "width": q(10, "ft")}
        body = {"figures": figures | {"runs": [pounds], "unit": "lb"}, "taken_on": str(today)}
        yield Call("keep_calibration", {"machine_id": spreader}, body=body)
    yield Call("setting", {"machine_id": spreader}, body={"product_id": feed["id"], "rate": q(1.5, "lb/kft2"), "passes": 2})
    yield Call("get_machine", at)
    yield Call("list_machines")
    cup = {"name": "Store cup", "shape": "cup", "capacity": q(8, "fl_oz"), "graduation": q(0.5, "fl_oz")}
    vessel = yield Call("add_vessel", body=cup)
    there = {"vessel_id": vessel["id"]}
    yield Call("change_vessel", there, body=cup | {"name": "The cup", "version": vessel["version"]})
    water = {"mark": q(4, "fl_oz"), "weight": q(117, "g"), "temperature": q(68, "degF")}
    yield Call("check_vessel", there, body=water)
    yield Call("check_cup", body=water)
    yield Call("retire_vessel", there)
    yield Call("put_back_vessel", there)
    yield Call("list_vessels")
    return int(made["id"]), spreader


def _water(area: int, today: date) -> Told:
    at = {"area_id": area}
    cans = {"cans": [{"caught": c} for c in (0.2, 0.3, 0.25, 0.22, 0.28, 0.3, 0.2, 0.25)], "unit": "in", "minutes": 20}
    yield Call("ask_audit", at, body=cans)
    kept = yield Call("keep_audit", at, {"tasks": "true"}, cans | {"taken_on": str(today), "wind": q(3, "mph")})
    yield Call("use_audit", at | {"audit_id": kept["audits"][0]["id"], "act": "use"})
    yield Call("get_water", at, {"wanted": "0.5", "unit": "in"})
    yield Call("add_tasks", at, body={"texts": ["Raise the sunken head"]})
    tasks = yield Call("list_tasks")
    yield Call("set_task", {"task_id": tasks[0]["id"], "act": "done"})


def _work(area: int, today: date) -> Told:
    yield Call("list_doings")
    mown = {"kind": "mow", "area_ids": [area], "on": str(today - timedelta(days=2)), "clock": "07:00"}
    told = [{"key": "height", "quantity": q(0.5, "in")}, {"key": "clippings", "word": "taken"}]
    yield Call("check_work", body=mown | {"told": told})
    made = yield Call("note_work", body=mown | {"told": told, "note": "dew on it"})
    yield Call("list_works", query={"area_id": area})
    yield Call("get_story", {"area_id": area})
    yield Call("get_whole_story", query={"whole": "true"})
    yield Call("strike_work", {"work_id": made[0]["id"]}, body={"why": "It was the other green."})


def _sky(area: int, site: int, spray: Any, service: str, now: datetime) -> Told:
    station = {"name": "Mast", "latitude": 41.22, "longitude": "-71.61", "url": service, "probe_url": service, "offset": "2"}
    yield Call("save_station", query={"site_id": site}, body=station | {"version": 0})
    yield Call("get_station", query={"site_id": site})
    table = File("hours.csv", weather_file(20, now - timedelta(days=30)), "text/csv")
    yield Call("preview_weather", query={"site_id": site}, body={"mapping": ""}, file=table)
    yield Call("keep_weather", query={"site_id": site}, body={"mapping": ""}, file=table)
    yield Call("fetch_now", query={"site_id": site})
    yield Call("get_sky", query={"site_id": site})
    yield Call("get_strip", query={"area_id": area, "weeks": 5})
    yield Call("get_sky_day", query={"area_id": area, "on": str(now.date())})
    yield Call("get_long_series", query={"field": "air", "site_id": site})
    yield Call("get_clocks")
    yield Call("read_stores")
    yield Call("read_outcomes", query={"year": now.year})
    yield Call("get_locks", query={"area_id": area, "on": str(now.date()), "hour": "07:30"})
    yield Call("fit_hours", body={"area_id": area, "product_ids": [spray["id"]], "hours": 2})
    yield Call("get_schools", query={"area_id": area, "disease": "dollar_spot", "year": now.year})
    reading = {"kind": "rain", "value": q(0.4, "in"), "on": str(now.date() - timedelta(days=2)), "site_id": site}
    made = yield Call("add_hand_reading", body=reading)
    yield Call("remove_hand_reading", {"reading_id": made["id"]})
    watches = yield Call("get_watches", {"area_id": area})
    first = watches["watches"][0]
    watch = {"on": True, "susceptible": "high", "bears": "usual", "history": True, "version": first["version"]}
    yield Call("save_watch", {"area_id": area, "disease": first["disease"]}, body=watch)
    scouted = {
        "area_id": area,
        "on": str(now.date()),
        "kind": "disease",
        "what": "dollar_spot",
        "seen": True,
        "severity": "2",
        "score": "7",
        "where": "By the gate",
    }
    made = yield Call("add_scouting", body=scouted)
    yield Call("list_looks")
    spot = yield Call("add_spot", {"area_id": area}, body={"name": "By the third post"})
    named = {"name": "By the fourth post", "x": 2.5, "version": spot["version"]}
    yield Call("change_spot", {"area_id": area, "spot_id": spot["id"]}, body=named)
    shots = []
    for green in (90, 120):
        told = {"spot_id": str(spot["id"]), "report_id": str(made["id"]), "light": "sun"}
        shots.append((yield Call("add_photo", {"area_id": area}, body=told, file=shot(green))))
    yield Call("get_eyes", {"area_id": area})
    first = {"photo_id": shots[0]["id"]}
    for seen in ("get_picture", "get_mask", "get_colour"):
        yield Call(seen, first)
    yield Call("get_pair", query={"a": shots[0]["id"], "b": shots[1]["id"]})
    yield Call("change_photo", first, body={"light": "cloud", "mown": "fresh", "version": shots[0]["version"]})
    yield Call("remove_photo", first)
    yield Call("remove_spot", {"area_id": area, "spot_id": spot["id"]})
    yield Call("strike_scouting", {"report_id": made["id"]}, body={"why": "The other green"})
    rhythm = {"kind": "mow", "area_id": area, "days": [0, 3], "begin": "07:00", "end": "09:00"}
    made = yield Call("add_rhythm", body=rhythm)
    yield Call("remove_rhythm", {"rhythm_id": made["id"]})


def job(area: int, product: Any, machine: int | None, rate: dict[str, Any], **more: Any) -> dict[str, Any]:
    """One product on one area."""
    dose = {"row_id": product["rates"][0]["id"], "rate": rate}
    return {
        "mix": [{"product_id": product["id"], "target": ""}],
        "parts": [{"area_id": area, "doses": [dose]}],
        "machine_id": machine,
        "passes": 1,
    } | more


def _reckoning(area: int, corner: int, spray: Any, feed: Any, sprayer: int, spreader: int) -> Told:
    one = job(area, spray, sprayer, q("0.6", "fl_oz/kft2"))
    row = spray["rates"][0]["id"]
    yield Call("reckon_job", body=one | {"said": {"leaf": "dry", "air": q(70, "degF")}})
    yield Call("reckon_job", body=job(area, feed, spreader, q(0.5, "lb/kft2:N"), passes=2, crossing="diagonal"))
    yield Call("reckon_nothing", body=one)
    yield Call("fitting_rows", body={"product_id": spray["id"], "area_id": area, "target": "Dollar spot"})
    back = {"mode": "used", "product_id": spray["id"], "row_id": row, "area_id": corner, "amount": q(4, "fl_oz")}
    yield Call("reckon_backwards", body=back)
    compared = {"area_id": area, "product_ids": [spray["id"], feed["id"]], "machine_id": sprayer, "at": "middle"}
    yield Call("compare_products", body=compared)
    yield Call("measure_dose", body={"amount": q("2 1/2", "fl_oz"), "product_id": spray["id"]})
    yield Call("line_examples")
    yield Call("reckon_line", body={"line": "0.6 fl oz/M of Test SC on North lawn with Sprayer"})
    mix = yield Call("keep_mix", body={"name": "Morning mix", "job": one})
    at = {"mix_id": mix["id"]}
    yield Call("open_mix", at)
    yield Call("remove_mix", at)
    yield Call("put_back_mix", at)
    yield Call("list_mixes")


def _walking(area: int, sprayer: int, spray: Any) -> Told:
    plan = {
        "area_id": area,
        "machine_id": sprayer,
        "spacing": q(5, "ft"),
        "edges": 1,
        "second": "right_angles",
        "length": q(90, "ft"),
    }
    walked = {"line": q(8, "in"), "pace": 8, "late": q(1, "ft")}
    yield Call("plan_passes", body=plan)
    yield Call("land_passes", body={"plan": plan, "walked": walked})
    yield Call("compare_passes", body={"plan": plan | {"spacing": q(12, "ft")}, "walked": walked})
    yield Call("export_passes", body={"plan": plan, "latitude": "41.2", "longitude": "-71.6", "bearing": 10})
    whole = yield Call("get_area", {"area_id": area})
    places = [{"how": "box", "unit": "ft", "x": 5, "y": 5, "across": 4, "along": 6}]
    yield Call("place_near", {"area_id": area}, body={"version": whole["area"]["version"], "places": places})


def _rounds(area: int, bank: int, spray: Any, sprayer: int, lot: int, today: date) -> Told:
    one = job(area, spray, sprayer, q("0.6", "fl_oz/kft2"))
    used = {"used": [{"amount": q("4.2", "fl_oz"), "lot_id": lot}], "wind": "3 mph W", "air": "70 F", "note": "Dew"}
    begun = yield Call("start_round", body=one)
    yield Call("list_trial_maps", {"round_id": begun["id"]})
    yield Call("print_measuring_list", {"round_id": begun["id"]})
    at = {"round_id": begun["id"]}
    acts = [(0, w["key"]) for w in begun["sheet"]["wear"]] + [(1, begun["sheet"]["loads"][0]["acts"][0]["key"])]
    for load, act in acts:
        yield Call("tick", at, body={"load": load, "act": act, "done": True})
    poured = {"load": 1, "place": 0, "amount": q(2, "fl_oz")}
    yield Call("check_poured", at, body=poured)
    yield Call("keep_poured", at, body=poured)
    yield Call("get_round", at)
    yield Call("check_actual", at, body=used | {"spray": q(7.5, "gal")})
    yield Call("give_up_round", at)
    yield Call("take_up_round", at)
    yield Call("finish_round", at, body=used | {"clock": "00:05", "on": str(today)})
    book = yield Call("read_book", query={"words": "Test", "page": 1})
    there = {"application_id": book["applications"][0]["id"]}
    right = {"version": 0, "why": "Misread the tank.", "wind": "5 mph", "used": [{"position": 0, "amount": q(4.1, "fl_oz")}]}
    yield Call("correct_application", there, body=right)
    yield Call("get_application", there)
    yield Call("get_after", there)
    said = yield Call("answer_followup", body={**there, "how": "better", "note": "From the gate", "on": str(today)})
    yield Call("strike_followup", {"follow_id": said["id"]}, body={"why": "The other green"})
    yield Call("reckon_again", there)
    yield Call("export_csv", query={"words": ""})
    put = book["applications"][0]
    asked = {"begin": "2020-01-01", "end": "2030-01-01", "area_id": put["area_id"], "product_id": put["entries"][0]["product_id"]}
    for name in ("list_records", "print_records", "export_records"):
        yield Call(name, query=asked)
    yield Call("print_binder", query={"product_id": put["entries"][0]["product_id"]})
    for name in ("print_gate_notice", "print_note"):
        yield Call(name, there)
    spots = one | {"spots": True, "parts": [one["parts"][0] | {"area_id": bank, "spray": q(1, "gal")}]}
    again = {"round_id": (yield Call("start_round", body=spots))["id"]}
    out = {"spray": q(0.25, "gal"), "treated": q(200, "ft2"), "reason": "A few more", "on": str(today)}
    yield Call("go_out", again, body=out)
    yield Call("empty_round", again, body={"how": "disposed"})
    done = {"job": one | {"on": str(today - timedelta(days=40)), "clock": "06:30"}, "finish": used, "reason": "Told later"}
    told = yield Call("record_done", body=done)
    yield Call("strike_application", {"application_id": told[0]["id"]}, body={"version": 0, "why": "It was the other green."})
    past = PAST.format(on=today - timedelta(days=90))
    yield Call("preview_past", body={"text": past})
    yield Call("import_past", body={"text": past})
    yield Call("list_rounds", query={"status": "done"})


def _due(area: int, spray: Any, sprayer: int, now: datetime) -> Told:
    due = yield Call("get_due")
    disease = next(line["disease"] for line in due["lines"] if line["area_id"] == area and line["disease"])
    yield Call("get_due_whole", {"area_id": area, "disease": disease})
    begin = now.astimezone(UTC) + timedelta(days=25)
    window = {"begin": begin.isoformat(), "end": (begin + timedelta(hours=3)).isoformat()}
    made = yield Call("plan_due", body={"area_id": area, "disease": disease, "product_id": spray["id"], **window})
    yield Call("export_ahead")
    yield Call("drop_planned", {"planned_id": made["line"]["planned"]["id"]})
    far = yield Call("add_area", body=AREA | {"name": "Far green"})
    yield Call("start_due", body={"area_id": far["id"], "disease": disease, "product_id": spray["id"], "machine_id": sprayer})
    yield Call("read_today")


def _programme(area: int, feed: Any, today: date) -> Told:
    """A year's steps: of an event, of another step, from an outline, moved, skipped, copied, put away and back."""
    yield Call("read_step_options")
    year = yield Call("add_event", body={"name": "Club day", "on": str(today + timedelta(days=20))})
    event = year["events"][0]["id"]
    span = {"begin": str(today), "end": str(today + timedelta(days=60))}
    mix = [{"product_id": feed["id"], "rate": q(0.5, "lb/kft2:N")}]
    feeding = {"name": "Feed", "when": {"timing": "every", "every": "14", **span}, "products": mix, "area_ids": [area]}
    made = yield Call("add_step", body=feeding | {"why": "Little and often.", "water": q("0.25", "in")})
    before = {"name": "Iron", "when": {"timing": "event", "offset": "-5", **span}, "event_id": event, "use": "green"}
    after = {"name": "Again", "when": {"timing": "event", "offset": "7", **span}, "after_id": made["id"], "area_ids": [area]}
    soil = {"name": "Soon", "when": {"timing": "soil", "soil": q(55, "degF"), **span}, "area_ids": [area]}
    warm = {"name": "Warm", "when": {"timing": "warmth", "sum": "200", "base": "0", **span}, "area_ids": [area]}
    monthly = {"name": "Twice", "when": {"timing": "monthly", "monthly": "1, 15", **span}, "area_ids": [area]}
    passed = {
        "name": "Passed",
        "when": {"timing": "threshold", "disease": "dollar_spot", "every": "14", **span},
        "area_ids": [area],
    }
    cold = {"name": "Cold", "when": {"timing": "cold", "cold": q(43, "degF"), **span}, "area_ids": [area]}
    for body in (before, after, soil, warm, monthly, passed, cold):
        yield Call("add_step", body=body)
    yield Call("change_step", {"step_id": made["id"]}, body=feeding | {"name": "Spoon feed", "version": made["version"]})
    turn = {"step_id": made["id"], "area_id": area, "number": 1}
    yield Call("look_at_turn", body=turn | {"on": str(today + timedelta(days=16))})
    yield Call("set_turn", body=turn | {"on": str(today + timedelta(days=16)), "why": "Away"})
    yield Call("set_turn", body=turn | {"skipped": True})
    yield Call("set_turn", body=turn)
    yield Call("read_turn_as_job", {"step_id": made["id"]}, query={"area_id": str(area), "number": "1"})
    yield Call("adopt_outline", body={"key": "cool_easy", "year": today.year + 1, "area_ids": [area]})
    for spot in ("one", "two", "three"):
        yield Call("add_soil_reading", {"area_id": area}, body={"spot": spot, "taken_on": str(today), "ph": 7.6})
    sulfur = {"name": "Sulfur", "kind": "amendment", "formulation": "GR", "rates": [{"phrase": "1 to 5 lb per 1,000 sq ft"}]}
    sulfur |= {"contents": [{"name": "S", "basis": "S", "amount": 90, "unit": "%"}]}
    yield Call("add_product", body=sulfur)
    ph = {"texture": "sand", "start": str(today), "target": "6.5"}
    yield Call("adopt_soil_plan", body={"area_id": area, "plan": ph})
    yield Call("set_money", body={"year": today.year, "amount": "2,500.00"})
    yield Call("copy_programme", body={"from_year": today.year, "year": today.year + 2})
    yield Call("read_programme", query={"year": str(today.year)})
    yield Call("remove_event", {"event_id": event})
    yield Call("put_step_away", {"step_id": made["id"]})
    yield Call("put_step_back", {"step_id": made["id"]})


def _outing(today: date) -> Told:
    """A lawn that was fed and is watered in: planned, put in order, skipped at the gate, and ended; another is given up."""
    lawn = yield Call("add_area", body=AREA | {"name": "Wharf lawn"})
    soaked = {"water_in_depth": q(0.25, "in"), "water_in_delay": q(8, "h")}
    granules = yield Call("add_product", body=FEED | {"name": "Soaked 10-0-0", "rules": soaked})
    span = {"begin": str(today), "end": str(today + timedelta(days=3))}
    mix = [{"product_id": granules["id"], "rate": q(0.4, "lb/kft2:N")}]
    feeding = {"name": "Wharf feed", "when": {"timing": "dated", **span}, "products": mix, "area_ids": [lawn["id"]]}
    yield Call("add_step", body=feeding)
    found = yield Call("propose_outing", body={"on": str(today)})
    wharf = next(d["key"] for d in found["dues"] if d["text"].startswith("Wharf feed"))
    rest = [d["key"] for d in found["dues"] if d["key"] != wharf]
    yield Call("read_week")
    yield Call("choose_reminders", body={"holds": ["outings", "locks"], "mail": True})
    mine = yield Call("give_calendar_address")
    yield Call("read_calendar", {"token": mine["address"].rsplit("/", 1)[1]}, who="stranger")
    yield Call("read_reminders")
    yield Call("revoke_calendar_address")
    made = yield Call("take_outing", body={"on": str(today), "leave": rest})
    outing = {"outing_id": made["id"]}
    yield Call("list_outings")
    yield Call("go_outing", outing)
    yield Call("order_outing_again", outing, body={"people": 2})
    yield Call("pause_outing", outing, body={"why": "A hose burst"})
    yield Call("go_on_with_outing", outing)
    job = made["jobs"][0]
    yield Call("change_job_machine", outing | {"position": job["position"]}, body={"machine_id": job["machine_id"]})
    yield Call("print_outing", outing)
    spread = next(j for j in made["jobs"] if j["kind"] == "spread")
    begun = yield Call("start_outing_job", outing | {"position": spread["position"]}, body={})
    yield Call("give_up_round", {"round_id": begun["id"]})
    stop = next(s for a in made["acts"] if a["job"] == spread["position"] for s in a["stops"])
    yield Call("skip_outing_stop", outing | {"stop_id": stop["id"]}, body={"why": "Locked gate"})
    yield Call("skip_outing_job", outing | {"position": spread["position"]}, body={"why": "Rain came"})
    water = next(j for j in made["jobs"] if j["kind"] == "water")
    yield Call("note_outing_job", outing | {"position": water["position"]})
    yield Call("finish_outing", outing)
    other = yield Call("take_outing", body={"on": str(today), "leave": rest})
    second = {"outing_id": other["id"]}
    fed = next(j for j in other["jobs"] if j["kind"] == "spread")
    sheet = yield Call("start_outing_job", second | {"position": fed["position"]}, body={})
    yield Call("finish_round", {"round_id": sheet["id"]}, body={"used": [{"amount": q(28, "lb")}]})
    put_down = yield Call("get_outing", second)
    for c in put_down["closing"]:
        yield Call("close_outing_act", second, body={"key": c["key"], "done": True, "note": "Nothing"})
    yield Call("print_outing_notices", second)
    yield Call("print_outing_notes", second)
    yield Call("give_up_outing", second)


def _plan(today: date) -> Told:
    """A plan of the next year, and none of it taken, then what comes of it."""
    options = yield Call("read_plan_options")
    ask = {"year": options["years"][1], "weekdays": [1], "hours": "6", "off": [{"begin": str(today), "end": str(today)}]}
    told = yield Call("make_plan", body=ask)
    plan = next(e["plan"] for e in told if "plan" in e)
    yield Call("take_plan", body={"ask": ask, "choices": plan["choices"]})


def _putting_away(corner: int, spray: Any, feed: Any, sprayer: int, spreader: int) -> Told:
    for kind, at in (
        ("area", {"area_id": corner}),
        ("product", {"product_id": feed["id"]}),
        ("machine", {"machine_id": spreader}),
    ):
        yield Call(f"remove_{kind}", at)
        yield Call(f"put_back_{kind}", at)
