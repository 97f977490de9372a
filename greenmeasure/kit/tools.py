"""What the kit answers besides calibrations: a nozzle card, a pace to walk to, a setting for a rate, a look half way."""

from core.errors import InputError
from core.label.rate import Rate, RateUnit
from core.machines import nozzle, sprayer, spreader, working
from core.machines.runs import summarise
from core.readable import readable
from core.units import AREA, LENGTH, MASS, PRESSURE, SPEED, UNITS, VOLUME, Quantity, positive, show_number, show_percent
from core.working import Step, Term, divided_by, line, times
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.findings import finding_out
from greenmeasure.common.schemas import FactOut, filled, number_in, quantity_in, rate_in, working_out
from greenmeasure.ground.actions import share_in
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.benches import new_flow
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import setting_of
from greenmeasure.kit.schemas import MidwayIn, MidwayOut, NozzleIn, NozzleOut, PaceIn, PaceOut, SettingIn, SettingOut
from greenmeasure.kit.words import flow_text, pressure_text, setting_text
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
    steps = [_root(size.flow, water, pressure, us)]
    answer, said = (
        flow_text(flow, us),
        f"A {size.key} {size.colour} tip gives {flow_text(flow, us)} at {pressure_text(pressure, us)}.",
    )
    notes = ["Twice the flow takes four times the pressure; change the tip rather than the pressure."]
    if gravity != 1:
        notes.append(f"A spray of {show_number(gravity)} times water's weight flows {show_percent(flow / water - 1, sign=True)}.")
    spacing, pace = filled(data.spacing), filled(data.pace)
    if spacing and pace:
        each = quantity_in("spacing", spacing, LENGTH).base
        speed = sprayer.check_pace(quantity_in("pace", pace, SPEED).base)
        unit = working.output_unit(us)
        output = working.rate_of(flow / (each * speed), unit)
        answer = str(output)
        facts += [("Puts down", f"{output}, {output.to(RateUnit.from_key('gal/acre' if us else 'l/ha'))}")]
        said = f"At {working.pace_text(speed, us)} and {pressure_text(pressure, us)} it puts down {output}."
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
                notes.append(f"{pressure_text(to, us)} is no pressure to spray at: take the {best.key} {best.colour} tip.")
    found = _droplets(account, data)
    return NozzleOut(
        sentence=said,
        answer=answer,
        facts=[FactOut(name=n, text=t) for n, t in facts],
        droplets=found.text,
        finest=found.finest,
        coarsest=found.coarsest,
        why=found.why,
        scale=list(nozzle.DROPLETS),
        notes=[*notes, "Where the label names a nozzle, a class of droplets or a pressure, the label decides."],
        working=working_out(tuple(steps)),
    )


def _root(flow: float, found: float, pressure: float, us: bool) -> Step:
    amount = UNITS["gal" if us else "l"]
    gauge = UNITS["psi" if us else "bar"]
    a_minute = f"{amount.symbol}/min"
    ratio = pressure / nozzle.REFERENCE
    return line(
        "Flow: the size’s own × the square root of the pressures’ ratio",
        Term(flow * 60 / amount.size, a_minute),
        times(ratio**0.5),
        result=Term(found * 60 / amount.size, a_minute),
        note=f"√({show_number(pressure / gauge.size, 3)} ÷ {show_number(nozzle.REFERENCE / gauge.size, 3)} {gauge.symbol})",
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
    asks = (
        ("output", output, "Type the output that is wanted."),
        ("flow", flow, "Time a bucket: what comes out in a minute?"),
        ("width", width, "Measure the wetted swath."),
    )
    for name, value, ask in asks:
        if value is None:
            raise InputError(name, None, f"The {name} is not known.", ask)
    assert output and flow and width
    marks = quantity_in("marks", data.marks, LENGTH).base
    pace = sprayer.pace_for(output, flow, width)
    beat = sprayer.beat(pace, marks)
    facts = [("Pace", working.pace_text(pace, us)), ("Flow", flow_text(flow, us)), ("Swath", working.length_text(width, us))]
    said = f"Walk {working.pace_text(pace, us)}: a mark every {working.time_text(beat)}."
    if area := filled(data.area):
        ground = quantity_in("area", area, AREA)
        seconds = sprayer.time_for(ground.base, pace, width)
        facts.append((f"Spray on for {ground}", working.time_text(seconds)))
        said += f" {ground} takes {working.time_text(seconds)} of spraying, turns not counted."
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
        working=working_out((_pace_step(output, flow, width, us),)),
    )


def _pace_step(output: float, flow: float, width: float, us: bool) -> Step:
    unit, length = working.output_unit(us), UNITS["ft" if us else "m"]
    amount, foot = unit.amount, unit.per
    assert foot
    square = UNITS["ft2" if us else "m2"]
    a_minute, rate, swath = flow * 60 / amount.size, output / unit.size, width / length.size
    pace = a_minute / rate * (foot.size / square.size) / swath
    return line(
        "Pace: flow ÷ output ÷ swath",
        Term(a_minute, f"{amount.symbol}/min"),
        divided_by(rate, amount.symbol, foot.symbol),
        times(foot.size / square.size, square.symbol, foot.symbol),
        divided_by(swath, length.symbol),
        result=Term(pace, f"{length.symbol}/min"),
    )


def _walked(splits: list[float], marks: float, beat: float, us: bool) -> tuple[str, str, bool]:
    if not splits:
        return "", "", False
    mean = summarise(splits, "splits").mean
    off = beat / mean - 1
    effect = (
        ""
        if abs(off) < 0.005
        else f", {show_percent(abs(off))} too {'fast: less goes down' if off > 0 else 'slow: more goes down'}"
    )
    walked = f"{len(splits)} stretch{'es' if len(splits) > 1 else ''} walked at {working.pace_text(marks / mean, us)}{effect}."
    if len(splits) < 3:
        return walked, "", False
    slower = sprayer.drift(splits)
    if abs(slower) <= sprayer.FATIGUE:
        return walked, "The pace held from the first mark to the last.", False
    word = "slower" if slower > 0 else "faster"
    return (
        walked,
        f"The pace drifted: {show_percent(abs(slower))} {word} at the end than at the start. Rest, and take the beat again.",
        True,
    )


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
    part = (
        f" for {working.rate_of(each, unit)} in each of {data.passes} passes"
        if data.passes > 1
        else f" for {Rate(each / unit.size, unit)}"
    )
    if found.setting is None:
        sentence = f"No setting is known{part}."
    else:
        sentence = f"Set {machine.name} to {setting_text(found)}{part}."
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
