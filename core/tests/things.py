"""Made-up products, grounds and pasts that the tests of the rules share, and a case that looks for findings."""

import unittest
from dataclasses import replace
from datetime import date

from core.findings import Finding
from core.ground import Ground
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Product
from core.label.rate import Basis, LabelRate, Rate
from core.label.rules import Intent, Row
from core.ledger.gate import Checked, Plan, check
from core.ledger.history import Applied
from core.ledger.history import applied as entered
from core.ledger.ledger import plain
from core.rates.dose import dose
from core.schools import House
from core.units import read_quantity

LB_GAL = 119.826427
DAY = date(2031, 6, 10)
GREEN = Ground("green", read_quantity("5,000 sq ft"), grass="creeping_bentgrass", height=read_quantity("0.16 in"), use="green")
LAWN = Ground("lawn", read_quantity("8,000 sq ft"), grass="tall_fescue", height=read_quantity("3 in"), use="lawn")

GRANULE, SC, SL = FORMULATIONS["GR"], FORMULATIONS["SC"], FORMULATIONS["SL"]
UREA = Product("Urea", Kind.FERTILISER, GRANULE, (Content("N", Basis.N, percent=46),))
FEED = Product(
    "Feed",
    Kind.FERTILISER,
    GRANULE,
    (Content("N", Basis.N, percent=20), Content("P2O5", Basis.P2O5, percent=5), Content("K2O", Basis.K2O, percent=10)),
)
IRON = Product(
    "Iron", Kind.IRON, SL, (Content("N", Basis.N, percent=7), Content("Fe", Basis.FE, percent=6)), 10.5 * LB_GAL, stains=True
)
SPRAY = Product(
    "Spray", Kind.FUNGICIDE, SC, (Content("fludioxonil", Basis.ACTIVE, percent=21),), 9.2 * LB_GAL, codes=("FRAC 12",)
)
LABEL = read_label_rate("0.4 to 0.8 fl oz per 1,000 sq ft")


def row(phrase: str | LabelRate, **more: object) -> Row:
    label = read_label_rate(phrase) if isinstance(phrase, str) else phrase
    return Row(label, **more)


def applied(product: Product, rate: Rate, on: date = DAY, **more: object) -> Applied:
    """What a rate of a product on a thousandth of an acre or so brings, as the book would have it."""
    foot = read_quantity("1,000 sq ft")
    return replace(entered(product, dose(product, rate, foot).amount, foot, on), **more)


def checked(
    product: Product,
    here: Row,
    value: float,
    ground: Ground = GREEN,
    *,
    history: tuple[Applied, ...] = (),
    house: House | None = None,
    target: str = "",
    rows: tuple[Row, ...] = (),
    on: date = DAY,
) -> Checked:
    rate = Rate(value, here.label.highest.unit)
    plan = Plan(
        product,
        here,
        rate,
        applied(product, rate, on, interval=here.interval, curative=here.intent is Intent.CURATIVE),
        rows or (here,),
        target,
    )
    return check(plan, plain(ground, history, house or House()))


def past(*products: Product, days: int = 20) -> tuple[Applied, ...]:
    """Applications `days` apart, the last one `days` before the plan."""
    return tuple(
        applied(p, Rate(0.6, LABEL.unit), date.fromordinal(DAY.toordinal() - days * (len(products) - i)))
        for i, p in enumerate(products)
    )


class Caught(unittest.TestCase):
    def finding(self, found: Checked, key: str) -> Finding:
        hits = [f for f in found.findings if f.key == key]
        self.assertTrue(hits, f"{key} is not among {[f.key for f in found.findings]}")
        return hits[0]

    def quiet(self, found: Checked, *keys: str) -> None:
        here = {f.key for f in found.findings}
        self.assertFalse(here & set(keys), here)
