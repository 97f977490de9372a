"""The club's house rules: reading them with each side's reason, and changing them."""

from calendar import monthrange

from core.errors import InputError
from core.schools import QUESTIONS, check_answers
from greenmeasure.accounts.models import Club
from greenmeasure.accounts.schemas import ClosedIn, DayOut, HouseIn, HouseOut, QuestionOut, SchoolOut
from greenmeasure.common.errors import Faults


def house_out(club: Club) -> HouseOut:
    house = club.house_rules
    return HouseOut(
        questions=[
            QuestionOut(
                key=q.key,
                ask=q.ask,
                changes=q.changes,
                chosen=house.of(q.key),
                default=q.default,
                options=[SchoolOut(key=o.key, text=o.text, reason=o.reason) for o in q.options],
            )
            for q in QUESTIONS.values()
        ],
        closed=[
            ClosedIn(
                what=c.what, start=DayOut(month=c.start[0], day=c.start[1]), end=DayOut(month=c.end[0], day=c.end[1]), why=c.why
            )
            for c in house.closed
        ],
        season_start=DayOut(month=house.season_start[0], day=house.season_start[1]),
    )


def change_house(club: Club, data: HouseIn) -> Club:
    """Change the house rules.

    Raises:
        Faulty: every answer and every day at fault, at once; nothing is saved.
    """
    faults = Faults()
    answers = faults.of(check_answers, data.answers)
    start = faults.of(_day, "season_start", data.season_start)
    closed = []
    for i, c in enumerate(data.closed):
        if c.what not in ("N", "P2O5"):
            faults.add(f"closed.{i}.what", c.what, f"“{c.what}” is not closed anywhere.", "Pick N or P₂O₅.")
        first, last = faults.of(_day, f"closed.{i}.start", c.start), faults.of(_day, f"closed.{i}.end", c.end)
        closed.append({"what": c.what, "start": first, "end": last, "why": c.why})
    faults.raise_any()
    club.house = {"answers": answers, "closed": closed, "season_start": start}
    club.save(update_fields=["house"])
    club.touch()
    return club


def _day(field: str, given: DayOut) -> list[int]:
    if not 1 <= given.month <= 12 or not 1 <= given.day <= monthrange(2001, given.month)[1]:
        raise InputError(field, f"{given.month}/{given.day}", f"There is no day {given.day} of month {given.month}.", "Pick one.")
    return [given.month, given.day]
