"""An account closed: everything of it is gone, and whoever belonged to it alone is let go."""

from django.db import transaction

from core.errors import InputError
from greenmeasure.accounts.models import Account, User
from greenmeasure.accounts.people import let_go
from greenmeasure.archive.tables import tables
from greenmeasure.scouting.actions import drop_unused
from greenmeasure.scouting.queries import files_of


@transaction.atomic
def close(account: Account, by: User, name: str, password: str) -> None:
    """Close an account for good.

    Raises:
        InputError: the name is not the account's, or the password not theirs.
    """
    if " ".join(name.split()).casefold() != account.name.casefold():
        raise InputError("name", name, "That is not the account's name.", f"Type “{account.name}” to close it.")
    if not by.check_password(password):
        raise InputError("password", None, "That is not your password.", "Enter the one you sign in with.")
    emptied(account)


@transaction.atomic
def emptied(account: Account) -> None:
    """Take everything of an account away, and let whoever belonged to it alone go."""
    pictures = files_of(account)
    people = list(User.objects.filter(memberships__account=account))
    for table in reversed(tables()):
        table.rows(account).delete()
    for person in people:
        let_go(person)
    transaction.on_commit(lambda: drop_unused(pictures))
