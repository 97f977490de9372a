"""The season's budget on one ground: each product, active and nutrient against its cap, with what a plan would add.

Nothing is rounded; caps of the label bind, usual nutrient ranges warn. An active counts whatever product brought it.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from core.findings import Finding, Weight
from core.ground import Ground
from core.label.product import Product
from core.label.rate import Basis, RateUnit, show_label_rate
from core.ledger.history import Applied
from core.rates.limits import ROUNDED, SLACK
from core.rates.nutrients import season_range
from core.units import UNITS, VOLUME, show_number


@dataclass(frozen=True)
class Line:
    """One line of the budget, per area in `unit`: what went down before, what the plan adds, the cap and whose it is.

    `binds` says whether going past the cap is refused; `low` is the lower end of a usual range, 0 where there is none.
    """

    key: str
    what: str
    unit: RateUnit
    used: float
    plan: float
    cap: float | None
    whose: str
    binds: bool
    low: float = 0.0

    @property
    def total(self) -> float:
        return self.used + self.plan

    @property
    def over(self) -> bool:
        return self.cap is not None and self.total > self.cap * (1 + ROUNDED) * (1 + SLACK)


@dataclass(frozen=True)
class Budget:
    """The lines, and how many applications of the product the season has seen of how many the label allows."""

    lines: tuple[Line, ...]
    times: int
    most_times: int | None


def budget(product: Product, plan: Applied, before: Sequence[Applied], ground: Ground, us: bool = True) -> Budget:
    """The budget of a plan on a ground.

    Args:
        product: with its rules.
        plan: what would be added.
        before: what else the season sees on this ground, before the plan and after it.
        ground: whose grass tells the usual nitrogen.
        us: whether to count what no label states in US units, or in kg/ha.
    """
    lines = [*_product(product, plan, before), *_actives(product, plan, before, us), *_nutrients(plan, before, ground, us)]
    others = [a for a in before if a.is_of(product) and not (a.application and a.application == plan.application)]
    times = len({a.application or i for i, a in enumerate(others)})
    return Budget(tuple(lines), times, product.rules.applications_per_season)


def worst(every: Sequence[Budget]) -> Budget:
    """The budgets of several pieces of a ground as one: each line, and the number of applications, where it stands highest."""
    if len(every) == 1:
        return every[0]
    lines: dict[str, Line] = {}
    for entry in (x for found in every for x in found.lines):
        if entry.key not in lines or entry.total > lines[entry.key].total:
            lines[entry.key] = entry
    return Budget(tuple(lines.values()), max(b.times for b in every), every[0].most_times)


def _product(product: Product, plan: Applied, before: Sequence[Applied]) -> list[Line]:
    cap = product.rules.most_per_season
    if cap is None:
        return []
    unit = cap.highest.unit
    same = [a for a in before if a.is_of(product)]

    def amount(a: Applied) -> float:
        base = a.litres if unit.amount.dimension == VOLUME else a.grams
        return (base or 0.0) / unit.size

    return [
        Line(
            "product",
            product.name,
            unit,
            sum(map(amount, same)),
            amount(plan),
            cap.highest.value,
            f"label: {show_label_rate(cap)} a season",
            product.label_binds,
        )
    ]


def _actives(product: Product, plan: Applied, before: Sequence[Applied], us: bool) -> list[Line]:
    lines = []
    for name, g in plan.actives.items():
        own = next((c.cap for c in product.rules.active_per_season if c.binds(name)), None)
        unit = own.highest.unit if own else counted_in(us, "acre", Basis.ACTIVE)
        used = sum(a.actives.get(name, 0.0) for a in before) / unit.size
        whose = f"label: {show_label_rate(own)} a season, whatever brings it" if own else ""
        most = own.highest.value if own else None
        lines.append(Line(f"active:{name}", name, unit, used, g / unit.size, most, whose, product.label_binds))
    return lines


def counted_in(us: bool, per: str, basis: Basis) -> RateUnit:
    """The unit in which what no label states is counted over a season: lb per 1000 ft² or acre, or kg/ha."""
    return RateUnit(UNITS["lb"], UNITS[per], basis) if us else RateUnit(UNITS["kg"], UNITS["ha"], basis)


def _nutrients(plan: Applied, before: Sequence[Applied], ground: Ground, us: bool) -> list[Line]:
    lines = []
    for basis in (Basis.N, Basis.P2O5, Basis.K2O, Basis.FE):
        g = plan.nutrients.get(basis, 0.0)
        if g <= 0:
            continue
        unit = counted_in(us, "kft2", basis)
        used = sum(a.nutrients.get(basis, 0.0) for a in before) / unit.size
        span = season_range(ground) if basis is Basis.N else None
        low, cap = (span[0] / unit.size, span[1] / unit.size) if span else (0.0, None)
        said = f"{show_number(low, 3)} to {show_number(cap, 3)} {'lb' if us else 'kg/ha'}" if cap else ""
        whose = f"usual for {ground.grass_name.lower()}: {said} a season" if said else ""
        lines.append(Line(f"nutrient:{basis.value}", basis.text, unit, used, g / unit.size, cap, whose, False, low))
    return lines


def _left(left: float, entry: Line) -> str:
    """What would still be allowed."""
    if left <= (entry.cap or 0.0) * SLACK:
        return "Nothing is left of it this season."
    return f"{show_number(left)} is left: at most {show_number(left)} {entry.unit.symbol} now."


def over_budget(found: Budget, product: Product) -> list[Finding]:
    """What the budget forbids or warns of."""
    findings = []
    for entry in found.lines:
        if entry.over:
            act = Weight.REFUSE if entry.binds else Weight.WARN
            left = max(0.0, (entry.cap or 0.0) - entry.used)
            findings.append(
                Finding(
                    f"season-{entry.key.split(':')[0]}",
                    act,
                    f"{entry.what} would come to {show_number(entry.total)} {entry.unit.symbol} this season; the most is "
                    f"{show_number(entry.cap or 0.0)} ({entry.whose}). {_left(left, entry)}",
                )
            )
    if found.most_times is not None and found.times + 1 > found.most_times:
        act = Weight.REFUSE if product.label_binds else Weight.WARN
        findings.append(
            Finding(
                "season-times",
                act,
                f"This would be application {found.times + 1} of {product.name} here this season; the label allows "
                f"{found.most_times}.",
            )
        )
    return findings
