"""Benches and tools as one says them: what a machine puts down, its tips, its pattern, its pace, its setting."""

from collections.abc import Sequence

from core.label.rate import Rate
from core.machines import nozzle, pattern, sprayer, standing, working
from core.machines.pattern import Pattern, Spacing
from core.machines.runs import Runs
from core.units import UNITS, Quantity, show_number, show_percent
from core.working import Step, Term, divided_by, line, times


def flow_text(flow: float, us: bool) -> str:
    """A flow [L/s] as it is caught: gal or L a minute."""
    amount = UNITS["gal" if us else "l"]
    return f"{show_number(flow * 60 / amount.size)} {amount.symbol}/min"


def pressure_text(kpa: float, us: bool) -> str:
    """A pressure as its gauge shows it: psi or bar."""
    unit = UNITS["psi" if us else "bar"]
    return f"{show_number(kpa / unit.size, 3)} {unit.symbol}"


def setting_text(found: standing.Spread) -> str:
    """A setting as a dial is turned to it, a bag's told apart from one of a test; empty where none is known."""
    if found.setting is None:
        return f"{found.printed} as printed, not tested" if found.printed else ""
    return show_number(round(found.setting, 2))


TAP = "A tap's pressure changes through the day: time the bucket again before each job."


TIPS = "Catch them all at the working pressure, for the same time. Change worn tips as a set."


THIS_PRODUCT = "It holds for this product, as dry and as grained as it is today, at this pace."


EVERY_SPACING = "The CV does not fall and rise once: every spacing that the pans can tell was tried."


HEAVY_MEETS_HEAVY = "Going back and forth, heavy side meets heavy side. Round and round, heavy meets light."


def soon_walked(walk: str) -> str:
    """That a course is so short that a step counts."""
    return f"{walk} is soon walked: a slip of a step counts much. A larger course is surer."


def unusual_water(little: bool) -> str:
    """That an output is far from what is usual on turf."""
    return f"That is {'little' if little else 'much'} water for turf; check the units and the ground."


def one_pass(rate: Rate, runs: Runs) -> str:
    """What one pass of a sprayer puts down, and how its runs agree."""
    return f"One pass puts down {rate}. {runs.sentence}"


def at_this_dial(rate: Rate, spray: Rate) -> str:
    """What a hose-end puts down at its dial."""
    return f"At this dial and time {rate} of product goes down, in {spray} of spray."


def tips_sentence(count: int, spread: float, bad: Sequence[int]) -> str:
    """How far tips are from their mean [share], and which of them, by their numbers, are to mend."""
    said = f"{tip_names(bad)} to mend." if bad else "Every tip is sound."
    return f"{count} tips, up to {show_percent(spread)} from their mean. {said}"


def setting_puts_down(setting: float, rate: Rate, runs: Runs) -> str:
    """What a spreader puts down at a setting of its dial [marks], and how its runs agree."""
    return f"Setting {show_number(setting)} puts down {rate}. {runs.sentence}"


def pattern_sentence(found: Pattern, now: Spacing, even: bool, us: bool) -> str:
    """How even passes are at a spacing, whether any spacing is even enough, and whether the pattern is skewed."""
    said = [f"Passes {working.length_text(now.width, us)} apart: {now.verdict}, CV {show_percent(now.cv)}."]
    if not even:
        said.append("No spacing is even enough: mend the pattern first.")
    if pattern.is_skewed(found):
        side = "right" if found.middle > 0 else "left"
        share = found.left_share if side == "left" else 1 - found.left_share
        said.append(f"It throws {show_percent(share)} to the {side}: skewed.")
    return " ".join(said)


def tip_names(numbers: Sequence[int]) -> str:
    """Tips by their numbers, with their verb: Tips 2, 3 and 7 are."""
    if len(numbers) == 1:
        return f"Tip {numbers[0]} is"
    return f"Tips {', '.join(map(str, numbers[:-1]))} and {numbers[-1]} are"


def root_step(flow: float, found: float, pressure: float, us: bool) -> Step:
    """A tip's flow at a pressure [kPa] from its size's own: both flows [L/s]."""
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


FOUR_TIMES = "Twice the flow takes four times the pressure; change the tip rather than the pressure."


LABEL_DECIDES = "Where the label names a nozzle, a class of droplets or a pressure, the label decides."


PACE_ASKS = {
    "output": "Type the output that is wanted.",
    "flow": "Time a bucket: what comes out in a minute?",
    "width": "Measure the wetted swath.",
}
"""What to do about a figure that a pace needs, by its field."""


AS_WANTED = 0.005
"""A pace closer than this share to the one wanted is just that."""


def tip_gives(tip: str, flow: float, pressure: float, us: bool) -> str:
    """What a tip gives [L/s] at a pressure [kPa]."""
    return f"A {tip} tip gives {flow_text(flow, us)} at {pressure_text(pressure, us)}."


def heavy_spray(gravity: float, share: float) -> str:
    """How much less of a spray of some specific gravity [-] flows than of water: its share of water's flow [-]."""
    return f"A spray of {show_number(gravity)} times water's weight flows {show_percent(share - 1, sign=True)}."


def nozzle_puts_down(pace: float, pressure: float, output: Rate, us: bool) -> str:
    """What a nozzle puts down at a pace [m/s] and a pressure [kPa]."""
    return f"At {working.pace_text(pace, us)} and {pressure_text(pressure, us)} it puts down {output}."


def no_pressure(pressure: float, tip: str, us: bool) -> str:
    """That a pressure [kPa] is none to spray at, and the tip to take."""
    return f"{pressure_text(pressure, us)} is no pressure to spray at: take the {tip} tip."


def walk_at(pace: float, beat: float, us: bool) -> str:
    """The pace [m/s] to walk, and the beat [s] from mark to mark."""
    return f"Walk {working.pace_text(pace, us)}: a mark every {working.time_text(beat)}."


def takes_spraying(ground: Quantity, seconds: float) -> str:
    """How long [s] the spray is on for a ground."""
    return f"{ground} takes {working.time_text(seconds)} of spraying, turns not counted."


def walked_text(count: int, pace: float, off: float, us: bool) -> str:
    """At what pace [m/s] stretches were walked, and what it does where it is off [share] the one wanted."""
    too = "fast: less goes down" if off > 0 else "slow: more goes down"
    effect = "" if abs(off) < AS_WANTED else f", {show_percent(abs(off))} too {too}"
    return f"{count} stretch{'es' if count > 1 else ''} walked at {working.pace_text(pace, us)}{effect}."


def drift_text(slower: float) -> str:
    """How much slower [share] the walk was at its end than at its start, and what to do."""
    if abs(slower) <= sprayer.FATIGUE:
        return "The pace held from the first mark to the last."
    word = "slower" if slower > 0 else "faster"
    return f"The pace drifted: {show_percent(abs(slower))} {word} at the end than at the start. Rest, and take the beat again."


def set_to(machine: str, found: standing.Spread, each: Rate, passes: int) -> str:
    """What to set a spreader to for a rate of each pass; that none is known where none is."""
    part = f" for {each} in each of {passes} passes" if passes > 1 else f" for {each}"
    return f"No setting is known{part}." if found.setting is None else f"Set {machine} to {setting_text(found)}{part}."


def pace_step(output: float, flow: float, width: float, us: bool) -> Step:
    """The pace for an output [L/m²] from a flow [L/s] over a width [m]."""
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
