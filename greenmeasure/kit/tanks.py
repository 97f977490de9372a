"""What was last in each machine, and what was done to clean it since."""

from django.db.models import Exists, OuterRef, Q

from core.machines.residue import Held
from core.rates.product import FORMULATIONS, Kind
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.kit.models import Cleaning
from greenmeasure.rounds.models import Round, Tick


@kept
def held(account: Account) -> dict[int, Held]:
    """What was last in each machine, by its id; a round counts once something of it was poured or it is in the book."""
    poured = Tick.objects.filter(round=OuterRef("pk"), load__gt=0)
    rounds = Round.objects.filter(Q(status=Round.Status.DONE) | Exists(poured), account=account)
    last: dict[int, Round] = {}
    for found in rounds.select_related("product").order_by("started_at"):
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
