"""What each machine held, and what was done to clean it since."""

from typing import Any

from django.db.models import Max

from core.label.product import FORMULATIONS, Kind
from core.machines.residue import Held, Residue, worst_kind
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.kit.models import Cleaning

OF_PRODUCT = (
    "machine_id",
    "mix__product_id",
    "mix__product__name",
    "mix__product__kind",
    "mix__product__also",
    "mix__product__formulation",
)


@kept("kit", "rounds", "ticks", "shelf")
def held(account: Account) -> dict[int, Residue]:
    """What each machine held, by its id: the last filling of each product; one counts once something of it was poured."""
    cleanings = list(Cleaning.objects.filter(machine__account=account).order_by("at"))
    found: dict[int, list[Held]] = {}
    for f in _fillings(account):
        since = (c for c in cleanings if c.machine_id == f["machine_id"] and c.at > f["latest"])
        found.setdefault(f["machine_id"], []).append(
            Held(
                f["mix__product_id"],
                f["mix__product__name"],
                worst_kind([Kind(k) for k in (f["mix__product__kind"], *f["mix__product__also"])]),
                FORMULATIONS[f["mix__product__formulation"]].sprayed,
                local_day(account, f["latest"]),
                tuple(step for c in since for step in c.done),
            )
        )
    return {pk: Residue(tuple(every)) for pk, every in found.items()}


def _fillings(account: Account) -> list[dict[str, Any]]:
    """The last filling of each product into each machine, the latest first."""
    poured = account.rounds.exclude(status="done").filter(ticks__load__gt=0)
    latest: dict[tuple[int, int], dict[str, Any]] = {}
    for f in (*_of_done(account), *_last(poured)):
        key = (f["machine_id"], f["mix__product_id"])
        if key not in latest or f["latest"] > latest[key]["latest"]:
            latest[key] = f
    return sorted(latest.values(), key=lambda f: f["latest"], reverse=True)


@kept("rounds", "shelf")
def _of_done(account: Account) -> list[dict[str, Any]]:
    """Those of rounds that are done: years of them, which no tick changes."""
    return _last(account.rounds.filter(status="done"))


def _last(rounds: Any) -> list[dict[str, Any]]:
    """The last filling of each product into each machine; the database goes through the rounds."""
    return list(rounds.values(*OF_PRODUCT).annotate(latest=Max("at")))
