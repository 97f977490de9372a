"""What the jobs of an outing ask for, to be put in order once more: what is left of one, or all of it on another day."""

from core.outing.gather import Want
from core.outing.jobs import Doing
from greenmeasure.accounts.models import Account
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.past import of_outing
from greenmeasure.outings.lines import rate_of
from greenmeasure.outings.models import Outing, OutingJob, OutingStop
from greenmeasure.outings.wants import WEIGHTS, Due, Part
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.season.words import on_area
from greenmeasure.shelf.queries import cards


def left_of(account: Account, job: OutingJob) -> list[Due]:
    """What of a job is still to be done, under the place of the job and the ground."""
    stops = [s for s in job.stops.all() if s.state == OutingStop.State.OPEN]
    return _dues(account, job, stops, of_outing(account, job.outing_id))


def all_of(account: Account, outing: Outing) -> list[Due]:
    """Everything that an outing was taken up for, as far as ground and shelf still have it."""
    return [d for j in outing.jobs.all() if j.job for d in _dues(account, j, list(j.stops.all()), frozenset())]


def _dues(account: Account, job: OutingJob, stops: list[OutingStop], own: frozenset[str]) -> list[Due]:
    asked, shelf, found = JobIn(**job.job), cards(account), list[Due]()
    by_area = {p.area_id: p for p in asked.parts}
    if any(c.product_id not in shelf or shelf[c.product_id].product.archived_at for c in asked.mix):
        return []
    for stop in stops:
        part, area = by_area.get(stop.area_id), areas(account).get(stop.area_id)
        if part is None or area is None or area.archived_at:
            continue
        mix = []
        for component, dose in zip(asked.mix, part.doses, strict=True):
            card = shelf[component.product_id]
            rows = dict(zip(card.rows, card.label_rows, strict=True))
            row = rows.get(dose.row_id or 0) or card.label_rows[0]
            mix.append(Part(card, row, rate_of(dose) or row.label.highest, component.target))
        ids = tuple(str(c.product_id) for c in asked.mix)
        key, ground, site = f"{job.position}-{stop.area_id}", str(stop.area_id), str(area.site_id)
        want = Want(key, ground, site, ids, Doing(job.doing), str(job.machine_id or ""), WEIGHTS["due"], 0.0, stop.position)
        title = on_area(stop.told, area.called) if stop.told else area.called
        found.append(Due(want, area, tuple(mix), title, stop.told, "due", None, "", own, job.machine))
    return found
