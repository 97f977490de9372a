"""What the API of outcomes gives."""

from datetime import date
from typing import Literal

from greenmeasure.common.schemas import FactOut, Out


class EffectOut(Out):
    """What came of a product against one thing; `shares` and costs in words, empty where they are not known."""

    product_id: int | None
    product: str
    target: str
    times: int
    areas: str
    pressure: str
    seen: str
    answers: str
    protected: str
    cost: str
    per_day: str
    lapses: list[str]
    verdict: str


class TriedOut(Out):
    """A threshold that was tried on the looks that were: what it would have foretold. `own` is the one in use."""

    threshold: str
    own: bool
    best: bool
    hits: int
    false_alarms: int
    misses: int
    quiet: int
    found: str
    false_share: str
    skill: str


class SkillOut(Out):
    """How a model did against what was seen on a site: `found_low` to `found_high` is what to draw, from 0 to 1."""

    disease: str
    model: str
    site: str
    areas: str
    text: str
    enough: bool
    found: float | None
    found_low: float
    found_high: float
    facts: list[FactOut]
    tried: list[TriedOut]
    left_out: list[str]


class PlanKeptOut(Out):
    """What became of a planned window."""

    id: int
    title: str
    area_id: int
    window: str
    became: Literal["done", "late", "skipped", "dropped", "ahead"]
    text: str


class OutcomesOut(Out):
    """Did it work? `years` can be asked for; effects and plans are of one, forecasts of all the weather that is known."""

    sentence: str
    year: int
    years: list[int]
    first: date
    last: date
    effects: list[EffectOut]
    untold: str
    skills: list[SkillOut]
    plans: list[PlanKeptOut]
    kept: list[FactOut]
