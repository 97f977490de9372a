"""What the names of a line stand for in an account."""

from functools import cached_property

from core.ground import Ground
from core.label.rate import Basis
from core.reckon.asked import GroundAsked
from core.reckon.names import Goods, Names
from core.units import Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machines
from greenmeasure.reckon.models import KeptMix
from greenmeasure.shelf.queries import Card, cards


class Here:
    """The areas, products, machines and kept mixes of an account by their names; what was put away has none."""

    def __init__(self, account: Account) -> None:
        self.account = account
        self.ground: dict[str, Area] = {a.called: a for a in areas(account).values() if not a.archived_at}
        self.kit: dict[str, Machine] = {m.name: m for m in machines(account).values() if not m.archived_at}
        self.shelf: dict[str, Card] = {c.product.name: c for c in cards(account).values() if not c.product.archived_at}

    @cached_property
    def mixes(self) -> dict[str, KeptMix]:
        return {m.name: m for m in KeptMix.objects.of(self.account).kept()}

    @property
    def names(self) -> Names:
        """What the grammar reads by."""
        goods = {name: _goods(card) for name, card in self.shelf.items()}
        return Names(list(self.ground), list(self.shelf), list(self.kit), list(self.mixes), goods, self.account.us)

    def size(self, asked: GroundAsked) -> Quantity:
        """How much ground is meant."""
        whole = self.ground[asked.area].size if isinstance(asked.area, str) else asked.area
        return Quantity(whole.value * asked.share, whole.unit)

    def sizes(self, asked: tuple[GroundAsked, ...]) -> Quantity:
        """How much ground is meant in all, in the unit of the first."""
        sizes = [self.size(g) for g in asked]
        return Quantity(sum(s.base for s in sizes) / sizes[0].unit.size, sizes[0].unit)

    def core_ground(self, asked: GroundAsked) -> Ground:
        """The ground as the core knows it; of a bare size nothing but that."""
        if isinstance(asked.area, str):
            return self.ground[asked.area].ground
        return Ground(str(asked.area), asked.area)

    def where(self, asked: tuple[GroundAsked, ...]) -> list[str]:
        """The grounds as one names them."""
        return [g.area if isinstance(g.area, str) else str(g.area) for g in asked]


def _goods(card: Card) -> Goods:
    core = card.core
    label = card.label_rows[0].label if card.label_rows else None
    holds = frozenset(c.basis for c in core.contents if c.basis is not Basis.ACTIVE)
    return Goods(core.liquid, label.unit if label else None, core.kinds, holds, core.package.size if core.package else None)
