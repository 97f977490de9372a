"""What was planned of what is due: a window for an application, kept so that a missed one is seen."""

from django.db import models

from greenmeasure.accounts.models import Account
from greenmeasure.common.rows import HouseRow


class Planned(HouseRow):
    """A window picked for an application against a disease on an area; `dropped_at` when it was taken back.

    `facts` is what it would bring, as of an entry: a planned application counts like a booked one.
    """

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="planned")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="planned")
    disease = models.CharField(max_length=40)
    product = models.ForeignKey("shelf.Product", on_delete=models.CASCADE, related_name="+")
    begin = models.DateTimeField()
    end = models.DateTimeField()
    facts = models.JSONField(default=dict, blank=True)
    by = models.CharField(max_length=80)
    made_at = models.DateTimeField()
    dropped_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at", "-pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["area", "disease"], condition=models.Q(dropped_at=None), name="planned_once_at_a_time"
            )
        ]

    def __str__(self) -> str:
        return f"{self.product} on {self.area}, {self.begin:%Y-%m-%d %H:%M}"
