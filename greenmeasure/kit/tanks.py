"""What was last in each machine, and what was done to clean it since."""

from typing import Any

from django.db.models import Q

from core.label.product import FORMULATIONS, Kind
from core.machines.residue import Held
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.kit.models import Cleaning


@kept
def held(account: Account) -> dict[int, Held]:
    """What was last in each machine, by its id; a round counts once something of it was poured or it is in the book."""
    poured = Q(status="done") | Q(ticks__load__gt=0)
    last: dict[int, Any] = {}
    for found in account.rounds.filter(poured).distinct().select_related("product").order_by("started_at"):
        last[found.machine_id] = found
    cleanings = list(Cleaning.objects.filter(machine__account=account).order_by("at"))
    return {
        pk: Held(
            r.product_id,
            r.product.name,
            Kind(r.product.kind),
            FORMULATIONS[r.product.formulation].sprayed,
            local_day(account, r.started_at),
            tuple(step for c in cleanings if c.machine_id == pk and c.at > r.started_at for step in c.done),
        )
        for pk, r in last.items()
    }
