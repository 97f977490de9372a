"""Water put down by a zone, as catch cans found it; and the tasks that came of it."""

from django.db import models

from core.water.cans import Audit, Can, Heads, audit
from greenmeasure.accounts.models import Account
from greenmeasure.common.rows import HouseRow


class WaterAudit(HouseRow):
    """One run with cans out: depths [mm], places on the area's plan [m] where noted, minutes, wind [m/s]."""

    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="water")
    taken_on = models.DateField()
    minutes = models.FloatField()
    heads = models.CharField(max_length=8, default=Heads.ROTOR.value)
    wind = models.FloatField(null=True)
    cans = models.JSONField()
    by = models.CharField(max_length=80, blank=True)
    note = models.CharField(max_length=300, blank=True)
    in_use = models.BooleanField(default=True)

    class Meta:
        verbose_name = "audit"
        ordering = ["-taken_on", "-pk"]

    def __str__(self) -> str:
        return f"{self.area}, {self.taken_on}"

    def core(self) -> Audit:
        """The audit as the core makes it."""
        cans = [Can(c["depth"], (c["x"], c["y"]) if c.get("x") is not None else None) for c in self.cans]
        return audit(cans, self.minutes, Heads(self.heads), self.wind)


class Task(HouseRow):
    """Something to be seen to on the ground, until it is done."""

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="tasks")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="tasks")
    audit = models.ForeignKey(WaterAudit, on_delete=models.SET_NULL, null=True, related_name="tasks")
    text = models.CharField(max_length=300)
    made_at = models.DateTimeField(auto_now_add=True)
    done_at = models.DateTimeField(null=True)
    done_by = models.CharField(max_length=80, blank=True)

    class Meta:
        verbose_name = "task"
        ordering = ["made_at", "pk"]

    def __str__(self) -> str:
        return self.text
