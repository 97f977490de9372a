"""Records that are struck and not deleted: they stay readable, with who struck them and why, and count for nothing."""

from django.db import models

from core.errors import InputError
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict
from greenmeasure.common.rows import HouseRow


class Strikable(HouseRow):
    """A record that may be struck."""

    struck_at = models.DateTimeField(null=True)
    struck_by = models.CharField(max_length=80, blank=True)
    struck_why = models.CharField(max_length=300, blank=True)

    class Meta:
        abstract = True

    @property
    def struck(self) -> str:
        """By whom it was struck and why; empty where it stands."""
        return f"Struck by {self.struck_by}: {self.struck_why}" if self.struck_at else ""


def strike(found: Strikable, by: str, why: str) -> None:
    """Strike a record.

    Raises:
        InputError: no reason.
        Conflict: it is struck already, maybe by somebody else at the same time.
    """
    told = {"struck_at": clock.now(), "struck_by": by, "struck_why": reason(why)}
    if not type(found)._default_manager.filter(pk=found.pk, struck_at=None).update(**told):
        raise Conflict("It is struck already.")
    for field, value in told.items():
        setattr(found, field, value)


def reason(why: str) -> str:
    """Why something is struck or put right. Raises InputError where nothing is said."""
    if not why.strip():
        raise InputError("why", why, "It does not say why.", "Say it in a few words, such as: it was the other green.")
    return why.strip()
