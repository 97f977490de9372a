"""What was put away: gone from its list, kept for the book and for being put back."""

from core.days import dated
from greenmeasure.accounts.models import Account
from greenmeasure.archive.schemas import AwayOut, KindName
from greenmeasure.common.models import Belonging
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine, Vessel
from greenmeasure.reckon.models import KeptMix
from greenmeasure.shelf.models import Product

KINDS: dict[KindName, type[Belonging]] = {
    "areas": Area,
    "products": Product,
    "machines": Machine,
    "vessels": Vessel,
    "mixes": KeptMix,
}
"""What can be put back, by the door it is put back at."""


def away(account: Account) -> list[AwayOut]:
    """Everything that was put away, the last first; of what lies on a site, where that is seen."""
    found = [
        (row.archived_at, AwayOut(kind=kind, id=row.pk, name=row.name, day=dated(row.archived_at.date())))
        for kind, model in KINDS.items()
        for row in model.objects.of(account).exclude(archived_at=None)
        if row.archived_at
    ]
    return [out for _, out in sorted(found, key=lambda x: (x[0], x[1].name), reverse=True)]
