"""What a dose costs, in the package's own money: Decimal throughout, rounded to cents only for show."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from decimal import ROUND_HALF_UP, Decimal
from functools import cached_property

from core.label.product import Product
from core.units import Quantity, convert
from core.working import Later, Step, Term, divided_by, line, plus, times, written

CENT = Decimal("0.01")


@dataclass(frozen=True)
class Cost:
    """`total` and `per_foot` (the cost per 1000 ft² or 100 m², as `foot` says), unrounded."""

    total: Decimal
    per_foot: Decimal
    foot: str
    currency: str
    lines: tuple[Later, ...] = field(default=(), compare=False, repr=False)

    @cached_property
    def working(self) -> tuple[Step, ...]:
        """The lines, written when they are read."""
        return written(self.lines)

    def cents(self, amount: Decimal) -> Decimal:
        return amount.quantize(CENT, ROUND_HALF_UP)


def cost(product: Product, amount: Quantity, area: Quantity, foot: Quantity) -> Cost | None:
    """The cost of `amount` on `area`, and over one `foot`; None where no price is known or the package measures else."""
    package = product.package
    if package is None or package.price is None or package.size.unit.dimension != amount.unit.dimension:
        return None
    in_package = convert(amount.value, amount.unit, package.size.unit)
    total = package.price * Decimal(repr(in_package)) / Decimal(repr(package.size.value))
    feet = Decimal(repr(area.base / foot.base))
    unit = package.size.unit.symbol
    price = package.price

    def step() -> Step:
        return line(
            "Cost",
            Term(in_package, unit),
            divided_by(package.size.value, unit, "package"),
            times(float(price), package.currency, "package"),
            result=Term(float(total), package.currency),
        )

    return Cost(total, total / feet, foot.unit.symbol, package.currency, (step,))


def together(costs: Sequence[Cost | None]) -> Cost | None:
    """What several products cost together; None where one has no price, or they are priced in different money."""
    known = [c for c in costs if c]
    if not known or len(known) < len(costs) or len({c.currency for c in known}) > 1:
        return None
    if len(known) == 1:
        return known[0]
    total = sum((c.total for c in known), Decimal(0))
    money = known[0].currency

    def step() -> Step:
        first, *rest = (float(c.total) for c in known)
        return line("Cost together", Term(first, money), *(plus(v, money) for v in rest), result=Term(float(total), money))

    lines = tuple(one for c in known for one in c.lines)
    return Cost(total, sum((c.per_foot for c in known), Decimal(0)), known[0].foot, money, (*lines, step))
