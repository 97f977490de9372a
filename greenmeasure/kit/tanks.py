"""What each machine held, and what was done to clean it since."""

from django.db.models import Max, Q

from core.label.product import FORMULATIONS, Kind
from core.machines.residue import Held, Residue, worst_kind
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.kit.models import Cleaning


@kept
def held(account: Account) -> dict[int, Residue]:
    """What each machine held, by its id: the last filling of each product; one counts once something of it was poured."""
    poured = Q(status="done") | Q(ticks__load__gt=0)
    of_product = (
        "machine_id",
        "mix__product_id",
        "mix__product__name",
        "mix__product__kind",
        "mix__product__also",
        "mix__product__formulation",
    )
    fillings = account.rounds.filter(poured).values(*of_product).annotate(latest=Max("at")).order_by("-latest")
    cleanings = list(Cleaning.objects.filter(machine__account=account).order_by("at"))
    found: dict[int, list[Held]] = {}
    for f in fillings:
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
