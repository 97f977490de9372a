"""The kit as one says it: how an output is known, what was last in a machine, flows, pressures and settings."""

from collections import Counter

from core import job
from core.days import dated
from core.machines.nozzle import REFERENCE
from core.machines.residue import CleanStep, Residue
from core.machines.working import length_text, pace_text
from core.readable import joined
from core.tank.vessels import TRUE
from core.units import UNITS, VOLUME, show_number, show_percent
from greenmeasure.kit.bench_words import flow_text
from greenmeasure.kit.models import Calibration, Machine, Vessel

UNMEASURED = ("not-calibrated", "assumed-output")
"""Findings of machines that were never measured, which is no news of a day."""


def state(machine: Machine) -> str:
    """How a machine's output is known, in a few words."""
    if machine.kind == job.MachineKind.SPRAYER:
        found = machine.in_force
        if found is None:
            return _unmeasured(machine)
        return f"{found.get_method_display()}, {dated(found.taken_on)}"
    tested = {c.product_id for c in machine.calibrations.all() if c.in_use and c.setting is not None and c.product_id}
    if not tested:
        return "no product tested"
    return "one product tested" if len(tested) == 1 else f"{len(tested)} products tested"


def _unmeasured(machine: Machine) -> str:
    if machine.typed_output is None:
        return "not known yet"
    return "assumed until measured" if machine.assumed else "typed, not measured"


def setup_of(machine: Machine, us: bool) -> tuple[tuple[str, str], ...]:
    """How a machine is set up, as the sheet tells it: nozzle, pressure, pace, swath, flow; only what is known."""
    found, timed = machine.in_force, machine.timed
    facts = {
        "Nozzle": machine.nozzle,
        "Pressure": str(machine.pressure or ""),
        "Output of a pass": f"{machine.output or ''}{', assumed' if machine.assumed else ''}",
        "Pace": pace_text(found.pace, us) if found and found.pace else "",
        "Swath": length_text(machine.swath, us) if machine.swath else "",
        "Flow of the hose": flow_text(timed.flow, us) if machine.draws and timed and timed.flow else "",
    }
    return tuple((name, value) for name, value in facts.items() if value)


def tank_text(residue: Residue | None) -> str:
    """What was last in a machine, when, and whether it is cleaned of it and of what was before; empty where nothing is known."""
    if residue is None:
        return ""
    last, worst = residue.last, residue.worst
    said = f"{last.name}, {dated(last.on)}"
    if not worst.missing:
        return f"{said}; cleaned"
    return f"{said}; to be cleaned" if worst is last else f"{said}; to be cleaned of {worst.name}, {dated(worst.on)}"


def traces(machine: str, product: str) -> str:
    """That a herbicide was last in a machine, and what to do."""
    return f"{machine} still holds traces of {product}: clean it."


def with_what(c: Calibration) -> str:
    """What was in the machine: the product of the bench or of the round, else water."""
    if c.round:
        return joined([m.product.name for m in c.round.mix.all()])
    return c.product.name if c.product else "water"


def tank_sentence(residue: Residue | None, machine: str) -> str:
    """What was last in a machine, and how much cleaning is still to do, and of what."""
    if residue is None:
        return f"Nothing is known to have been in {machine}."
    last, worst = residue.last, residue.worst
    count = len(worst.missing)
    to_do = "one step of cleaning is" if count == 1 else f"{count} steps of cleaning are"
    of = "" if worst is last else f" after {worst.name} ({worst.kind.text}), {dated(worst.on)}"
    said = f"{to_do} still to do{of}." if worst.missing else "it is cleaned of it."
    return f"Last in it: {last.name} ({last.kind.text}), {dated(last.on)}; {said}"


def cleaned_text(done: tuple[CleanStep, ...]) -> str:
    """The steps of a cleaning that were done, in words."""
    words = {"rinse": "rinsed", "cleaner": "tank cleaner", "screens": "screens and nozzles washed", "brush": "brushed out"}
    counted = Counter(s.value for s in done)
    return ", ".join(f"{words[k]}{f' {n} times' if n > 1 else ''}" for k, n in counted.items())


def vessel_state(vessel: Vessel) -> str:
    """What is known of a vessel's marks."""
    if vessel.holds.unit.dimension != VOLUME:
        return ""
    if vessel.off is None or vessel.checked_on is None:
        return "not checked with water yet"
    good = "true" if abs(vessel.off) <= TRUE else f"they hold {show_percent(vessel.off, sign=True)}, doses go by that"
    return f"{good}, {dated(vessel.checked_on)}"


def reference_text(us: bool) -> str:
    """The pressure at which a tip's size is told."""
    return f"{show_number(REFERENCE / UNITS['psi'].size, 3)} psi" if us else "3 bar"
