"""The ledger as one says it: what is kept off a ground, until when, and by whose label."""

from datetime import tzinfo

from core.ledger.locks import Forbidden
from greenmeasure.ledger.locks import Locked

WHY = {
    Forbidden.WATER: "must stay dry",
    Forbidden.MOW: "must not be mown off",
    Forbidden.WALK: "keeps people off",
    Forbidden.SEED: "keeps seed off",
}


def lock_sentence(x: Locked, zone: tzinfo) -> str:
    """What is locked where, until when and why: No water on Terrace until Tue 4 Aug, 14:30: X (on 2 August) must stay dry."""
    what, by = x.lock.what.text.capitalize(), x.lock.by
    return f"{what} on {x.where} until {x.lock.until(zone)}: {by.product} ({by.told}) {WHY[x.lock.what]}."
