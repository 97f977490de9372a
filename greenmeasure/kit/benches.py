"""Benches: figures as typed into the core's calibrations, and what they come to out again."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from core.errors import InputError
from core.label.rate import Rate, RateUnit
from core.machines import nozzle, pattern, sprayer, spreader, working
from core.machines.pattern import Pattern, Way
from core.machines.runs import Runs, Trust, summarise
from core.units import LENGTH, MASS, PRESSURE, UNITS, VOLUME, Quantity, positive, show_number, show_percent, unit
from core.working import Step
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import FactOut, QuantityIn, filled, number_in, quantity_in, working_out
from greenmeasure.kit.bench_schemas import (
    BenchOut,
    CatchIn,
    DialIn,
    EmptyingIn,
    FlowIn,
    Granules,
    Number,
    PansIn,
    PatternOut,
    RunOut,
    SpacingOut,
    StripIn,
    Timed,
    TipOut,
    TipsIn,
    TrayIn,
    WeightIn,
)
from greenmeasure.kit.bench_words import (
    EVERY_SPACING,
    HEAVY_MEETS_HEAVY,
    TAP,
    THIS_PRODUCT,
    TIPS,
    at_this_dial,
    flow_text,
    one_pass,
    pattern_sentence,
    setting_puts_down,
    soon_walked,
    tips_sentence,
    unusual_water,
)
from greenmeasure.kit.models import Machine

SHORT = 10.0
"""A course walked in less than this [m] is too short to be sure of (common practice, no source)."""
Figures = StripIn | FlowIn | CatchIn | EmptyingIn | DialIn | TipsIn | WeightIn | TrayIn | PansIn


@dataclass(frozen=True)
class Benched:
    """What a bench came to, in the core's units; see `Calibration`."""

    sentence: str
    answer: str
    working: tuple[Step, ...]
    runs: Runs | None = None
    run_texts: tuple[str, ...] = ()
    rate: float | None = None
    also: tuple[str, ...] = ()
    flow: float | None = None
    pace: float | None = None
    swath: float | None = None
    setting: float | None = None
    skewed: bool = False
    facts: tuple[tuple[str, str], ...] = ()
    notes: tuple[str, ...] = ()
    boom: nozzle.Boom | None = None
    tip_unit: str = ""
    found: Pattern | None = None
    way: Way = Way.BACK_AND_FORTH
    spacing: int = 0
    kept: dict[str, Any] = field(default_factory=dict)

    @property
    def trust(self) -> Trust:
        return self.runs.trust if self.runs else Trust.ONE


def bench(machine: Machine, figures: Figures, account: Account) -> Benched:
    """What a bench's figures come to.

    Raises:
        InputError: a figure that is missing or cannot be, named by its field; a bench that is not for this machine.
    """
    dry = isinstance(figures, WeightIn | TrayIn | PansIn)
    if dry == (machine.kind == "sprayer"):
        raise InputError("method", figures.method, f"That is no bench for a {machine.kind}.", "Pick one of the machine's own.")
    work: Callable[[Any, Account], Benched] = _BENCHES[type(figures)]
    return work(figures, account)


def _length(name: str, given: QuantityIn | None) -> float:
    if not filled(given):
        raise InputError(name, None, "A length is missing.", "Measure it, and type it with its unit.")
    assert given
    return quantity_in(name, given, LENGTH).base


def _numbers(name: str, given: Sequence[Number]) -> list[tuple[int, float]]:
    """The numbers typed, each with its place; empty fields are passed over."""
    return [(i, number_in(f"{name}.{i}", v)) for i, v in enumerate(given) if str(v).strip()]


def _amounts(given: Sequence[Number], key: str, dimension: str, name: str = "runs", zero: bool = False) -> list[float]:
    """Amounts typed in one unit, in the core's."""
    found = unit(key, "unit")
    if found.dimension != dimension:
        raise InputError("unit", key, f"{found.symbol} does not measure {dimension}.", "Pick another unit.")
    values = [positive(f"{name}.{i}", v, zero=zero) * found.size for i, v in _numbers(name, given)]
    if not values:
        raise InputError(f"{name}.0", None, "No run is typed yet.", "Take one, and better three.")
    return values


def _seconds(given: Sequence[Number], count: int | None = None, name: str = "seconds") -> list[float]:
    """Times typed [s], one a run.

    Raises:
        InputError: a time of nothing, or times that do not match the runs.
    """
    values = [positive(f"{name}.{i}", v, most=36000, symbol="s") for i, v in _numbers(name, given)]
    if count is not None and len(values) != count:
        raise InputError(
            f"{name}.{min(len(values), count)}", len(values), f"{count} runs and {len(values)} times.", "Give each run its time."
        )
    return values


def _pace(given: Timed) -> float:
    """The pace of a timed distance [m/s]."""
    if not filled(given.distance) or not str(given.pace_seconds).strip():
        raise InputError(
            "pace_seconds",
            None,
            "A bucket and a clock give a flow, and a flow is no rate on ground.",
            "Time a measured distance.",
        )
    seconds = positive("pace_seconds", number_in("pace_seconds", given.pace_seconds), most=3600, symbol="s")
    return sprayer.check_pace(_length("distance", given.distance) / seconds, "pace_seconds")


# --- sprayers ---------------------------------------------------------------------------------------------------


def _strip(f: StripIn, account: Account) -> Benched:
    length, width = _length("length", f.length), _length("width", f.width)
    litres = _amounts(f.runs, f.unit, VOLUME)
    found = sprayer.by_strip(length * width, litres)
    flow = pace = None
    if any(str(s).strip() for s in f.seconds):
        times = _seconds(f.seconds, len(litres))
        pace = sprayer.check_pace(length * len(times) / sum(times), "seconds.0")
        flow = sum(litres) / sum(times)
    return _sprayed(
        found,
        account,
        litres,
        f.unit,
        working.strip(length * width, litres, account.us, working.output_unit(account.us)),
        flow=flow,
        pace=pace,
        swath=width,
    )


def _flow(f: FlowIn, account: Account) -> Benched:
    litres = _amounts(f.runs, f.unit, VOLUME)
    times = _seconds(f.seconds, len(litres))
    pace = _pace(f)
    width = _length("width", f.width)
    found = sprayer.by_flow(litres, times, pace, width)
    steps = working.flow([v / s for v, s in zip(litres, times, strict=True)], pace, width, account.us)
    return _sprayed(found, account, litres, f.unit, steps, flow=found.flow, pace=pace, swath=width, seconds=times)


def _catch(f: CatchIn, account: Account) -> Benched:
    litres = _amounts(f.runs, f.unit, VOLUME)
    found = sprayer.by_catch(f.course, litres)
    course = sprayer.COURSES[f.course]
    far = course.distance(_length("nozzle_width", f.nozzle_width))
    pace = None
    if str(f.walk_seconds).strip():
        seconds = positive("walk_seconds", number_in("walk_seconds", f.walk_seconds), most=3600, symbol="s")
        pace = sprayer.check_pace(far / seconds, "walk_seconds")
    made = _sprayed(found, account, litres, f.unit, working.catch(course, litres), pace=pace)
    walk = working.length_text(far, account.us)
    notes = (soon_walked(walk),) if far < SHORT else ()
    return replace(made, facts=(("Walk", f"{walk} while it is caught"), *made.facts), notes=(*notes, *made.notes))


def _emptying(f: EmptyingIn, account: Account) -> Benched:
    litres = quantity_in("volume", f.volume, VOLUME).base
    times = _seconds(f.seconds)
    if not times:
        raise InputError("seconds.0", None, "No run is timed yet.", "Start the clock with the spray, stop it with the last drop.")
    pace, width = _pace(f), _length("width", f.width)
    found = sprayer.by_emptying(litres, times, pace, width)
    steps = working.emptying(litres, times, pace, width, account.us)
    return _sprayed(found, account, [], "", steps, flow=found.flow, pace=pace, swath=width, seconds=times)


def _sprayed(
    found: sprayer.Calibrated,
    account: Account,
    litres: Sequence[float],
    key: str,
    steps: tuple[Step, ...],
    *,
    flow: float | None = None,
    pace: float | None = None,
    swath: float | None = None,
    seconds: Sequence[float] = (),
) -> Benched:
    rate = working.rate_of(found.output, working.output_unit(account.us))
    texts = [f"{show_number(v / UNITS[key].size)} {UNITS[key].symbol}" for v in litres]
    if seconds:
        clock = [working.time_text(s) for s in seconds]
        texts = [f"{a} in {b}" for a, b in zip(texts, clock, strict=True)] if texts else clock
    facts = [("Flow", flow_text(flow, account.us))] if flow else []
    facts += [("Pace", working.pace_text(pace, account.us))] if pace else []
    facts += [("Swath", working.length_text(swath, account.us))] if swath else []
    notes = []
    usual = (200, 1600)
    per_ha = found.output * 1e4
    if not usual[0] / 2 <= per_ha <= usual[1] * 1.5:
        notes.append(unusual_water(per_ha < usual[0]))
    return Benched(
        one_pass(rate, found.runs),
        str(rate),
        steps,
        found.runs,
        tuple(texts),
        found.output,
        _also(rate, account.us),
        flow,
        pace,
        swath,
        facts=tuple(facts),
        notes=tuple(notes),
    )


def _also(rate: Rate, us: bool) -> tuple[str, ...]:
    """The same output per acre or hectare, and in the other system."""
    other = ("gal/acre", "l/ha") if us else ("l/ha", "l/m2")
    return tuple(str(rate.to(RateUnit.from_key(key))) for key in other)


def _dial(f: DialIn, account: Account) -> Benched:
    dial = quantity_in("dial", f.dial, VOLUME).base / quantity_in("dial_per", f.dial_per, VOLUME).base
    bucket = quantity_in("bucket", f.bucket, VOLUME).base
    flow = bucket / positive("bucket_seconds", number_in("bucket_seconds", f.bucket_seconds), most=3600, symbol="s")
    seconds = positive("seconds", number_in("seconds", f.seconds), most=36000, symbol="s")
    area = quantity_in("area", f.area, "area")
    found = sprayer.by_dial(dial, flow, seconds, area.base)
    small = RateUnit(UNITS["fl_oz" if account.us else "ml"], working.output_unit(account.us).per)
    rate = working.rate_of(found, small)
    spray = working.rate_of(flow * seconds / area.base, working.output_unit(account.us))
    product = Quantity(found * area.base / small.amount.size, small.amount)
    return Benched(
        at_this_dial(rate, spray),
        str(rate),
        working.dial(dial, flow, seconds, area.base, account.us),
        rate=flow * seconds / area.base,
        flow=flow,
        facts=(("Flow", flow_text(flow, account.us)), ("Product in all", str(product)), ("Spray", str(spray))),
        notes=(TAP,),
    )


def _tips(f: TipsIn, account: Account) -> Benched:
    caught = _amounts(f.runs, f.unit, VOLUME, zero=True)
    seconds = positive("seconds", number_in("seconds", f.seconds), most=3600, symbol="s")
    new = None
    if f.nozzle_size and filled(f.pressure):
        assert f.pressure
        new = new_flow(f.nozzle_size, quantity_in("pressure", f.pressure, PRESSURE).base) * seconds
    boom = nozzle.check_tips(caught, new)
    u = UNITS[f.unit]
    bad = boom.bad
    spread = max(abs(t.from_mean) for t in boom.tips)
    facts = [
        ("Mean", f"{show_number(boom.mean / u.size)} {u.symbol}"),
        ("Flow of a tip", flow_text(boom.mean / seconds, account.us)),
    ]
    if new:
        facts.append(("A new tip gives", f"{show_number(new / u.size)} {u.symbol}"))
    count, sound = len(boom.tips), len(boom.tips) - len(bad)
    return Benched(
        tips_sentence(count, spread, [t.number for t in bad]),
        f"{sound} of {count} tips sound",
        (),
        boom=boom,
        tip_unit=f.unit,
        flow=sum(caught) / seconds,
        facts=tuple(facts),
        notes=(TIPS,),
    )


def new_flow(size: str, pressure: float) -> float:
    """What a new tip of a size gives at a pressure [kPa], in L/s.

    Raises:
        InputError: no such size, or a pressure too far from the reference.
    """
    if size not in nozzle.SIZES:
        raise InputError("nozzle_size", size, f"“{size}” is no size of the series.", f"Use one of: {', '.join(nozzle.SIZES)}.")
    try:
        return nozzle.flow_at(nozzle.SIZES[size].flow, nozzle.REFERENCE, pressure)
    except InputError as fault:
        raise fault.on("pressure") from None


# --- spreaders --------------------------------------------------------------------------------------------------


def _setting(given: Number) -> float:
    if not str(given).strip():
        raise InputError("setting", None, "The setting is missing.", "Type what the dial stood at.")
    return positive("setting", number_in("setting", given), zero=True, most=1000)


def _granules(f: Granules, account: Account) -> Benched:
    length, width = _length("length", f.length), _length("width", f.width)
    grams = _amounts(f.runs, f.unit, MASS)
    setting = _setting(f.setting)
    tray = isinstance(f, TrayIn)
    each = [spreader.caught(g, length, width) if tray else spreader.put_down(g, length * width) for g in grams]
    runs = summarise(each)
    unit_ = working.spread_unit(account.us)
    rate = working.rate_of(runs.mean, unit_)
    symbol = UNITS[f.unit].symbol
    return Benched(
        setting_puts_down(setting, rate, runs),
        str(rate),
        working.strip(length * width, grams, account.us, unit_),
        runs,
        tuple(f"{show_number(g / UNITS[f.unit].size)} {symbol}" for g in grams),
        runs.mean,
        (str(rate.to(RateUnit.from_key("lb/acre" if account.us else "kg/ha"))), str(rate.to(RateUnit.from_key("g/m2")))),
        swath=width,
        setting=setting,
        facts=(("Swath", working.length_text(width, account.us)),),
        notes=(THIS_PRODUCT,),
    )


def _pans(f: PansIn, account: Account) -> Benched:
    grams = _amounts(f.runs, f.unit, MASS, zero=True)
    apart = _length("apart", f.apart)
    track = int(positive("track", number_in("track", f.track), most=99)) - 1 if str(f.track).strip() else None
    try:
        found = pattern.pattern(grams, apart, track)
    except InputError as fault:
        raise fault.on(fault.field.replace("pans.", "runs.")) from None
    way = Way(f.way)
    every = pattern.spacings(found, way)
    widest = pattern.widest(found, way)
    wanted = f.spacing if f.spacing not in (None, "") else None
    chosen = int(number_in("spacing", wanted)) if wanted is not None else (widest.pans if widest else every[0].pans)
    now = next((s for s in every if s.pans == chosen), None)
    if now is None:
        raise InputError("spacing", chosen, f"{chosen} pans is no spacing here.", f"Take 2 to {len(grams)}.")
    skewed = pattern.is_skewed(found)
    rate = None
    if filled(f.pan_area):
        assert f.pan_area
        pan = quantity_in("pan_area", f.pan_area, "area").base
        passes = positive("passes", number_in("passes", f.passes), most=50)
        rate = sum(now.swath) / len(now.swath) / pan / passes
    unit_ = working.spread_unit(account.us)
    facts = [
        ("Walk", f"{working.length_text(now.width, account.us)} from track to track"),
        ("CV", f"{show_percent(now.cv, 3)} by n − 1, {show_percent(now.cv_population, 3)} by n"),
        ("Most and least", f"{show_percent(now.peak, sign=True)}, {show_percent(now.trough, sign=True)}"),
        ("Half-rate width", working.length_text(found.half_rate_width, account.us)),
        ("Left of the track", show_percent(found.left_share)),
    ]
    if rate is not None:
        facts.append(("Put down at that spacing", str(working.rate_of(rate, unit_))))
    notes = [EVERY_SPACING, *((HEAVY_MEETS_HEAVY,) if way is Way.BACK_AND_FORTH and skewed else ())]
    return Benched(
        pattern_sentence(found, now, widest is not None, account.us),
        working.length_text(now.width, account.us),
        (),
        rate=rate,
        swath=now.width,
        skewed=skewed,
        also=("from track to track",),
        setting=_setting(f.setting) if str(f.setting).strip() else None,
        facts=tuple(facts),
        notes=tuple(notes),
        found=found,
        way=way,
        spacing=now.pans,
        kept={"grams": grams, "apart_m": apart, "track_at": found.track},
    )


_BENCHES: dict[type, Callable[[Any, Account], Benched]] = {
    StripIn: _strip,
    FlowIn: _flow,
    CatchIn: _catch,
    EmptyingIn: _emptying,
    DialIn: _dial,
    TipsIn: _tips,
    WeightIn: _granules,
    TrayIn: _granules,
    PansIn: _pans,
}


# --- out --------------------------------------------------------------------------------------------------------


def bench_out(method: str, b: Benched, us: bool) -> BenchOut:
    """What a bench came to, in words and numbers."""
    runs = b.runs
    return BenchOut(
        method=method,
        sentence=b.sentence,
        answer=b.answer,
        also=list(b.also),
        trust=b.trust.value,
        verdict=b.runs.sentence if b.runs else "",
        runs=[RunOut(text=text, off=runs.values[i] / runs.mean - 1, odd=runs.odd == i) for i, text in enumerate(b.run_texts)]
        if runs
        else [],
        facts=[FactOut(name=n, text=t) for n, t in b.facts],
        notes=list(b.notes),
        tips=_tips_out(b),
        pattern=_pattern_out(b, us),
        working=working_out(b.working),
    )


def _tips_out(b: Benched) -> list[TipOut]:
    if b.boom is None:
        return []
    u = UNITS[b.tip_unit]
    return [
        TipOut(
            number=t.number,
            caught=f"{show_number(t.catch / u.size)} {u.symbol}",
            from_mean=t.from_mean,
            from_new=t.from_new,
            state=t.state.value,
            sentence=t.sentence,
        )
        for t in b.boom.tips
    ]


def _pattern_out(b: Benched, us: bool) -> PatternOut | None:
    if b.found is None:
        return None
    every = pattern.spacings(b.found, b.way)
    now = next(s for s in every if s.pans == b.spacing)
    most = max(b.found.catches)
    return PatternOut(
        catches=[c / most for c in b.found.catches],
        track=b.found.track,
        apart_m=b.found.apart,
        middle_m=b.found.middle,
        skewed=b.skewed,
        swath=[s / most for s in now.swath],
        mean=sum(now.swath) / len(now.swath) / most,
        spacings=[
            SpacingOut(
                pans=s.pans,
                width=working.length_text(s.width, us),
                metres=s.width,
                cv=s.cv,
                cv_text=show_percent(s.cv),
                cv_n_text=show_percent(s.cv_population),
                verdict=s.verdict,
                chosen=s.pans == b.spacing,
            )
            for s in every
        ],
    )
