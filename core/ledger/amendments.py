"""Soil amendments at the gate: what they do not do, what the soil does not need, and the most that turf stands.

The knowledge is the pH planner's: `core.soil.ph` and its tables. Caps are of the house: above one a plan is refused.
"""

from collections.abc import Sequence

from core.days import so_many
from core.findings import Finding, Weight
from core.ground import Ground
from core.label.product import Kind, Product
from core.label.rate import Basis
from core.label.targets import find_target
from core.ledger.history import Applied
from core.rates.nutrients import said
from core.schools import House
from core.soil.ph import SULFUR, SULFUR_GREEN, WILL_NOT, aim_of
from core.units import show_number

ELEMENTAL = 50.0
"""A share of sulfur [%] that no sulfate reaches: the element (ammonium sulfate holds 24 %, gypsum 19 %, from their formulas)."""
SEEDLINGS = 42
"""Days from sowing in which a pesticide on a carrier sets seedlings back, its label silent (common practice, no source)."""


def amended(product: Product, plan: Applied, ground: Ground, season: Sequence[Applied], house: House, us: bool) -> list[Finding]:
    """What is known of an amendment on a soil.

    Args:
        product: that goes down.
        plan: what it brings.
        ground: whose pH is known, or not.
        season: what else goes down there this season.
        house: whose school of pH, and whose caps, are kept.
        us: whether to speak in US units.
    """
    return [
        *_gypsum(product, plan.target),
        *_sulfur(product, plan, ground, season, (house, us)),
        *_on_seedlings(product, plan, ground),
    ]


def is_sulfur(product: Product) -> bool:
    """Whether it is elemental sulfur, which makes a soil more acid."""
    content = product.content(Basis.S)
    return product.is_a(Kind.AMENDMENT) and content is not None and (content.percent or 0.0) >= ELEMENTAL


def _gypsum(product: Product, target: str) -> list[Finding]:
    wanted = find_target(target)
    gypsum = product.is_a(Kind.AMENDMENT) and product.content(Basis.CA) and product.content(Basis.S)
    if not gypsum or wanted is None or wanted.key != "soil_ph":
        return []
    return [Finding("gypsum-for-ph", Weight.WARN, f"{WILL_NOT[0]} Liming lifts a low pH; sulfur lowers a high one.")]


def _sulfur(product: Product, plan: Applied, ground: Ground, season: Sequence[Applied], how: tuple[House, bool]) -> list[Finding]:
    if not is_sulfur(product):
        return []
    house, us = how
    found, here = [], plan.nutrients.get(Basis.S, 0.0)
    caps = SULFUR_GREEN if ground.use == "green" else SULFUR
    where = "on a green" if ground.use == "green" else "on turf"
    year = here + sum(a.nutrients.get(Basis.S, 0.0) for a in season if a.is_a(Kind.AMENDMENT) and not a.nutrients.get(Basis.CA))
    for key, amount, most, when in (("once", here, caps.once, "at once"), ("year", year, caps.year, "a year")):
        if amount > most * (1 + 1e-6):
            free = max(0.0, most - (amount - here))
            told = f"{said(amount, us)} of sulfur {where} is more than the most {when}, {said(most, us)}: it burns roots."
            found.append(Finding(f"sulfur-{key}", Weight.REFUSE, f"{told} At most {said(free, us)} now."))
    if ground.ph is None:
        ask = (
            f"The pH of {ground.name} is not known. Read it before sulfur goes down: in a soil that is not alkaline it does harm."
        )
        return [*found, Finding("ph-unknown", Weight.ASK, ask)]
    aim = aim_of(ground.ph, ground.sward, house)
    if aim is None or aim >= ground.ph:
        stands = f"{ground.grass_name.lower()} stands that, and the house leaves it"
        told = f"The pH of {ground.name} is {show_number(ground.ph, 3)}: {stands}."
        found.append(Finding("sulfur-not-needed", Weight.WARN, told))
    return found


def _on_seedlings(product: Product, plan: Applied, ground: Ground) -> list[Finding]:
    """A fertiliser with a pesticide in it on young grass, where its label gives no number of days."""
    sown = ground.sown_by(plan.on)
    if not product.is_a(Kind.FERTILISER) or not product.label_binds or sown is None or product.rules.seed_after is not None:
        return []
    days = (plan.on - sown).days
    if days >= SEEDLINGS:
        return []
    told = f"{ground.name} was sown {so_many(days)} ago, and {product.name} holds a pesticide: it sets seedlings back."
    return [Finding("on-seedlings", Weight.WARN, f"{told} Look on the label how old they must be.")]
