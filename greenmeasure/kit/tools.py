"""What the kit answers besides calibrations: a nozzle card, a pace to walk to, a setting for a rate, a look half way."""

from core.errors import InputError
from core.label.rate import RateUnit
from core.label.rules import DROPLETS
from core.machines import nozzle, sprayer, spreader, working
from core.machines.runs import summarise
from core.readable import readable
from core.units import AREA, LENGTH, MASS, PRESSURE, SPEED, VOLUME, Quantity, positive, show_number, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.findings import finding_out
from greenmeasure.common.schemas import FactOut, filled, number_in, quantity_in, rate_in, working_out
from greenmeasure.ground.actions import share_in
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.bench_words import (
    FOUR_TIMES,
    LABEL_DECIDES,
    PACE_ASKS,
    drift_text,
    flow_text,
    heavy_spray,
    no_pressure,
    nozzle_puts_down,
    pace_step,
    pressure_text,
    root_step,
    set_to,
    setting_text,
    takes_spraying,
    tip_gives,
    walk_at,
    walked_text,
)
from greenmeasure.kit.benches import new_flow
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import setting_of
from greenmeasure.kit.schemas import MidwayIn, MidwayOut, NozzleIn, NozzleOut, PaceIn, PaceOut, SettingIn, SettingOut
from greenmeasure.shelf.queries import card_of


def nozzle_card(account: Account, data: NozzleIn) -> NozzleOut:
    """What a nozzle gives at a pressure and pace, the pressure for a wanted output, and the droplets for a purpose.

    Raises:
        InputError: a figure at fault, named by its field.
    """
    us = account.us
    pressure = quantity_in("pressure", p, PRESSURE).base if (p := filled(data.pressure)) else nozzle.REFERENCE
    count = positive("count", number_in("count", data.count), most=200)
    gravity = number_in("gravity", data.gravity)
    water = new_flow(data.size, pressure)
    flow = nozzle.of_solution(water, gravity)
    size = nozzle.SIZES[data.size]
    facts = [("Size", f"{size.key}, {size.colour}"), ("Flow of a tip", f"{flow_text(flow, us)} at {pressure_text(pressure, us)}")]
    if count > 1:
        facts.append((f"All {show_number(count)} tips", flow_text(flow * count, us)))
    steps = [root_step(size.flow, water, pressure, us)]
    answer, said = flow_text(flow, us), tip_gives(f"{size.key} {size.colour}", flow, pressure, us)
    notes = [FOUR_TIMES]
    if gravity != 1:
        notes.append(heavy_spray(gravity, flow / water))
    spacing, pace = filled(data.spacing), filled(data.pace)
    if spacing and pace:
        each = quantity_in("spacing", spacing, LENGTH).base
        speed = sprayer.check_pace(quantity_in("pace", pace, SPEED).base)
        unit = working.output_unit(us)
        output = working.rate_of(flow / (each * speed), unit)
        answer = str(output)
        facts += [("Puts down", f"{output}, {output.to(RateUnit.from_key('gal/acre' if us else 'l/ha'))}")]
        said = nozzle_puts_down(speed, pressure, output, us)
        steps += working.flow([flow], speed, each, us)
        if wanted := filled(data.wanted):
            needs = rate_in("wanted", wanted).base * each * speed
            solution = nozzle.water_for(needs, gravity)
            to = nozzle.pressure_for(size.flow, nozzle.REFERENCE, solution)
            best = nozzle.nearest_size(solution, pressure)
            facts += [
                ("For that output", f"{flow_text(needs, us)} a tip, {pressure_text(to, us)} with this tip"),
                ("Nearest tip", f"{best.key} {best.colour} at {pressure_text(pressure, us)}"),
            ]
            if not 100 <= to <= 600:
                notes.append(no_pressure(to, f"{best.key} {best.colour}", us))
    found = _droplets(account, data)
    return NozzleOut(
        sentence=said,
        answer=answer,
        facts=[FactOut(name=n, text=t) for n, t in facts],
        droplets=found.text,
        finest=found.finest,
        coarsest=found.coarsest,
        why=found.why,
        scale=list(DROPLETS),
        notes=[*notes, LABEL_DECIDES],
        working=working_out(tuple(steps)),
    )


def _droplets(account: Account, data: NozzleIn) -> nozzle.Droplets:
    """The droplets for what it is used for; a product that is watered in works in the soil."""
    on_leaf = data.works_on != "soil"
    if not data.works_on and data.product_id:
        on_leaf = not card_of(account, data.product_id).core.rules.watered_in
    near = area_of(account, data.area_id).ground.hazards if data.area_id else ()
    return nozzle.droplets_for(
        on_leaf=on_leaf, systemic=data.systemic, drift=any(h.kind.wet or h.kind == "neighbour" for h in near)
    )


# --- pace -------------------------------------------------------------------------------------------------------


def pace_card(account: Account, machine: Machine, data: PaceIn) -> PaceOut:
    """The pace for an output, the beat from mark to mark, the time for the ground, and drift of what was walked.

    Raises:
        InputError: a figure that is neither typed nor known of the machine.
    """
    us, force = account.us, machine.in_force
    output = rate_in("output", o).base if (o := filled(data.output)) else (machine.output.base if machine.output else None)
    flow = quantity_in("flow", f, VOLUME).base / 60 if (f := filled(data.flow)) else (force.flow if force else None)
    width = quantity_in("width", w, LENGTH).base if (w := filled(data.width)) else machine.swath
    for name, value in (("output", output), ("flow", flow), ("width", width)):
        if value is None:
            raise InputError(name, None, f"The {name} is not known.", PACE_ASKS[name])
    assert output and flow and width
    marks = quantity_in("marks", data.marks, LENGTH).base
    pace = sprayer.pace_for(output, flow, width)
    beat = sprayer.beat(pace, marks)
    facts = [("Pace", working.pace_text(pace, us)), ("Flow", flow_text(flow, us)), ("Swath", working.length_text(width, us))]
    said = walk_at(pace, beat, us)
    if area := filled(data.area):
        ground = quantity_in("area", area, AREA)
        seconds = sprayer.time_for(ground.base, pace, width)
        facts.append((f"Spray on for {ground}", working.time_text(seconds)))
        said += f" {takes_spraying(ground, seconds)}"
    splits = [positive(f"splits.{i}", number_in(f"splits.{i}", s)) for i, s in enumerate(data.splits) if str(s).strip()]
    walked, drift, tired = _walked(splits, marks, beat, us)
    return PaceOut(
        sentence=said,
        answer=working.pace_text(pace, us),
        beat=beat,
        facts=[FactOut(name=n, text=t) for n, t in facts],
        walked=walked,
        drift=drift,
        tired=tired,
        working=working_out((pace_step(output, flow, width, us),)),
    )


def _walked(splits: list[float], marks: float, beat: float, us: bool) -> tuple[str, str, bool]:
    if not splits:
        return "", "", False
    mean = summarise(splits, "splits").mean
    walked = walked_text(len(splits), marks / mean, beat / mean - 1, us)
    if len(splits) < 3:
        return walked, "", False
    slower = sprayer.drift(splits)
    return walked, drift_text(slower), abs(slower) > sprayer.FATIGUE


# --- spreaders --------------------------------------------------------------------------------------------------


def setting_card(account: Account, machine: Machine, data: SettingIn) -> SettingOut:
    """The setting for a rate of product, in so many passes. Raises InputError."""
    rate = rate_in("rate", data.rate)
    if rate.unit.amount.dimension != MASS or not rate.unit.per_area:
        raise InputError("rate", str(rate), "A spreader's rate is a weight of product per area.", "Give it like 3 lb/1000 ft².")
    if not 1 <= data.passes <= 9:
        raise InputError("passes", data.passes, "That is no number of passes.", "Take 1 to 9.")
    product = card_of(account, data.product_id).core
    each = rate.base / data.passes
    found = setting_of(machine, product, each, today(account))
    unit = working.spread_unit(account.us)
    sentence = set_to(machine.name, found, working.rate_of(each, unit), data.passes)
    return SettingOut(sentence=sentence, setting=setting_text(found), findings=[finding_out(f) for f in found.findings])


def midway(account: Account, data: MidwayIn) -> MidwayOut:
    """A look into the hopper or the tank when a part is done. Raises InputError."""
    loaded = quantity_in("loaded", data.loaded, MASS, VOLUME)
    kind = loaded.unit.dimension
    left = quantity_in("left", data.left, kind)
    reserve = quantity_in("reserve", r, kind).base if (r := filled(data.reserve)) else 0.0
    found = spreader.midway(loaded.base, share_in(data.done, "done"), left.base, reserve)
    unit = loaded.unit

    def told(base: float) -> str:
        return str(readable(Quantity(base / unit.size, unit), account.us))

    ends = told(found.ends_with) if found.ends_with >= 0 else f"{told(-found.ends_with)} short"
    return MidwayOut(
        sentence=found.sentence,
        expected=told(found.expected),
        ends_with=ends,
        factor=show_percent(found.factor - 1, sign=True),
        good=abs(found.off) <= 0.05,
    )
