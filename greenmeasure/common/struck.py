"""Records that are struck and not deleted: they stay readable, with who struck them and why, and count for nothing."""

from django.db import models

from core.errors import InputError
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


def reason(why: str) -> str:
    """Why something is struck or put right. Raises InputError where nothing is said."""
    if not why.strip():
        raise InputError("why", why, "It does not say why.", "Say it in a few words, such as: it was the other green.")
    return why.strip()
