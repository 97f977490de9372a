"""What a finished round writes into the book."""

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal

from core.ledger.history import applied
from core.rates.cost import CENT, cost
from core.readable import foot_of, readable
from core.units import Quantity
from greenmeasure.accounts.models import User
from greenmeasure.book import facts
from greenmeasure.book.models import Entry
from greenmeasure.common.clock import local_day
from greenmeasure.rounds.actual import Actual, ActualPart
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import FinishIn


@dataclass(frozen=True)
class Finished:
    """A round that is finished: by whom, when, with what, and what the form said beside it."""

    round: Round
    by: User
    at: datetime
    actual: Actual
    form: FinishIn


@dataclass(frozen=True)
class Marks:
    """The rules that stood against a part that was put down all the same, and why it was."""

    against: tuple[str, ...] = ()
    reason: str = ""


def record(made_of: Finished, here: ActualPart, marks: Marks) -> Entry:
    """Write one area of a round into the book with what was really used; nothing is refused here, only marked."""
    done, user, at, actual, data = made_of.round, made_of.by, made_of.at, made_of.actual, made_of.form
    account, product, part = done.account, done.product, here.part
    made = product.core()
    price = cost(made, here.used, here.treated, foot_of(account.us))
    spent: Decimal | None = price.total.quantize(CENT) if price else None
    unit = part.label.highest.unit
    share = here.treated.base / sum(p.treated.base for p in actual.parts)
    spray = readable(Quantity(actual.spray.value * share, actual.spray.unit), account.us) if actual.spray else None
    day = local_day(part.area, at)
    return Entry.objects.create(
        account=account,
        round=done,
        position=part.position,
        area=part.area,
        product=product,
        machine=done.machine,
        applied_on=day,
        finished_at=at,
        area_name=part.area.name,
        zone=part.zone,
        treated_value=here.treated.value,
        treated_unit=here.treated.unit.key,
        product_name=product.name,
        kind=product.kind,
        contents="; ".join(f"{c.amount:g} {c.unit} {c.name}" for c in product.contents.all()),
        group_code=product.group_code,
        use=part.use,
        target=done.target,
        lot=actual.lot.number if actual.lot else data.lot.strip(),
        facts=facts.stored(applied(made, here.used, here.treated, day, part.row)),
        phrase=part.phrase,
        planned_value=part.rate.to(unit).value,
        actual_value=here.rate.to(unit).value,
        rate_unit=unit.key,
        stand=here.judgement.stand.value,
        against="\n".join(marks.against),
        reason=marks.reason,
        used_value=here.used.value,
        used_unit=here.used.unit.key,
        spray_value=spray.value if spray else None,
        spray_unit=spray.unit.key if spray else "",
        machine_name=done.machine.name,
        passes=done.passes,
        loads=len(done.read_sheet().loads),
        cost=spent,
        currency=account.currency if price else "",
        wind=data.wind,
        air=data.air,
        looked=done.looked,
        note=data.note,
        by=user,
        by_name=data.by.strip() or str(user),
    )
