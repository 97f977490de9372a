"""What is due, as an outing looks at it: each mix that a disease, a regulator's clock or a step asks for on a ground."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date

from core.ground import Stress
from core.label.rate import Rate
from core.label.rules import Row
from core.ledger.history import Applied, Place, Standing, applied
from core.outing.gather import Want
from core.outing.jobs import Doing
from core.season.standing import Stand
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.natural import natural
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import largest_for
from greenmeasure.ledger.meant import amount_on, mixed, named, row_and_rate
from greenmeasure.ledger.past import next_planned
from greenmeasure.programme.models import Step
from greenmeasure.programme.queries import acting, placed
from greenmeasure.season.due import drafts_of, first_choice_of, listed_somewhere, proposals, regulators_due
from greenmeasure.season.words import again_title, name_of, on_area
from greenmeasure.shelf.queries import Card, cards

WEIGHTS = {"late": 4.0, "due": 2.0, "coming": 1.0}
"""What leaving something for another day counts, by how it stands (ours)."""


@dataclass(frozen=True)
class Part:
    """One product on a ground: by which row of its label, at which rate, and against what."""

    card: Card
    row: Row
    rate: Rate
    target: str

    def meant(self, area: Area, on: date) -> Applied | None:
        """What it is to the ledger on a day; None where no amount is known."""
        amount = amount_on(self.card, self.rate, area)
        return None if amount is None else applied(self.card.core, amount, area.size, on, self.row)


@dataclass(frozen=True)
class Due:
    """A want with what stands behind it: its ground, its mix, the words for it, by when, and what waiting costs.

    `own` is how the ledger names what is planned of it, and of all of its outing where it was taken up; `others` are cards that
    list the same use.
    """

    want: Want
    area: Area
    mix: tuple[Part, ...]
    title: str
    what: str
    state: str
    by: date | None
    delay: str = ""
    own: frozenset[str] = frozenset()
    machine: Machine | None = None
    others: tuple[Card, ...] = ()

    @property
    def picked(self) -> list[Card]:
        return [p.card for p in self.mix]

    def meant(self, on: date) -> list[tuple[Part, Applied]]:
        """What its mix would put down on a day, as one event of the ledger."""
        at = clock.moment_at(self.area, on)
        event = f"outing-{self.want.key}"
        place = Place(self.area.pk)
        return [
            (p, replace(a, at=at, place=place, application=event, standing=Standing.PLANNED, target=p.target))
            for p in self.mix
            if (a := p.meant(self.area, on)) is not None
        ]


def wants(account: Account, swaps: Mapping[str, int] | None = None) -> list[Due]:
    """Everything that is due or coming and could go down, the gravest first. Parts that were seen to be ill are started from
    their own page, at the rates of each.

    Args:
        account: whose.
        swaps: other products, by the key of what they are to be for.
    """
    turns = {pk: n for n, pk in enumerate(sorted(areas(account), key=lambda pk: natural(areas(account)[pk].name)))}
    found: dict[str, Due] = {}
    swaps = swaps or {}
    for due in (*_steps(account, turns, swaps), *_diseases(account, turns, swaps), *_regulators(account, turns)):
        found.setdefault(due.want.key, due)
    return sorted(found.values(), key=lambda d: (-d.want.weight, d.by or date.max, natural(d.area.name), d.want.key))


def _made(account: Account, key: str, area: Area, mix: Sequence[Part], state: str, turn: int) -> tuple[Want, Machine | None]:
    cores = [p.card.core for p in mix]
    sprayed = cores[0].formulation.sprayed
    machine = largest_for(account, [p.card.product.pk for p in mix], sprayed)
    doing = Doing.SPREAD if machine and machine.kind == "spreader" else Doing.SPRAY
    ids = tuple(str(p.card.product.pk) for p in mix)
    rate = mix[0].rate.base
    made = Want(key, str(area.pk), str(area.site_id), ids, doing, str(machine.pk) if machine else "", WEIGHTS[state], rate, turn)
    return made, machine


def _own(account: Account, area: Area, mix: Sequence[Part], *names: str) -> frozenset[str]:
    """How the ledger names what is planned of a mix on an area."""
    ahead = next_planned(account, area.pk, [p.card.product.pk for p in mix], clock.now())
    return frozenset((*names, *ahead))


def _diseases(account: Account, turns: dict[int, int], swaps: Mapping[str, int]) -> Iterator[Due]:
    for p in proposals(account).proposals:
        if p.zones or not listed_somewhere(account, p.disease):
            continue
        today, shelf = clock.today(p.area), cards(account)
        drafts = {d.candidate.product.id or 0: d for d in drafts_of(account, p, today)}
        pick = drafts.get(swaps.get(p.key, 0)) or first_choice_of(account, p, today)
        card = shelf.get(pick.candidate.product.id or 0) if pick else None
        if pick is None or card is None:
            continue
        mix = (Part(card, card.label_rows[pick.index], pick.rate, p.disease),)
        want, machine = _made(account, p.key, p.area, mix, p.due.state.value, turns[p.area.pk])
        name = name_of(p.disease)
        others = tuple(shelf[pk] for pk in drafts if pk in shelf and pk != card.product.pk)
        title, state = on_area(name, p.area.called), p.due.state.value
        yield Due(want, p.area, mix, title, name, state, p.due.by, p.due.delay, _own(account, p.area, mix), machine, others)


def _steps(account: Account, turns: dict[int, int], swaps: Mapping[str, int]) -> Iterator[Due]:
    for p in acting(placed(account, clock.today(account).year)):
        key = named(p.step, p.area, p.standing.turn.number)
        brought = [b for b in mixed(account, p.step, p.area, swaps.get(key)) if b.row is not None]
        if not brought:
            continue
        mix = tuple(Part(b.card, b.row, b.rate, b.part.target) for b in brought if b.row)
        want, machine = _made(account, key, p.area, mix, p.stand.value, turns[p.area.pk])
        by = p.standing.turn.begin if p.stand is Stand.COMING else p.standing.turn.end
        title, own = on_area(p.step.name, p.area.called), _own(account, p.area, mix, key)
        others = _stand_ins(account, p.step, mix[0].card)
        yield Due(want, p.area, mix, title, p.step.name, p.stand.value, by, "", own, machine, others)


def _stand_ins(account: Account, step: Step, picked: Card) -> tuple[Card, ...]:
    """What else could be the first of a step's mix, as it says itself."""
    first = [x.product_id for x in step.products.all() if x.instead or x.position == 0]
    found = (cards(account).get(pk) for pk in first if pk != picked.product.pk)
    return tuple(c for c in found if c and c.product.archived_at is None)


def _regulators(account: Account, turns: dict[int, int]) -> Iterator[Due]:
    for r in regulators_due(account):
        row, rate = row_and_rate(r.card, r.area, "growth")
        if row is None or rate is None or r.area.ground.stress is not Stress.NONE:
            continue
        mix = (Part(r.card, row, rate, "growth"),)
        want, machine = _made(account, f"{r.area.pk}-regulator-{r.card.product.pk}", r.area, mix, r.state, turns[r.area.pk])
        title = again_title(r.card.product.name, r.area.called)
        yield Due(want, r.area, mix, title, name_of("growth"), r.state, r.on, "", _own(account, r.area, mix), machine)
