"""The end of an outing: what is to be seen to, and how far that is."""

from collections.abc import Sequence

from core.outing.jobs import Doing
from greenmeasure.kit.models import Cleaning, Machine
from greenmeasure.outings.lines import JobLine
from greenmeasure.outings.models import Outing
from greenmeasure.outings.schemas import ClosingOut
from greenmeasure.outings.words import ASKS, CLOSING, clean_machine


def closing_out(outing: Outing, lines: Sequence[JobLine]) -> list[ClosingOut]:
    """What is to be seen to at the end of an outing, and how far that is; a machine that was cleaned since its last round is."""
    kept_acts = {str(c["key"]): c for c in outing.closing if isinstance(c, dict) and "key" in c}
    found = []
    for key, (text, machine) in closing_acts(lines).items():
        said, by = kept_acts.get(key, {}), str(kept_acts.get(key, {}).get("by", ""))
        cleaned = _cleaned(machine, lines) if machine else None
        found.append(
            ClosingOut(
                key=key,
                text=text,
                done=key in kept_acts or cleaned is not None or (machine is not None and "clean" in kept_acts),
                by=by or (cleaned.by if cleaned else ""),
                asks=ASKS.get(key, ""),
                note=str(said.get("note", "")),
                machine_id=machine.pk if machine else None,
            )
        )
    return found


def _cleaned(machine: Machine, lines: Sequence[JobLine]) -> Cleaning | None:
    """The cleaning of a machine since its last round of an outing ended; None where there is none, or none ended."""
    ends = [x.row.round.ended_at for x in lines if x.row and x.row.round and x.machine == machine and x.row.round.ended_at]
    return machine.cleanings.filter(at__gte=max(ends)).first() if ends else None


def closing_acts(lines: Sequence[JobLine]) -> dict[str, tuple[str, Machine | None]]:
    """What is to be seen to at the end of an outing, by what was done on it: its words, and the machine whose cleaning it is."""
    went = [x for x in lines if any(s.state != "skipped" for s in x.stops)]
    doings, every = {x.doing for x in went}, {x.machine.pk: x.machine for x in went if x.machine}
    keys = [
        *(("left", "rinse") if Doing.SPRAY in doings else ()),
        *(f"clean-{pk}" for pk in every),
        *(("swept",) if Doing.SPREAD in doings else ()),
        *(("gear", "signs", "told") if doings & {Doing.SPRAY, Doing.SPREAD} else ()),
    ]
    machine = {f"clean-{pk}": m for pk, m in every.items()}
    return {k: (clean_machine(machine[k].name) if k in machine else CLOSING[k], machine.get(k)) for k in keys}
