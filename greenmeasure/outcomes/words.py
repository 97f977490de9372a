"""Outcomes in words."""

from collections import Counter
from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from core.book.after import How
from core.book.effect import FEW, Became, Effect
from core.book.skill import Looks, Share
from core.days import dated, so_many
from core.disease.model import Model, Risk
from core.readable import joined
from core.units import UNITS, show_number
from greenmeasure.common.schemas import FactOut
from greenmeasure.season.words import name_of
from greenmeasure.sky.words import cost_text

RISKS = {
    Risk.HIGH: "at the threshold or over it",
    Risk.RISING: "rising",
    Risk.LOW: "low",
    Risk.OUTSIDE: "outside the model",
    Risk.TOO_FEW: "not known",
}


def sentence(times: int, looked: int, year: int) -> str:
    """What can be said of a year, in a sentence."""
    if not times:
        return f"Nothing went down against anything in {year}."
    head = f"{times} applications against something in {year}" if times > 1 else f"One application against something in {year}"
    if not looked:
        return f"{head}, and nobody looked after them: nothing can be said."
    return f"{head}, {looked} of them looked at afterwards."


def percent(share: Share) -> str:
    """A share with its interval, and the numbers behind it."""
    if share.value is None:
        return ""
    low, high = share.interval
    return f"{share.value:.0%} ({low:.0%} to {high:.0%}), {share.part} of {share.of}"


def pressure_text(counted: Counter[Risk]) -> str:
    """How the model stood on the days of applications."""
    return joined([f"{n} {RISKS[risk]}" for risk, n in counted.most_common()])


def answers_text(counted: Counter[How]) -> str:
    """How it was said to be afterwards."""
    return joined([f"{how.text} {n}" for how, n in counted.most_common()])


def seen_text(found: Effect) -> str:
    """What looks within cover found."""
    if not found.clear.of:
        return "Nobody looked"
    low, high = found.clear.interval
    return f"Clear on {found.clear.part} of {found.clear.of} looks ({low:.0%} to {high:.0%})"


def verdict_text(found: Effect) -> str:
    """What may be said of a product, and how many more it would take."""
    if found.enough:
        return ""
    more = FEW - found.looked
    return f"Too few to judge: {more} more {'application' if more == 1 else 'applications'} looked at would do."


def lapse_text(on: date, area: str, gone: int) -> str:
    """That a thing was seen under cover."""
    return f"Seen on {area}, {dated(on)}, {so_many(gone)} after it went down"


def money(found: Decimal | None, currency: str) -> str:
    """A cost; empty where it is not known."""
    return cost_text(found, currency) if found is not None else ""


def per_day_text(found: Effect, currency: str, us: bool) -> str:
    """The cost of a protected day, and on the ground that rates are told on."""
    unit = UNITS["kft2" if us else "m2_100"]
    each = found.per_day_on(unit.size)
    if found.per_day is None or each is None:
        return ""
    return f"{money(found.per_day, currency)}, {money(each, currency)} on {unit.symbol}"


def untold_text(count: int) -> str:
    """That some applications do not say what they were against."""
    if not count:
        return ""
    if count == 1:
        return "One application does not say what it was against, and is not told here."
    return f"{count} applications do not say what they were against, and are not told here."


# --- forecasts --------------------------------------------------------------------------------------------------


def skill_text(model: Model, looks: Looks) -> str:
    """What a model did, or how many looks it would take to say."""
    if not looks.seen + looks.unseen:
        return "Nobody looked for it, so nothing can be said of the forecast."
    with_it, without = looks.lacking
    if with_it or without:
        wanted = joined([f"{n} more that {how}" for n, how in ((with_it, "find it"), (without, "find none")) if n])
        return f"{looks.seen} looks found it and {looks.unseen} did not: too few to judge. It would take {wanted}."
    low, high = looks.skill_interval or (-1.0, 1.0)
    if low > 0:
        return (
            f"It tells days with it from days without: skill {looks.skill:.2f} ({low:.2f} to {high:.2f}; 0 is a coin, 1 perfect)."
        )
    return f"No skill could be shown here: {looks.skill:.2f} ({low:.2f} to {high:.2f}). That is not the same as none."


def skill_facts(looks: Looks) -> list[FactOut]:
    """The numbers behind a skill."""
    facts = [
        FactOut(name="Forecast and seen", text=str(looks.hits)),
        FactOut(name="Forecast, not seen", text=str(looks.false_alarms)),
        FactOut(name="Seen, not forecast", text=str(looks.misses)),
        FactOut(name="Neither", text=str(looks.quiet)),
        FactOut(name="Of what was seen, forecast", text=percent(looks.found)),
        FactOut(name="Of what was forecast, not seen", text=percent(looks.false_share)),
    ]
    if looks.bias is not None:
        facts.append(FactOut(name="Forecast for each time seen", text=show_number(looks.bias, 2)))
    return [f for f in facts if f.text]


def skill_number(looks: Looks) -> str:
    """A skill, where there is enough to say."""
    return f"{looks.skill:.2f}" if looks.enough and looks.skill is not None else ""


def short(share: Share) -> str:
    """A share alone."""
    return "" if share.value is None else f"{share.value:.0%}"


def left_out_text(covered: int, unknown: int) -> list[str]:
    """Which looks say nothing of a forecast."""
    found = []
    if covered:
        found.append(f"{covered} under cover: what is held off proves no false alarm.")
    if unknown:
        found.append(f"{unknown} without weather of the week before.")
    return found


# --- plans ------------------------------------------------------------------------------------------------------


def plan_title(product: str, area: str, disease: str) -> str:
    """A planned window in words."""
    return f"{product} on {area}, against {name_of(disease).lower()}"


def window_text(begin: date, end: date) -> str:
    """The days of a window."""
    return dated(begin) if begin == end else f"{dated(begin)} to {dated(end)}"


def became_text(became: Became, on: date | None, end: date) -> str:
    """What became of a plan."""
    if became is Became.LATE and on is not None:
        return f"{so_many((on - end).days)} late, on {dated(on)}"
    if became is Became.DONE and on is not None:
        return f"Done on {dated(on)}"
    return became.text


def kept_facts(counted: Counter[Became]) -> list[FactOut]:
    """What became of plans, counted."""
    return [FactOut(name=b.text, text=str(counted[b])) for b in Became if counted[b]]


def area_names(names: Sequence[str]) -> str:
    """Areas in words, each once."""
    return joined(list(dict.fromkeys(names)))
