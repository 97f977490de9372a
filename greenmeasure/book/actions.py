"""What changes the book."""

from datetime import date, datetime
from decimal import Decimal
from typing import TYPE_CHECKING
from zoneinfo import ZoneInfo

from core.job import foot_of, readable
from core.rates.cost import CENT, cost
from core.rates.limits import Judgement
from core.rates.rate import Rate
from core.units import Quantity
from greenmeasure.accounts.models import Club, User
from greenmeasure.book.models import Entry

if TYPE_CHECKING:
    from greenmeasure.rounds.models import Round


def local_day(club: Club, at: datetime) -> date:
    """The calendar day at the ground."""
    return at.astimezone(ZoneInfo(club.time_zone)).date()


def record(
    done: "Round", user: User, at: datetime, used: Quantity, treated: Quantity, spray: Quantity | None, actual: Rate,
    judgement: Judgement, *, wind: str = "", air: str = "", note: str = "",
) -> Entry:  # fmt: skip
    """Write a round into the book with what was really used; nothing is refused here, only marked."""
    club, product = done.club, done.product
    price = cost(product.core(), used, treated, foot_of(club.us))
    spent: Decimal | None = price.total.quantize(CENT) if price else None
    unit = done.label.highest.unit
    shown_spray = readable(spray, club.us) if spray else None
    return Entry.objects.create(
        club=club, round=done, applied_on=local_day(club, at), finished_at=at, area=done.area.name,
        treated_value=treated.value, treated_unit=treated.unit.key, product=product.name, kind=product.kind,
        contents="; ".join(f"{c.amount:g} {c.unit} {c.name}" for c in product.contents.all()),
        group_code=product.group_code, use=done.use, phrase=done.phrase, planned_value=done.rate.to(unit).value,
        actual_value=actual.to(unit).value, rate_unit=unit.key, stand=judgement.stand.value, used_value=used.value,
        used_unit=used.unit.key, spray_value=shown_spray.value if shown_spray else None,
        spray_unit=shown_spray.unit.key if shown_spray else "", machine=done.machine.name, passes=done.passes,
        loads=len(done.sheet["loads"]), cost=spent, currency=club.currency if price else "", wind=wind, air=air,
        note=note, by=user, by_name=str(user),
    )  # fmt: skip
