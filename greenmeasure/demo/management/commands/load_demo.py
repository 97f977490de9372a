"""Load the demo account from the open files in demo/. Running it again changes nothing that is there."""

import json
import os
import uuid
from datetime import UTC, date, datetime, time, timedelta
from pathlib import Path
from typing import Any

import numpy as np
from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from core.units import Quantity
from core.weather.hours import Hour, moment
from greenmeasure.accounts.models import Account, Membership, User
from greenmeasure.accounts.schemas import SiteIn
from greenmeasure.accounts.sites import save_site
from greenmeasure.archive.closing import emptied
from greenmeasure.book.actions import correct, strike
from greenmeasure.book.models import Application
from greenmeasure.book.schemas import CorrectIn
from greenmeasure.common import clock
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.demo.turf import picture
from greenmeasure.ground.actions import add_measurement, save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn, MeasurementIn, SoilReadingIn
from greenmeasure.ground.soil import add_reading
from greenmeasure.kit.actions import clean, keep_calibration, save_machine
from greenmeasure.kit.models import Machine, Vessel
from greenmeasure.kit.schemas import CalibrationIn, CleaningIn, CupIn, MachineIn, OwnVesselIn
from greenmeasure.kit.vessels import keep_check, save_vessel
from greenmeasure.outings.routes import save_route, say_way
from greenmeasure.outings.schemas import RouteIn, WayIn
from greenmeasure.planner.actions import take
from greenmeasure.planner.facts import ask_in
from greenmeasure.planner.making import made
from greenmeasure.planner.schemas import PlanAskIn, PlanTakeIn
from greenmeasure.programme.actions import add_event, adopt, save_step, set_turn
from greenmeasure.programme.money import set_money
from greenmeasure.programme.schemas import MoneyIn, SeasonOutlineIn, StepEventIn, StepIn, TurnIn
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, PartIn
from greenmeasure.rounds.actions import finish_round, start_round
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import FinishIn, UsedIn
from greenmeasure.scouting.actions import add_photo, add_scouting, answer_followup, save_spot, strike_followup, strike_scouting
from greenmeasure.scouting.models import Scouting, Spot
from greenmeasure.scouting.schemas import FollowUpIn, PhotoIn, ScoutIn, SpotIn
from greenmeasure.shelf.actions import save_lot, save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import LotIn, ProductIn
from greenmeasure.sky.actions import add_by_hand, add_rhythm, save_hold, save_station, save_watch
from greenmeasure.sky.keeping import keep_forecast, keep_hours
from greenmeasure.sky.models import Station, Watch
from greenmeasure.sky.schemas import HoldIn
from greenmeasure.sky.station_schemas import HandIn, RhythmIn, StationIn, WatchIn
from greenmeasure.trials.actions import begin, end, keep_scores
from greenmeasure.trials.models import Plot, Trial
from greenmeasure.trials.schemas import ScoreIn, ScoresIn, TreatmentIn, TrialIn
from greenmeasure.water.actions import keep_audit
from greenmeasure.water.schemas import AuditIn
from greenmeasure.work.actions import note_work
from greenmeasure.work.models import Work
from greenmeasure.work.schemas import WorkIn
from sims import climate, soil_probe
from sims.weather_service import DECIMALS

KEYS = uuid.UUID("5d1f3f6e-2f0b-4c53-9f4e-6a0b6d8e2a11")
MEASURED_ON = date(2025, 3, 12)
SIMS = "http://127.0.0.1:8321"
"""Where the simulated weather is served."""
LATE_IN_YEAR = 11
"""The month from which on the next season is planned."""


def read(name: str) -> Any:
    """One of the demo's open files."""
    return json.loads((Path(settings.ROOT) / "demo" / name).read_text(encoding="utf-8"))


def _been(at: str) -> bool:
    """Whether a time of the demo lies behind: its book ends where the clock stands."""
    found = datetime.fromisoformat(at)
    return (found if found.tzinfo else found.replace(tzinfo=UTC)) <= clock.now()


def _hours(times: climate.Times, made: dict[str, climate.Floats], forecast: bool = False) -> list[Hour]:
    """Made-up weather as the hours that a service tells, rounded as it rounds."""
    told = {name: np.round(values, DECIMALS[name]) for name, values in made.items()}
    return [Hour(moment(at), **{n: float(v[i]) for n, v in told.items()}, forecast=forecast) for i, at in enumerate(times)]


class Command(BaseCommand):
    """Loads the demo account; a second time changes nothing, unless it is to begin again."""

    help = "Load the demo account, Alder Quay Lawn Sports Trust. Twice is as good as once."

    def add_arguments(self, parser: CommandParser) -> None:
        """Whether it begins again, and whether the season's plan is made too, which takes some ten seconds."""
        parser.add_argument("--again", action="store_true", help="take away what is there of it first, with all that was changed")
        parser.add_argument("--plan", action="store_true", help="make the season's plan, and take it into the programme")

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        settings.PRIVATE_STATIONS = True  # its made-up weather comes from this machine
        about = read("account.json")
        if options.get("again") and (there := Account.objects.filter(slug=about["slug"]).first()):
            emptied(there)
        account, _ = Account.objects.get_or_create(
            slug=about["slug"], defaults={k: about[k] for k in ("name", "units", "currency", "house")}
        )
        for given in about["sites"]:
            if not account.sites.filter(name=given["name"]).exists():
                save_site(account, SiteIn(**given))
        self.routes(account, about)
        people = {m["username"]: self.person(account, m, about["password"]) for m in about["members"]}
        manager = people[about["members"][0]["username"]]
        for given in read("areas.json"):
            if not Area.objects.filter(account=account, name=given["name"]).exists():
                self.area(account, manager, given)
        for given in read("products.json"):
            if not Product.objects.filter(account=account, name=given["name"]).exists():
                made = save_product(account, ProductIn(**given))
                for lot in given.get("lots", ()):
                    save_lot(made, LotIn(**lot))
        for given in read("machines.json"):
            if not Machine.objects.filter(account=account, name=given["name"]).exists():
                save_machine(account, MachineIn(**given))
        for given in read("vessels.json"):
            if not Vessel.objects.filter(account=account, name=given["name"]).exists():
                self.vessel(account, given)
        account.refresh_from_db()
        events = [(g["at"], self.entry, g) for g in read("book.json")]
        events += [(g["at"], self.corrected, g) for g in read("corrections.json")]
        events += [(g["at"], self.cleaned if "clean" in g else self.calibrated, g) for g in read("kit.json")]
        events += [(g["at"], self.entry if g["do"] == "apply" else self.tried, g) for g in read("trials.json")]
        for _, keep, given in sorted((e for e in events if _been(e[0])), key=lambda e: e[0]):
            account.refresh_from_db()
            keep(account, people[given["by"]], given)
        for given in read("water.json"):
            if _been(given["on"]):
                self.water(account, people[given["by"]], given)
        account.refresh_from_db()
        for given in read("work.json"):
            if _been(given["on"]):
                self.work(account, people[given["by"]], given)
        self.sky(account, people, read("sky.json"))
        if not Spot.objects.filter(account=account, plots=None).exists():
            self.seen(account, people, read("scouting.json"))
        if not account.steps.exists():
            self.programme(account, people, read("programme.json"))
        if options.get("plan") and not account.steps.filter(made=True).exists():
            self.plan(account, people, read("plan.json"))
        first = about["members"][0]["username"]
        self.stdout.write(f"{account.name} is loaded. Sign in as {first} with the password {about['password']}")

    def routes(self, account: Account, about: dict[str, Any]) -> None:
        """How its sites are driven to, unless that is said already."""
        if account.routes.exists():
            return
        site = dict(account.sites.values_list("name", "pk"))
        for row in about["routes"]:
            save_route(account, RouteIn(name=row["name"], days=row["days"], site_ids=[site[n] for n in row["sites"]]))
        for row in about["ways"]:
            say_way(account, WayIn(one_id=site[row["one"]], other_id=site[row["other"]], minutes=row["minutes"]))

    def station(self, account: Account, given: dict[str, Any]) -> None:
        """A site's station with its hours from the simulated climate up to now."""
        site, place = account.sites.get(name=given["site"]), climate.PLACES[given["path"]]
        url = f"{os.environ.get('GREENMEASURE_SIMS', SIMS)}/{given['path']}".rstrip("/")
        about = given["about"] | {"url": url, "probe_url": url}
        station = Station.objects.filter(account=account, site=site).first() or save_station(site, StationIn(**about))
        if station.url != url and station.name == about["name"]:
            save_station(site, StationIn(**about, version=station.version), station)
        now = np.datetime64(clock.now().replace(tzinfo=None), "h")
        latest = station.readings.order_by("-at").values_list("at", flat=True).first()
        begin = np.datetime64(latest.replace(tzinfo=None), "h") + climate.HOUR if latest else np.datetime64(given["since"], "h")
        if begin < now:
            times = np.arange(begin, now, climate.HOUR)
            made = climate.weather(times, place) | {"soil": soil_probe.read(times, place)}
            keep_hours(station, _hours(times, made), "service")
            times, made = climate.forecast(now, place)
            keep_forecast(station, moment(now), _hours(times, made, forecast=True))

    def sky(self, account: Account, people: dict[str, User], given: dict[str, Any]) -> None:
        """The stations, and what people saw and read."""
        for row in given["stations"]:
            self.station(account, row)
        if Watch.objects.filter(area__account=account).exists():
            return
        area = {a.name: a for a in Area.objects.of(account).kept()}
        for row in given["watches"]:
            save_watch(area[row["area"]], row["disease"], WatchIn(**{k: v for k, v in row.items() if k != "disease"}, version=0))
        for row in given["holds"]:
            save_hold(area[row["area"]], row["active"], HoldIn(version=0, own=row["own"], base=row["base"]))
        for row in given["rhythms"]:
            add_rhythm(account, RhythmIn(**row, area_id=area[row["area"]].pk if "area" in row else None))
        account.rhythms.update(since=given["rhythms_since"])
        for row in given["by_hand"]:
            if _been(row["on"]):
                value = {"value": row["value"], "unit": row["unit"]}
                kept = {k: row[k] for k in ("kind", "on", "clock") if k in row}
                where = area[row["area"]].pk if "area" in row else None
                add_by_hand(account, people[row["by"]], HandIn(**kept, value=value, area_id=where))

    def programme(self, account: Account, people: dict[str, User], given: dict[str, Any]) -> None:
        """The year's programme: outlines taken over, steps of its own, an event, a turn that was moved."""
        by, area = people[given["by"]], {a.name: a.pk for a in Area.objects.of(account).kept()}
        product = {p.name: p.pk for p in Product.objects.of(account)}
        set_money(account, by, MoneyIn(year=given["year"], amount=given["money"]))
        for row in given["outlines"]:
            account.refresh_from_db()
            adopt(account, by, SeasonOutlineIn(key=row["key"], year=given["year"], area_ids=[area[a] for a in row["areas"]]))
        events = {row["name"]: add_event(account, StepEventIn(**row)).pk for row in given["events"]}
        for row in given["steps"]:
            account.refresh_from_db()
            told = {k: row[k] for k in ("name", "why", "when")}
            ground = [area[a] for a in row["areas"]]
            mix = [{"product_id": product[row["product"]]}]
            save_step(account, by, StepIn(**told, products=mix, area_ids=ground, event_id=events[row["event"]]))
        today = clock.today(account)
        for row in given["week"]:
            account.refresh_from_db()
            first, last = date(today.year, 1, 1), date(today.year, 12, 31)  # a step lies in one year
            begin, end = (min(max(today + timedelta(days=n), first), last) for n in row["days"])
            when = {"timing": "dated", "begin": str(begin), "end": str(end)}
            mix = [{"product_id": product[row["product"]], "rate": row["rate"]}]
            ground = [area[a] for a in row["areas"]]
            told = {k: row[k] for k in ("name", "why")}
            save_step(account, by, StepIn(**told, when=when, products=mix, area_ids=ground))
        for row in given["turns"]:
            account.refresh_from_db()
            step = account.steps.get(name=row["step"])
            set_turn(
                account, by, TurnIn(step_id=step.pk, area_id=area[row["area"]], **{k: row[k] for k in ("number", "on", "why")})
            )

    def plan(self, account: Account, people: dict[str, User], given: dict[str, Any]) -> None:
        """The rest of the season, or the next one where little of it is left, as the optimiser makes it now."""
        self.stdout.write("== the season's plan")
        account.refresh_from_db()
        today = clock.today(account)
        ground = list(Area.objects.of(account).kept().filter(site=account.home, parent=None).values_list("pk", flat=True))
        ask = PlanAskIn(year=today.year + (today.month >= LATE_IN_YEAR), area_ids=ground, **given["ask"])
        plan = next(event.plan for event in made(account, ask_in(account, ask)) if event.plan)
        account.refresh_from_db()
        take(account, people[given["by"]], PlanTakeIn(ask=ask, choices=plan.choices))

    def seen(self, account: Account, people: dict[str, User], given: dict[str, Any]) -> None:
        """The spots that are looked at again, their soil, what scouts found, and pictures of them."""
        area = {a.name: a for a in Area.objects.of(account).kept()}
        spots = {}
        for row in given["spots"]:
            told = SpotIn(**{k: v for k, v in row.items() if k != "area"})
            spots[row["name"]] = save_spot(account, area[row["area"]], told)
        for row in given["samples"]:
            if _been(row["taken_on"]):
                told = {k: v for k, v in row.items() if k not in ("by", "area", "spot")}
                card = SoilReadingIn(**told, spot_id=spots[row["spot"]].pk)
                add_reading(area[row["area"]], card, people[row["by"]])
        for row in given["reports"]:
            if not _been(row["on"]):
                continue
            told = {k: v for k, v in row.items() if k not in ("by", "area", "struck")}
            made = add_scouting(account, people[row["by"]], ScoutIn(**told, area_id=area[row["area"]].pk))
            if "struck" in row:
                strike_scouting(account, people[row["by"]], made.pk, row["struck"])
        for row in given["followups"]:
            done = Application.objects.filter(account=account, area=area[row["area"]], applied_on=row["applied"]).first()
            if done and _been(row["on"]):
                told = FollowUpIn(application_id=done.pk, **{k: row[k] for k in ("on", "how", "note") if k in row})
                said = answer_followup(account, people[row["by"]], told)
                if "struck" in row:
                    strike_followup(account, people[row["by"]], said, row["struck"])
        for row in given["pictures"]:
            here = area[row["area"]]
            taken = datetime.combine(date.fromisoformat(row["on"]), time.fromisoformat(row["clock"]))
            if taken.replace(tzinfo=here.site.zone) <= clock.now():
                told = {k: row[k] for k in ("light", "mown", "note") if k in row}
                spot = spots[row["spot"]].pk if "spot" in row else None
                drawn = picture(row["seed"], row["dead"], row["light"], row.get("mown", ""), taken)
                add_photo(account, people[row["by"]], here, "drawn.jpg", drawn, PhotoIn(spot_id=spot, **told))

    def vessel(self, account: Account, given: dict[str, Any]) -> None:
        """A vessel as it was checked, or retired."""
        made = save_vessel(account, OwnVesselIn(**given))
        if "check" in given:
            keep_check(made, CupIn(**given["check"]))
        if given.get("retired"):
            made.archive()

    def person(self, account: Account, given: dict[str, str], password: str) -> User:
        user, new = User.objects.get_or_create(username=given["username"], defaults={"full_name": given["full_name"]})
        if new:
            user.set_password(password)
            user.save()
        Membership.objects.get_or_create(
            account=account, user=user, defaults={"role": given["role"], "licence": given.get("licence", "")}
        )
        return user

    def area(self, account: Account, by: User, given: dict[str, Any]) -> None:
        """An area with its measurements and its soil readings; `part_of` names the area that it is a part of."""
        parent = Area.objects.get(account=account, name=given["part_of"]) if "part_of" in given else None
        where = {"parent_id": parent.pk if parent else None, "height_on": MEASURED_ON}
        if "site" in given:
            where["site_id"] = account.sites.get(name=given["site"]).pk
        made = save_area(account, AreaIn(**{k: v for k, v in given.items() if k != "site"}, **where), by=by)
        made.measurements.update(taken_on=MEASURED_ON)
        for again in given.get("again", ()):
            add_measurement(made, MeasurementIn(**again, taken_on=date(2026, 3, 10)), by)
        for reading in given.get("soil", ()):
            add_reading(made, SoilReadingIn(**reading))

    def calibrated(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One calibration by a bench, on its day, unless it is kept already."""
        machine = Machine.objects.get(account=account, name=given["machine"])
        figures, on = given["figures"], date.fromisoformat(given["at"][:10])
        if machine.calibrations.filter(taken_on=on, method=figures["method"], setting=figures.get("setting")).exists():
            return
        product = Product.objects.get(account=account, name=given["product"]).pk if "product" in given else None
        if product:
            figures = figures | {"product_id": product}
        keep_calibration(
            machine,
            user,
            CalibrationIn(
                figures=figures,
                taken_on=on,
                expires_on=given.get("expires_on"),
                weather=given.get("weather", ""),
                note=given.get("note", ""),
            ),
        )

    def cleaned(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One cleaning, unless it is noted already."""
        machine, at = Machine.objects.get(account=account, name=given["machine"]), datetime.fromisoformat(given["at"])
        if not machine.cleanings.filter(at=at).exists():
            clean(machine, user, CleaningIn(steps=given["clean"], note=given.get("note", "")), at)

    def water(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One catch-can audit, with a task for each dry spot where it says so."""
        area = Area.objects.get(account=account, name=given["area"])
        if not area.water.filter(taken_on=given["on"]).exists():
            keep_audit(area, user, AuditIn(**given, taken_on=given["on"]), given.get("tasks", False))

    def corrected(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One application put right or struck, unless it was already."""
        found = Application.objects.filter(account=account, area_name=given["area"], applied_on=given["on"]).first()
        if not found or found.struck_at or found.formers.exists():
            return
        if given.get("strike"):
            strike(found, user, given["why"], 0, datetime.fromisoformat(given["at"]))
        else:
            correct(found, user, CorrectIn(version=0, why=given["why"], **given["now"]), datetime.fromisoformat(given["at"]))

    def work(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One work on one or more areas, unless it is noted already."""
        ids = dict(Area.objects.filter(account=account, name__in=given["areas"]).values_list("name", "pk"))
        noted = Work.objects.filter(account=account, kind=given["kind"], done_on=given["on"], area__in=ids.values())
        if not noted.exists():
            note_work(account, user, WorkIn(**given, area_ids=[ids[name] for name in given["areas"]]))

    def tried(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One step of a trial, unless it is done already: begun, scored, or ended."""
        area = Area.objects.get(account=account, name=given["area"])
        trial, on = Trial.objects.filter(account=account, area=area).first(), date.fromisoformat(given["at"][:10])
        if given["do"] == "begin" and trial is None:
            tried = [self.treatment(account, t) for t in given["treatments"]]
            told = {k: given[k] for k in ("name", "blocks", "seed", "kind", "days", "least", "note")}
            begin(account, user, TrialIn(area_id=area.pk, treatments=tried, began_on=on, **told))
        if given["do"] == "score" and trial and not Scouting.objects.filter(spot__plots__treatment__trial=trial, on=on).exists():
            plots = Plot.objects.filter(treatment__trial=trial).select_related("treatment")
            marks = [ScoreIn(plot_id=p.pk, score=given["marks"][p.block - 1][p.treatment.position]) for p in plots]
            keep_scores(account, user, trial, ScoresIn(on=on, scores=marks))
        if given["do"] == "end" and trial and trial.ended_on is None:
            end(account, trial, on)

    def treatment(self, account: Account, given: dict[str, Any]) -> TreatmentIn:
        """One of the things that a trial tries."""
        product = Product.objects.get(account=account, name=given["product"], archived_at=None)
        return TreatmentIn(name=given["name"], product_id=product.pk, told=given["told"])

    def other(self, account: Account, given: dict[str, Any]) -> tuple[ComponentIn, DoseIn]:
        """One more product of a mix; without a value it goes in to taste."""
        product = Product.objects.get(account=account, name=given["product"], archived_at=None)
        row = product.rates.all()[given["rate"]]
        component = ComponentIn(product_id=product.pk)
        if given["value"] is None:
            return component, DoseIn()
        rate = QuantityIn(value=given["value"], unit=row.label().highest.unit.key)
        return component, DoseIn(row_id=row.pk, rate=rate)

    def used(self, planned: Quantity | None, share: float) -> UsedIn:
        """What was used of a component, as a share of what was planned; nothing to taste."""
        if planned is None:
            return UsedIn()
        return UsedIn(amount=QuantityIn(value=round(planned.value * share, 2), unit=planned.unit.key))

    def entry(self, account: Account, user: User, given: dict[str, Any]) -> None:
        """One round through the application's own use cases, unless it is in the book already."""
        key = uuid.uuid5(KEYS, f"{given['at']} {given['area']} {given['product']}")
        if Round.objects.filter(account=account, key=key).exists():
            return
        product = Product.objects.get(account=account, name=given["product"], archived_at=None)
        row = product.rates.all()[given["rate"]]
        area = Area.objects.get(account=account, name=given["area"])
        at = datetime.fromisoformat(given["at"])
        rate = {"value": given["value"], "unit": row.label().highest.unit.key}
        others = [self.other(account, x) for x in given.get("with", [])]
        part = PartIn(area_id=area.pk, doses=[DoseIn(row_id=row.pk, rate=rate), *(dose for _, dose in others)])
        start = JobIn(
            mix=[ComponentIn(product_id=product.pk, target=row.target), *(component for component, _ in others)],
            parts=[part],
            passes=given["passes"],
            machine_id=Machine.objects.get(account=account, name=given["machine"]).pk,
        )
        begun = start_round(account, user, start, key, at)
        used = [self.used(c.amount, given["share"]) for c in begun.mix.all()]
        spray = None
        if "sprayed" in given and begun.spray_litres:
            spray = {"value": round(begun.spray_litres * given["sprayed"], 3), "unit": "l"}
        finish = FinishIn(
            used=used, wind=given["wind"], air=given["air"], note=given["note"], spray=spray, setting=given.get("setting", "")
        )
        finish_round(begun, user, finish, at)
