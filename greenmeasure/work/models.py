"""Other work than putting something down: what was done to an area when, or was meant to be and was not."""

from typing import Any

from django.db import models

from core.ledger.work import DOINGS, Doing
from greenmeasure.accounts.models import Account
from greenmeasure.common.struck import Strikable


class Work(Strikable):
    """One work on one area: its kind, its day and, where it is known, its time.

    `told` is what was told of it by the key of its ask: `{"value", "unit"}`, or a word. `done` is False for what was planned, or
    comes back every week, and was not done. One that is struck stays readable, and counts for nothing; `before` is what it
    changed on its area, so that striking it changes it back.
    """

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="works")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="works")
    kind = models.CharField(max_length=12)
    done_on = models.DateField()
    at = models.DateTimeField(null=True)
    done = models.BooleanField(default=True)
    told = models.JSONField(default=dict, blank=True)
    before = models.JSONField(default=dict, blank=True)
    against = models.TextField(blank=True)
    note = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)
    noted_at = models.DateTimeField()

    class Meta:
        verbose_name = "work"
        ordering = ["-done_on", "-pk"]
        indexes = [models.Index(fields=["account", "-done_on"], name="work_by_day")]

    def __str__(self) -> str:
        return f"{self.kind} of {self.area}, {self.done_on}"

    @property
    def doing(self) -> Doing:
        return DOINGS[self.kind]

    def of(self, key: str) -> Any:
        """What was told of one ask; None where nothing was."""
        return self.told.get(key)
