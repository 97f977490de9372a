"""What a machine's calibrations are worth on a day: the output or setting in force, and what must be said at use.

A calibration stands for the product, nozzle and setting that it was made with, until it runs out; half a year is common
practice, no source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from core.days import day
from core.errors import InputError
from core.findings import Finding, Weight
from core.label.product import Product
from core.label.rules import DROPLETS
from core.machines.runs import Trust
from core.machines.spreader import Curve, Point, curve, on_dial, rate_at, setting_for
from core.machines.working import time_text
from core.units import UNITS, show_number, show_percent

GOOD_FOR = 182
"""Days that a calibration is good for unless its maker says otherwise."""
DRIFTED = 0.05
"""From here on what rounds really used tells against a calibration."""
FEWEST_USES = 2


@dataclass(frozen=True)
class Test:
    """One calibration as it bears on use: output of a sprayer [L/m²], or what a spreader put down [g/m²] at `setting`.

    `product_id` is the card of what it was made with, None for water; `nozzle` what was fitted.
    """

    on: date
    rate: float
    expires: date | None = None
    product_id: int | None = None
    nozzle: str = ""
    setting: float | None = None
    trust: Trust = Trust.AGREE
    skewed: bool = False


@dataclass(frozen=True)
class Use:
    """What a finished round really put down in one pass [L/m² or g/m²]."""

    on: date
    rate: float


def expiry(on: date, days: int = GOOD_FOR) -> date:
    """The day a calibration runs out."""
    return on + timedelta(days=days)


def assumed(machine: str, output: str) -> Finding:
    """What is said when a sprayer is used whose output nobody has measured or knows.

    Args:
        machine: its name.
        output: what is taken for it, in words.
    """
    said = f"The output of {machine} is assumed to be {output} until it is measured: how much water carries the dose is a guess"
    return Finding("assumed-output", Weight.WARN, f"{said}. Measure it before you trust a load.")


def spraying(machine: str, test: Test | None, nozzle: str, today: date, uses: Sequence[Use] = ()) -> list[Finding]:
    """What is said when a sprayer is used.

    Args:
        machine: its name.
        test: the calibration in force; None where the output was only typed.
        nozzle: what is fitted now.
        today: the day of use.
        uses: what rounds since then really put down, in any order.
    """
    if test is None:
        return [Finding("not-calibrated", Weight.WARN, f"The output of {machine} was typed, not measured. Calibrate it in Kit.")]
    found = [*_old(machine, test, today), *_unsure(machine, test)]
    if nozzle != test.nozzle and (nozzle or test.nozzle):
        was, now = test.nozzle or "no nozzle noted", nozzle or "none is noted"
        found.append(Finding("other-nozzle", Weight.WARN, f"{machine} was calibrated with {was}; now {now}. Calibrate again."))
    since = [u.rate for u in uses if u.on >= test.on]
    off = drifted(test.rate, since)
    if off is not None:
        word = "more" if off > 0 else "less"
        said = f"The last {len(since)} rounds with {machine} put down {show_percent(abs(off))} {word}"
        found.append(Finding("drifting", Weight.WARN, f"{said} than its calibration of {day(test.on)} says. Calibrate again."))
    return found


def hosing(machine: str, test: Test | None, flow: float | None, today: date, us: bool) -> list[Finding]:
    """What is said when a hose-end is used: what it draws into is the tap's, and a tap is not the same twice.

    Args:
        machine: its name.
        test: the calibration in which the hose was timed; None where it never was.
        flow: what the hose gave then [L/s].
        today: the day of use.
        us: whether to say it in US units.
    """
    if test is None or flow is None:
        said = f"The hose of {machine} was never timed: how long to spray is not known. Time it in Kit."
        return [Finding("not-calibrated", Weight.WARN, said)]
    bucket, full = (UNITS["gal"], 2.0) if us else (UNITS["l"], 10.0)
    said = f"{show_number(full)} {bucket.symbol} from {machine} took {time_text(full * bucket.size / flow)} on {day(test.on)}"
    told = f"{said}; flow is the tap's and changes with its pressure. Catch it again here, and before each job."
    return [*_old(machine, test, today), Finding("tap", Weight.NOTE, told)]


def sprays_fit(machine: str, droplets: int | None, mix: Sequence[Product]) -> list[Finding]:
    """What the labels of a mix ask of the droplets that carry it: of the nozzle that is fitted, and of each other.

    Args:
        machine: its name.
        droplets: the class that it makes at its pressure, by its place in `DROPLETS`; None where it is not known.
        mix: what is in the tank.
    """
    asked = [(p, p.rules.droplets) for p in mix if p.rules.droplets != (None, None)]
    coarse = max((x for x in asked if x[1][0] is not None), key=lambda x: x[1][0] or 0, default=None)
    fine = min((x for x in asked if x[1][1] is not None), key=lambda x: x[1][1] or 0, default=None)
    if coarse and fine and (coarse[1][0] or 0) > (fine[1][1] or 0):
        act = Weight.REFUSE if coarse[0].label_binds or fine[0].label_binds else Weight.WARN
        said = f"{coarse[0].name} asks for {_droplets(coarse[1])}, {fine[0].name} for {_droplets(fine[1])}"
        return [Finding("droplets-apart", act, f"{said}: no nozzle suits both. Put them down apart.")]
    if droplets is None:
        return []
    off = [(p, span) for p, span in asked if not (span[0] or 0) <= droplets <= (len(DROPLETS) if span[1] is None else span[1])]
    return [
        Finding(
            "droplets",
            Weight.REFUSE if p.label_binds else Weight.WARN,
            f"{machine} makes {DROPLETS[droplets]} droplets; {p.name} asks for {_droplets(span)}. Fit another nozzle.",
        )
        for p, span in off
    ]


def _droplets(span: tuple[int | None, int | None]) -> str:
    low, high = span
    if low is not None and high is not None:
        return DROPLETS[low] if low == high else f"{DROPLETS[low]} to {DROPLETS[high]}"
    return f"{DROPLETS[low]} or coarser" if low is not None else f"{DROPLETS[high or 0]} or finer"


def drifted(rate: float, uses: Sequence[float]) -> float | None:
    """How far real uses lie from a calibrated rate, as a share, where they are enough and all to one side; else None.

    Args:
        rate: by the calibration [L/m² or g/m²].
        uses: what rounds put down [the same unit].
    """
    offs = [u / rate - 1 for u in uses]
    if len(offs) < FEWEST_USES or not (all(o > 0 for o in offs) or all(o < 0 for o in offs)):
        return None
    mean = sum(offs) / len(offs)
    return mean if abs(mean) > DRIFTED else None


@dataclass(frozen=True)
class Spread:
    """The setting for a rate, the product's curve, and what is said of it; no setting for a rate beyond the tests.

    `printed` is what the bag prints for such a spreader, where nobody has tested the product in this one.
    """

    setting: float | None
    curve: Curve | None
    findings: tuple[Finding, ...]
    printed: str = ""


def skewed_said(machine: str) -> Finding:
    """What is said of a spreader whose latest pan test found its pattern skewed."""
    said = f"The pattern of {machine} is skewed: mend it, or walk with its heavy side over its light side."
    return Finding("skewed", Weight.WARN, said)


OFF_DIAL = 0.02
"""From here on what a dial's own steps make of a rate is told (ours)."""


def spreading(
    machine: str,
    product: Product,
    rate: float,
    tests: Sequence[Test],
    today: date,
    *,
    skewed: bool = False,
    step: float | None = None,
    form: tuple[str, str] = ("", ""),
) -> Spread:
    """The setting of a spreader for a product, and what is said when it is used.

    Args:
        machine: its name.
        product: known by its card; a test of another product is no test of it.
        rate: of one pass [g/m²].
        tests: of every product in this machine.
        today: the day of use.
        skewed: whether its latest pan test found the pattern skewed.
        step: between two clicks of its dial [marks]; the setting is one of them where it is known.
        form: what it is built as, by its key and in words.
    """
    found = []
    if skewed:
        found.append(skewed_said(machine))
    name = product.name
    own = [t for t in tests if t.product_id == product.id and t.setting is not None]
    if not own:
        if printed := next((p.setting for p in product.printed if p.form == form[0]), ""):
            found.append(
                Finding(
                    "printed-setting",
                    Weight.WARN,
                    f"The bag of {name} prints setting {printed} for a {form[1]}. {machine} has not been tested with it: set it "
                    "lower, weigh out an area’s dose, and let the round teach the setting.",
                )
            )
            return Spread(None, None, tuple(found), printed)
        other = " What another product needs is no guide to it." if tests else ""
        found.append(
            Finding(
                "no-setting",
                Weight.WARN,
                f"{name} has not been tested in {machine}: no setting is known.{other} "
                "Weigh out an area’s dose, start nearly shut, and let the round teach the setting.",
            )
        )
        return Spread(None, None, tuple(found))
    if all(t.expires and t.expires < today for t in own):
        found += _old(machine, max(own, key=lambda t: t.on), today)
    tested = None
    try:
        tested = curve(name, [Point(t.setting or 0.0, t.rate) for t in own])
        setting = setting_for(tested, rate)
        if step:
            setting = on_dial(tested, setting, step)
            off = rate_at(tested, setting) / rate - 1
            if abs(off) > OFF_DIAL:
                said = f"Between two clicks of {machine}: {show_number(setting)} puts down {show_percent(off, sign=True)}"
                found.append(Finding("dial-step", Weight.NOTE, f"{said} against the rate."))
        return Spread(setting, tested, tuple(found))
    except InputError as fault:
        found.append(Finding("beyond-tests", Weight.WARN, _beyond(fault, name, machine, rate, tested)))
        return Spread(None, tested, tuple(found))


def _beyond(fault: InputError, product: str, machine: str, rate: float, tested: Curve | None) -> str:
    if tested is None:
        return f"The tests of {product} in {machine} disagree: {fault.sentence}"
    less = rate < tested.points[0].rate
    side, end = ("less", "lower") if less else ("more", "higher")
    return (
        f"A pass of this rate is {side} than any tested of {product} in {machine}, and gates do not open in proportion: "
        f"test a {end} setting."
    )


def _old(machine: str, test: Test, today: date) -> list[Finding]:
    if test.expires is None or test.expires >= today:
        return []
    return [
        Finding(
            "calibration-old",
            Weight.WARN,
            f"The calibration of {machine} of {day(test.on)} {test.on.year} ran out on "
            f"{day(test.expires)} {test.expires.year}. Calibrate again.",
        )
    ]


def _unsure(machine: str, test: Test) -> list[Finding]:
    if test.trust is Trust.DIFFER:
        return [Finding("runs-differ", Weight.WARN, f"The runs of the calibration of {machine} disagree: measure again.")]
    if test.trust is Trust.ONE:
        return [Finding("one-run", Weight.NOTE, f"{machine} was calibrated by one run only; two more would tell its worth.")]
    return []
