"""Trials on an area: what is tried, on which plots it stands, and when they are looked at. Scores are scout reports."""

from datetime import date
from typing import Any

from django.db import models

from core.book.after import MOST_DAYS
from core.scouting.kinds import LOOKS, Look
from greenmeasure.common.models import Belonging
from greenmeasure.common.rows import HouseRow


class Trial(Belonging):
    """Treatments side by side on one area, in blocks, drawn by lot from `seed`.

    `direction` is what the plots are cut square to [degrees from the plan's x axis], `least` how wide one must be [m]; `kind` and
    `what` are what is scored, as of a scout report, on the days `days` after `began_on`; `scatter` is by how much plots
    treated alike were taken to differ (a standard deviation, in marks). It goes on until `ended_on`.
    """

    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="trials")
    began_on = models.DateField()
    ended_on = models.DateField(null=True)
    seed = models.PositiveIntegerField()
    blocks = models.PositiveSmallIntegerField()
    direction = models.FloatField()
    least = models.FloatField()
    kind = models.CharField(max_length=12)
    what = models.CharField(max_length=80, blank=True)
    days = models.JSONField(default=list)
    scatter = models.FloatField()
    note = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)

    class Meta(Belonging.Meta):
        verbose_name = "trial"
        ordering = ["-began_on", "-pk"]

    site_path = "area__site"

    @property
    def within(self) -> Any:
        return self.area

    @property
    def look(self) -> Look:
        """What is scored; one that is not known is read as quality."""
        return LOOKS.get(self.kind, LOOKS["quality"])

    @property
    def looks_on(self) -> list[int]:
        """The days after its beginning on which it is looked at, those that are none left out."""
        days = self.days if isinstance(self.days, list) else []
        return sorted({d for d in days if isinstance(d, int) and 0 <= d <= MOST_DAYS})

    def day_of(self, on: date) -> int:
        """How many days after its beginning a day is."""
        return (on - self.began_on).days


class Treatment(HouseRow):
    """One of the things tried, the untreated one first. Its plots together are `area`, a part with a past of its own."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="treatments")
    position = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    untreated = models.BooleanField(default=False)
    area = models.ForeignKey("ground.Area", on_delete=models.SET_NULL, null=True, related_name="treatments")
    product = models.ForeignKey("shelf.Product", on_delete=models.SET_NULL, null=True, related_name="treatments")
    told = models.CharField(max_length=300, blank=True)

    class Meta:
        verbose_name = "treatment"
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name


class Plot(HouseRow):
    """A plot: its number along the cut, its block, its rings on the area's plan [m], its size [m²], its fixed spot."""

    treatment = models.ForeignKey(Treatment, on_delete=models.CASCADE, related_name="plots")
    number = models.PositiveSmallIntegerField()
    block = models.PositiveSmallIntegerField()
    rings = models.JSONField()
    size = models.FloatField()
    spot = models.ForeignKey("scouting.Spot", on_delete=models.SET_NULL, null=True, related_name="plots")

    class Meta:
        verbose_name = "plot"
        ordering = ["number"]

    def __str__(self) -> str:
        return f"Plot {self.number}"
