"""How much of a nutrient one application and one season should bring, and what to say when it is more.

Limits per application and per season are common practice, no source; they warn. An account's closed times refuse: they
stand for local law. Amounts inside are g/m²; 1 lb/1000 ft² is 4.8824 g/m².
"""

from collections.abc import Sequence
from datetime import date

from core.days import day
from core.errors import Choice
from core.findings import Finding, Weight
from core.ground import Ground, Stress
from core.label.product import Kind, Product
from core.label.rate import K_IN_K2O, P_IN_P2O5, Basis
from core.schools import PLAIN, Closed, House
from core.units import UNITS, show_number

LB_PER_1000 = UNITS["lb"].size / UNITS["kft2"].size
"""One lb/1000 ft² [g/m²]."""

N_ONCE, N_QUICK, N_GREEN, N_SPOON, N_ON_LEAF = (x * LB_PER_1000 for x in (1.0, 0.7, 0.3, 0.25, 0.25))
"""Most N in one application [g/m²]: in all, quick, on greens, spoon-fed, and sprayed on the leaf without watering in."""
K2O_ONCE = 1.0 * LB_PER_1000
FE_ONCE = 0.05 * LB_PER_1000

SEASON_N: dict[str, tuple[float, float]] = {
    "kentucky_bluegrass": (2, 4),
    "tall_fescue": (2, 4),
    "perennial_ryegrass": (2, 4),
    "fine_fescue": (1, 2),
    "creeping_bentgrass": (2, 5),
    "colonial_bentgrass": (1, 3),
    "annual_bluegrass": (3, 5),
    "bermudagrass": (2, 5),
    "zoysiagrass": (1, 3),
    "st_augustinegrass": (2, 5),
    "centipedegrass": (0.5, 2),
    "buffalograss": (0, 2),
    "bahiagrass": (1, 3),
    "seashore_paspalum": (2, 4),
    "mixed": (1, 4),
}
"""N a season by grass [lb/1000 ft²], from least to most (extension teaching, from memory; climate dependent)."""


def brought(product: Product, g_per_m2: dict[Basis, float]) -> dict[Basis, float]:
    """What a dose brings by nutrient [g/m²], with P and K told as the oxides that labels and laws count.

    Args:
        product: that brings them.
        g_per_m2: of each nutrient [g/m²].
    """
    found = dict(g_per_m2)
    for element, oxide, share in ((Basis.P, Basis.P2O5, P_IN_P2O5), (Basis.K, Basis.K2O, K_IN_K2O)):
        if element in found:
            found[oxide] = found.get(oxide, 0.0) + found.pop(element) / share
    return found


def once(
    product: Product, g_per_m2: dict[Basis, float], ground: Ground, on: date, house: House = PLAIN, us: bool = True
) -> list[Finding]:
    """What one application's nutrients call for.

    Args:
        product: with its composition and its water-in rule.
        g_per_m2: what the dose brings [g/m²], from `brought`.
        ground: where it goes.
        on: the day.
        house: the account's rules.
        us: whether to say it in lb/1000 ft².
    """
    return [
        *_nitrogen(product, g_per_m2.get(Basis.N, 0.0), ground, house, us),
        *_others(product, g_per_m2, ground, house, us),
        *_closed(g_per_m2, on, house.closed),
    ]


def said(g: float, us: bool) -> str:
    """An amount per area [g/m²] in words.

    Args:
        g: of a nutrient per area [g/m²].
        us: whether to say it in US units.
    """
    return f"{show_number(g / LB_PER_1000, 3)} lb/1000 ft²" if us else f"{show_number(g * 100, 3)} g/100 m²"


def _nitrogen(product: Product, n: float, ground: Ground, house: House, us: bool) -> list[Finding]:
    if n <= 0:
        return []
    found = []
    content = product.content(Basis.N)
    quick = n * (1 - (content.slow_share if content else 0.0))
    sprayed = product.formulation.sprayed and not product.rules.watered_in
    if sprayed and n > N_ON_LEAF * (1 + 1e-9):
        tenth = f"A tenth of it is {said(n / 10, us)}." if product.is_a(Kind.IRON, Kind.BIOSTIMULANT) else ""
        found.append(
            Finding(
                "nitrogen-of-a-spray",
                Weight.WARN,
                f"{said(n, us)} N is what granules bring; on the leaf {said(N_ON_LEAF, us)} is the most that is safe "
                f"unless it is watered in. {tenth}".strip(),
                _two_readings(n, us) if tenth else (),
            )
        )
    elif ground.use == "green" and n > N_GREEN * (1 + 1e-9):
        found.append(_more("nitrogen-on-a-green", n, N_GREEN, "N on a green", us))
    elif house.of("feeding") == "spoon" and n > N_SPOON * (1 + 1e-9):
        found.append(_more("nitrogen-spoon", n, N_SPOON, "N for a house that feeds little and often", us))
    elif n > N_ONCE * (1 + 1e-9):
        found.append(_more("nitrogen-once", n, N_ONCE, "N at once", us))
    elif quick > N_QUICK * (1 + 1e-9):
        found.append(_more("nitrogen-quick", quick, N_QUICK, "quick N at once", us))
    heat = house.of("nitrogen_in_heat")
    if ground.stress is Stress.HEAT and (heat == "none" or (heat == "cool_no" and ground.sward.cool)):
        found.append(
            Finding(
                "nitrogen-in-heat",
                Weight.WARN,
                f"{ground.name} is marked as heat-stressed: the house feeds no N to "
                f"{'cool-season grass' if heat == 'cool_no' else 'any grass'} in heat.",
            )
        )
    if ground.stress is Stress.COLD and "urea" in product.name.lower() and house.of("nitrogen_source") == "quick_cold":
        found.append(
            Finding("urea-in-cold", Weight.NOTE, "Cold soil turns urea over slowly; ammonium sulfate or nitrate acts sooner.")
        )
    return found


def _two_readings(n: float, us: bool) -> tuple[Choice, ...]:
    return Choice(f"{said(n, us)} N", "as it is"), Choice(f"{said(n / 10, us)} N", "with the decimal moved")


def _more(key: str, here: float, most: float, what: str, us: bool) -> Finding:
    words = f"{said(here, us)} is more than the usual most of {said(most, us)} {what}."
    return Finding(key, Weight.WARN, words)


def _others(product: Product, g: dict[Basis, float], ground: Ground, house: House, us: bool) -> list[Finding]:
    found = []
    if g.get(Basis.P2O5, 0.0) > 0 and not ground.tested_p:
        found.append(
            Finding(
                "phosphorus-untested",
                Weight.WARN,
                f"It brings {said(g[Basis.P2O5], us)} P₂O₅, and no soil test of {ground.name} asks for phosphorus. Many places "
                "forbid that.",
            )
        )
    if g.get(Basis.K2O, 0.0) > K2O_ONCE * (1 + 1e-9):
        found.append(_more("potash-once", g[Basis.K2O], K2O_ONCE, "K₂O at once", us))
    fe = g.get(Basis.FE, 0.0)
    if fe > FE_ONCE * (1 + 1e-9) and product.formulation.sprayed and house.of("iron") == "capped":
        found.append(_more("iron-once", fe, FE_ONCE, "Fe on the leaf: it blackens and burns, and stains stone", us))
    return found


def _closed(g: dict[Basis, float], on: date, closed: Sequence[Closed]) -> list[Finding]:
    found = []
    for time in closed:
        if g.get(Basis(time.what), 0.0) > 0 and time.holds(on):
            why = f": {time.why}" if time.why else ""
            span = f"{day(date(2000, *time.start))} to {day(date(2000, *time.end))}"
            found.append(Finding("closed-season", Weight.REFUSE, f"{Basis(time.what).text} is closed from {span}{why}."))
    return found


def season_range(ground: Ground) -> tuple[float, float] | None:
    """The N that what grows on the ground usually takes in a season [g/m²], least and most; None where it is not known.

    A mixed sward takes its grasses' by their shares.
    """
    low, high = (ground.sward.mean({g: n[i] for g, n in SEASON_N.items()}.get) for i in (0, 1))
    return None if low is None or high is None else (low * LB_PER_1000, high * LB_PER_1000)
