"""The money of a year: what may be spent on what goes down, what the book has of it, and what is still to come."""

from decimal import Decimal

from django.db.models import Sum

from greenmeasure.accounts.models import Account, User
from greenmeasure.book.models import Entry
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import money_in
from greenmeasure.programme.models import Money
from greenmeasure.programme.schemas import MoneyIn, MoneyOut, TotalOut
from greenmeasure.programme.words import MONEY, money_text


def set_money(account: Account, user: User, data: MoneyIn) -> None:
    """Say what may be spent in a year; nothing typed takes it back. Raises InputError."""
    amount = money_in("amount", data.amount) if data.amount.strip() else None
    if amount is None:
        Money.objects.filter(account=account, year=data.year).delete()
    else:
        told = {"amount": amount, "currency": account.currency, "by": str(user)}
        Money.objects.update_or_create(account=account, year=data.year, defaults=told)
    account.touch("programme")


@kept("programme")
def _allowed(account: Account) -> dict[int, Decimal]:
    return {m.year: m.amount for m in Money.objects.filter(account=account, currency=account.currency)}


@kept("book")
def _spent(account: Account) -> dict[int, Decimal]:
    """What the book has of each year, of what was in the account's currency."""
    mine = Entry.objects.filter(application__account=account, application__struck_at=None, currency=account.currency)
    found = mine.values_list("application__applied_on__year").annotate(total=Sum("cost")).order_by()
    return {year: total for year, total in found if total is not None}


def money_of(account: Account, year: int, ahead: Decimal | None) -> MoneyOut:
    """The money of a year; `ahead` is what its programme still costs, None where no price is known."""
    allowed, spent, coming = _allowed(account).get(year), _spent(account).get(year, Decimal(0)), ahead or Decimal(0)
    full = max(spent + coming, allowed or Decimal(0)) * Decimal("1.1")
    if not full:
        return MoneyOut(allowed="", currency=account.currency, total=None)
    total = TotalOut(
        name=MONEY,
        text=money_text(spent, coming, allowed, account.currency),
        share_done=float(spent / full),
        share_meant=float(coming / full),
        low=0.0,
        high=float((allowed or Decimal(0)) / full),
    )
    return MoneyOut(allowed="" if allowed is None else str(allowed), currency=account.currency, total=total)
