"""What changes trials: begun with their parts and spots, scored, changed, ended."""

from datetime import date, timedelta

from django.db import transaction

from core.book.after import read_days
from core.days import dated
from core.errors import InputError
from core.scouting.kinds import check_mark
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Faults
from greenmeasure.common.names import free_name, put_back
from greenmeasure.common.schemas import signed_in
from greenmeasure.common.struck import strike
from greenmeasure.common.versions import claim
from greenmeasure.ground.measuring import in_account_units
from greenmeasure.ground.models import Area
from greenmeasure.scouting.models import Scouting, Spot
from greenmeasure.trials.laying import Laid, laid, named, under_way
from greenmeasure.trials.models import Plot, Treatment, Trial
from greenmeasure.trials.queries import Whole
from greenmeasure.trials.schemas import ScoresIn, TrialChangeIn, TrialIn
from greenmeasure.trials.words import part_note

DAYS = "0, 7, 14, 28"
"""When turf is looked at where nobody says otherwise (common practice, no source)."""
AHEAD = timedelta(days=60)
"""How far ahead a trial is begun (ours)."""
BACK = timedelta(days=366)
"""How long ago a trial that is typed in late may have begun (ours)."""
AGAIN = "Scored again"


def begin(account: Account, user: User, data: TrialIn) -> Trial:
    """Begin a trial: its plots become parts of the area, one a treatment, so that what goes down on them is kept apart.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = named(data.treatments)
    found = faults.of(laid, account, data)
    days = faults.of(read_days, data.days or DAYS)
    name = faults.of(free_name, Trial, found.area, data.name) if found else None
    on = data.began_on or clock.today(found.area if found else account)
    if found and on > clock.today(found.area) + AHEAD:
        faults.add("began_on", str(on), "That is far ahead.", f"Begin it within {AHEAD.days} days.")
    elif found and on < clock.today(found.area) - BACK:
        faults.add("began_on", str(on), "That is long ago.", "A trial is laid out before it is scored: give the day it began.")
    faults.raise_any()
    assert found and name and days is not None
    with transaction.atomic():
        trial = Trial.objects.create(
            account=account,
            name=name,
            area=found.area,
            began_on=on,
            seed=found.seed,
            blocks=found.layout.blocks,
            direction=found.layout.direction,
            least=found.least,
            kind=found.look.key,
            what=found.what,
            days=days,
            scatter=found.scatter or 0.0,
            note=data.note,
            by=str(user),
        )
        for i in range(len(found.names)):
            _treat(trial, found, i, data.treatments[i - 1].told if i else "")
        account.touch("trials", "ground", "scouting")
    return trial


def _treat(trial: Trial, found: Laid, i: int, told: str) -> None:
    """Keep a treatment: its plots as a part of the area, a fixed spot in the middle of each."""
    own = [p for p in found.layout.plots if p.treatment == i]
    part = _part(trial, found, i, [p.number for p in own])
    made = Treatment.objects.create(
        trial=trial, position=i, name=found.names[i], untreated=i == 0, area=part, product=found.products[i], told=told
    )
    for p in own:
        x, y = p.middle
        spot = Spot.objects.create(account=trial.account, area=part, name=f"Plot {p.number}", x=round(x, 2), y=round(y, 2))
        Plot.objects.create(
            treatment=made,
            number=p.number,
            block=p.block,
            rings=[[list(at) for at in ring] for ring in p.rings],
            size=p.shape.area * found.scale,
            spot=spot,
        )


def _part(trial: Trial, found: Laid, i: int, numbers: list[int]) -> Area:
    """The ground of a treatment: a part of the area, like it in all but its size."""
    area, size = found.area, in_account_units(found.size(i), trial.account.us)
    part = Area(
        account=trial.account,
        site=area.site,
        parent=area,
        name=_part_name(area, found.names[i]),
        size_value=size.value,
        size_unit=size.unit.key,
        hazards=[h | {"lies": None} for h in area.hazards],
        note=part_note(trial, numbers),
    )
    for field in ALIKE:
        setattr(part, field, getattr(area, field))
    part.save()
    if area.height_value is not None:
        part.heights.create(on=trial.began_on, value=area.height_value, unit=area.height_unit)
    return part


ALIKE = (
    "grass",
    "blend",
    "cultivar",
    "use",
    "height_value",
    "height_unit",
    "texture",
    "shade",
    "slope",
    "sown_on",
    "overseed_on",
    "stress",
    "tested_p",
)
"""What a part for a trial has from its area."""
LONGEST_NAME = 80


def _part_name(area: Area, treatment: str) -> str:
    """A name for a treatment's part that no other area of the site has."""
    taken = {n.casefold() for n in Area.objects.filter(site=area.site, archived_at=None).values_list("name", flat=True)}
    wanted = f"{area.name}: {treatment}"[:LONGEST_NAME]
    name, n = wanted, 1
    while name.casefold() in taken:
        n += 1
        name = f"{wanted[: LONGEST_NAME - 4]} {n}"
    return name


def change(account: Account, trial: Trial, data: TrialChangeIn) -> Trial:
    """Change a trial's name, its days, or what is noted of it.

    Raises:
        Faulty: every field at fault.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    name = faults.of(free_name, Trial, trial.area, data.name, trial.pk)
    days = faults.of(read_days, data.days or DAYS)
    faults.raise_any()
    assert name and days is not None
    with claim(trial, data.version):
        trial.name, trial.days, trial.note = name, days, data.note
        trial.save()
    return trial


def keep_scores(account: Account, user: User, trial: Trial, data: ScoresIn) -> None:
    """Keep what the plots were scored on a day, as scout reports at their spots. A plot scored anew has its former score struck.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults, today = Faults(), clock.today(trial.area)
    on = data.on or today
    if on > today:
        faults.add("on", str(on), "That day is still to come.", "Give the day it was looked at.")
    elif on < trial.began_on:
        faults.add("on", str(on), "That is before it began.", f"From {dated(trial.began_on)} on.")
    elif trial.ended_on and on > trial.ended_on:
        faults.add("on", str(on), f"It ended on {dated(trial.ended_on)}.", "Give a day before that.")
    whole = Whole(account, trial)
    plots = {p.pk: p for p in whole.plots}
    kept = {p: s for (p, day), s in whole.scores.items() if day == on}
    made, stale = [], []
    for i, given in enumerate(data.scores):
        plot = plots.get(given.plot_id)
        if plot is None or plot.treatment.area is None or plot.spot is None:
            faults.add(f"scores.{i}.plot_id", given.plot_id, "That plot is not there.", "Open the trial again.")
            continue
        if not str(given.score).strip():
            continue
        found = faults.of(_score, trial, plot, on, f"scores.{i}.score", given.score)
        before = kept.get(plot.pk)
        if found is None or (before and (before.score, before.severity) == (found.score, found.severity)):
            continue
        made.append(found)
        if before:
            stale.append(before)
    if not any(str(s.score).strip() for s in data.scores):
        faults.add("scores", "", "No plot is scored.", "Score at least one block whole.")
    faults.raise_any()
    with transaction.atomic():
        for one in stale:
            strike(one, str(user), AGAIN)
        for one in made:
            one.by = str(user)
            one.save()
        account.touch("scouting", "trials")


def _score(trial: Trial, plot: Plot, on: date, field: str, typed: float | str) -> Scouting:
    """A plot's score as a scout report, nobody's yet. Raises InputError on its field."""
    look, spot = trial.look, plot.spot
    try:
        score, share, seen = check_mark(look, signed_in(field, typed), trial.account.us)
    except InputError as fault:
        raise fault.on(field) from None
    assert plot.treatment.area and spot
    told = {"kind": look.key, "what": trial.what, "seen": seen, "severity": share, "score": score}
    return Scouting(area=plot.treatment.area, on=on, spot=spot, x=spot.x, y=spot.y, **told)


def end(account: Account, trial: Trial, on: date | None = None) -> None:
    """End a trial, today unless a day is said: its parts and spots are put away, what was noted of them stays.

    Raises:
        Conflict: it has ended already.
    """
    today = on or clock.today(trial.area)
    with transaction.atomic():
        if not Trial.objects.filter(pk=trial.pk, ended_on=None).update(ended_on=max(today, trial.began_on)):
            raise Conflict("It has ended already.")
        trial.refresh_from_db()
        _put_away(trial)
        trial.next_version()
        trial.save()
        account.touch("trials", "ground", "scouting")


def _put_away(trial: Trial) -> None:
    for t in trial.treatments.select_related("area"):
        if t.area and t.area.archived_at is None:
            t.area.archive()
    for spot in Spot.objects.filter(plots__treatment__trial=trial, archived_at=None):
        spot.archive()


def resume(account: Account, trial: Trial) -> None:
    """Go on with a trial that was ended.

    Raises:
        Conflict: it goes on already, or another stands on its ground now.
        InputError: a part's name has been taken in the meantime.
    """
    if trial.ended_on is None:
        raise Conflict("It is under way.")
    other = under_way(account, trial.area)
    if other or trial.area.archived_at is not None:
        raise Conflict(f"The trial “{other.name}” stands on its ground now." if other else "Its ground was put away.")
    with transaction.atomic():
        trial.ended_on = None
        for t in trial.treatments.select_related("area__site"):
            if t.area and t.area.archived_at is not None:
                put_back(t.area)
        for spot in Spot.objects.filter(plots__treatment__trial=trial).exclude(archived_at=None):
            spot.archived_at = None
            spot.next_version()
            spot.save()
        trial.next_version()
        trial.save()
        account.touch("trials", "ground", "scouting")


def remove(account: Account, trial: Trial) -> None:
    """Take a trial out that was begun by mistake.

    Raises:
        Conflict: something was scored or put down; then it is ended.
    """
    whole = Whole(account, trial)
    if whole.scores or any(whole.past.values()):
        raise Conflict("Something was scored or put down on its plots already. End it instead.")
    with transaction.atomic():
        _put_away(trial)
        trial.archive()
        account.touch("trials", "ground", "scouting")
