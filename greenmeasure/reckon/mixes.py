"""Kept mixes: a job put by under a name, and opened again with what has changed since."""

from typing import Any

from core.readable import joined
from greenmeasure.accounts.models import Account
from greenmeasure.common.errors import Conflict
from greenmeasure.common.names import free_name
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.queries import machines
from greenmeasure.reckon.again import kept_machine, row_again
from greenmeasure.reckon.models import KeptMix
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import AgainOut, JobIn, KeptMixIn, KeptMixOut
from greenmeasure.reckon.words import left_out, row_changed
from greenmeasure.shelf.queries import Card, cards

OF_THE_DAY = {"on", "clock", "said", "outing_id"}
"""What belongs to one day, and is not kept."""


def keep_mix(account: Account, data: KeptMixIn) -> KeptMix:
    """Put a job by under a name.

    Raises:
        InputError: a name that is empty or taken, or a job that cannot be reckoned.
        Missing: a product, area or machine that the account does not have.
    """
    name = free_name(KeptMix, account, data.name)
    reckoned(account, data.job)
    job = data.job.model_dump(mode="json", exclude=OF_THE_DAY)
    for part in job["parts"]:
        for component, dose in zip(job["mix"], part["doses"], strict=True):
            row = cards(account)[component["product_id"]].rows.get(dose["row_id"]) if dose["row_id"] else None
            dose["phrase"], dose["use"] = (row.phrase, row.use) if row else ("", "")
    return KeptMix.objects.create(account=account, name=name, job=job)


def kept_mixes(account: Account) -> list[KeptMixOut]:
    """The mixes that the account keeps, by name."""
    return [mix_out(account, m) for m in KeptMix.objects.of(account).kept()]


def mix_out(account: Account, kept: KeptMix) -> KeptMixOut:
    """A kept mix: what is in it and where it goes."""
    shelf, ground, kit = cards(account), areas(account), machines(account)
    products = [card.product.name for c in kept.job["mix"] if (card := shelf.get(c["product_id"]))]
    places = [area.called for p in kept.job["parts"] if (area := ground.get(p["area_id"]))]
    machine = kit.get(kept.job["machine_id"] or 0)
    return KeptMixOut(
        id=kept.pk,
        version=kept.version,
        name=kept.name,
        products=joined(products),
        where=joined(list(dict.fromkeys(places))),
        machine=machine.name if machine else "",
    )


def opened(account: Account, kept: KeptMix) -> AgainOut:
    """The job of a kept mix as it stands now, and what of it is not as it was kept.

    Raises:
        Conflict: none of its products, or of its ground, is there any more.
    """
    job, notes, parts = dict(kept.job), [], []
    mix: dict[int, Card] = {}
    for place, component in enumerate(job["mix"]):
        card = cards(account).get(component["product_id"])
        if card is None or card.product.archived_at:
            notes.append(left_out(card.product.name if card else f"Product {place + 1}"))
        else:
            mix[place] = card
    for part in job["parts"]:
        area = areas(account).get(part["area_id"])
        if area is None or area.archived_at:
            notes.append(left_out(area.called if area else "An area"))
            continue
        doses = [_dose(card, area, job["mix"][place]["target"], part["doses"][place], notes) for place, card in mix.items()]
        parts.append(part | {"doses": doses})
    if not mix or not parts:
        raise Conflict(f"Nothing of {kept.name} is there any more.")
    if job["machine_id"] and kept_machine(account, job["machine_id"]) is None:
        machine = machines(account).get(job["machine_id"])
        notes.append(left_out(machine.name if machine else "The machine"))
        job["machine_id"], job["spots"] = None, False
    job["mix"], job["parts"] = [job["mix"][place] for place in mix], parts
    return AgainOut(job=JobIn(**job), notes=list(dict.fromkeys(notes)))


def _dose(card: Card, area: Area, target: str, kept: dict[str, Any], notes: list[str]) -> dict[str, Any]:
    """A dose by the row that it was kept with, by its key or by what it says; to taste where it had none. A row that has changed
    is noted.
    """
    if not kept["row_id"] or not card.rows:
        return {}
    row, as_it_was = card.rows.get(kept["row_id"]), True
    if row is None:
        row, as_it_was = row_again(card, area, kept["phrase"], kept["use"], target)
    if not as_it_was:
        notes.append(row_changed(area.called, row))
    return {"row_id": row.pk, "rate": kept["rate"]}
