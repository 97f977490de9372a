"""The account's house rules: reading them with each side's reason, and changing them."""

from core.schools import QUESTIONS, check_answers
from greenmeasure.accounts.models import OWN, Account
from greenmeasure.accounts.schemas import DayOut, HouseIn, HouseOut, QuestionOut, SchoolOut
from greenmeasure.accounts.sites import day_in
from greenmeasure.common.errors import Faults
from greenmeasure.common.versions import claim


def house_out(account: Account) -> HouseOut:
    """The house rules with each side's reason."""
    house = account.house_rules
    return HouseOut(
        version=account.version,
        answers=dict(house.answers),
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
        season_start=DayOut(month=house.season_start[0], day=house.season_start[1]),
    )


def change_house(account: Account, data: HouseIn) -> Account:
    """Change the house rules.

    Raises:
        Faulty: every answer and the day at fault, at once; nothing is saved.
        Stale: they were changed since `data.version`.
    """
    faults = Faults()
    answers = faults.of(check_answers, data.answers)
    start = faults.of(day_in, "season_start", data.season_start)
    faults.raise_any()
    account.house = {"answers": answers, "season_start": start}
    with claim(account, data.version):
        account.save(update_fields=["house"])
        account.touch(OWN)
    return account
