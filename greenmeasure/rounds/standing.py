"""What stands against a round as the ledger is now: when it is taken up again, and at each outing of its mix."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime

from core.findings import Finding, Weight
from core.ledger.gate import Plan, check
from core.ledger.history import Standing
from greenmeasure.ledger.past import Asked, ledger, of_dose, of_outing
from greenmeasure.rounds.models import Round, RoundDose, RoundPart
from greenmeasure.shelf.queries import card_of


@dataclass(frozen=True)
class Against:
    """A rule that stands against a component of a round on one of its grounds."""

    part: RoundPart
    dose: RoundDose
    rule: Finding


def stands_against(found: Round, at: datetime, out: dict[int, float] | None = None) -> Iterator[Against]:
    """The rules that forbid a round at a time, ground by ground, component by component.

    Args:
        found: the round; what it put under way does not stand against itself, nor what its outing is still to put down.
        at: when it goes down.
        out: how much of each of its grounds goes out, as a share, by the keys of its parts; all of it where None.
    """
    account, me = found.account, f"round-{found.pk}"
    shares = {p.pk: 1.0 for p in found.parts.all()} if out is None else out
    mine_too = frozenset({me}).union(*(of_outing(account, j.outing_id) for j in found.in_outings.all()))
    meant = {}
    for part in (p for p in found.parts.all() if p.pk in shares):
        for dose in part.doses.all():
            product = card_of(account, dose.component.product_id).core
            meant[part.pk, dose.component_id] = part, dose, of_dose(product, part, dose, at, shares[part.pk])
    job = {key: replace(a, application=me, standing=Standing.SAME_JOB) for key, (_, _, a) in meant.items()}
    for key, (part, dose, _) in meant.items():
        mine, others = job[key], tuple(a for k, a in job.items() if k != key)
        assert mine.place
        component, card = dose.component, card_of(account, dose.component.product_id)
        bears = ledger(account, Asked(mine.place, at, component.product_id, component.target, others, mine_too))
        checked = check(Plan(card.core, dose.row, dose.rate, mine, card.label_rows, component.target), bears, account.us)
        yield from (Against(part, dose, f) for f in checked.findings if f.act is Weight.REFUSE)
