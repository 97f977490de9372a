"""A season's programme: its steps, the events they go by, and what was set for single turns of them."""

from datetime import date
from typing import Any

from django.db import models

from core.errors import InputError
from core.label.rate import Rate, RateUnit
from core.season.steps import Timing, When
from core.units import UNITS, Quantity
from greenmeasure.common.models import Belonging
from greenmeasure.common.rows import HouseRow


class Event(Belonging):
    """A day that steps go by: overseeding, a tournament, a holiday, the first mowing."""

    on = models.DateField()

    class Meta(Belonging.Meta):
        verbose_name = "event"
        ordering = ["on", "pk"]


class Money(HouseRow):
    """What may be spent in a year on what goes down."""

    account = models.ForeignKey("accounts.Account", on_delete=models.CASCADE, related_name="money")
    year = models.PositiveSmallIntegerField()
    amount = models.DecimalField(max_digits=12, decimal_places=2)
    currency = models.CharField(max_length=3)
    by = models.CharField(max_length=80)

    class Meta:
        verbose_name = "money of a year"
        ordering = ["year", "pk"]
        constraints = [models.UniqueConstraint(fields=["account", "year"], name="one_money_a_year")]

    def __str__(self) -> str:
        return f"{self.amount} {self.currency} in {self.year}"


class Step(Belonging):
    """What is meant to be done in a year, and when, on which ground.

    `when` is a `core.season.steps.When` as JSON, but for what it goes by, which is a day of the ground (`anchor`), an event or
    another step. Without areas of its own it is for all the ground of a site, a use and a grass, each of which may be left open.
    `made` is one that a plan made and nobody has changed since: the next plan may take its place.
    """

    year = models.PositiveSmallIntegerField()
    site = models.ForeignKey("accounts.Site", on_delete=models.CASCADE, null=True, related_name="steps")
    use = models.CharField(max_length=12, blank=True)
    grass = models.CharField(max_length=30, blank=True)
    when = models.JSONField()
    anchor = models.CharField(max_length=12, blank=True)
    event = models.ForeignKey(Event, on_delete=models.SET_NULL, null=True, related_name="steps")
    after = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="followers")
    water_value = models.FloatField(null=True)
    water_unit = models.CharField(max_length=12, blank=True)
    why = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)
    copied = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="copies")
    made = models.BooleanField(default=False)

    class Meta(Belonging.Meta):
        verbose_name = "step"
        ordering = ["year", "pk"]

    @property
    def water(self) -> Quantity | None:
        """The depth that it is watered in with."""
        unit = UNITS.get(self.water_unit)
        return None if self.water_value is None or unit is None else Quantity(self.water_value, unit)

    @property
    def timing(self) -> When | None:
        """When it is to be done; None where what is kept cannot be read."""
        return when_of(self.when, self.goes_by)

    @property
    def goes_by(self) -> str:
        """What it goes by, by a key that does not depend on the ground."""
        if self.anchor:
            return self.anchor
        return f"event:{self.event_id}" if self.event_id else f"step:{self.after_id}" if self.after_id else ""


def when_of(kept: Any, anchor: str) -> When | None:
    """When a step is to be done, as it is kept; None where that cannot be read."""
    try:
        return When(
            Timing(kept["timing"]),
            date.fromisoformat(kept["begin"]),
            date.fromisoformat(kept["end"]),
            int(kept.get("every", 0)),
            tuple(int(d) for d in kept.get("monthly", [])),
            float(kept.get("sum", 0)),
            float(kept.get("base", 0)),
            float(kept.get("soil", 0)),
            bool(kept.get("rising", True)),
            anchor or "gone",
            int(kept.get("offset", 0)),
            int(kept.get("grace", 7)),
            float(kept.get("cold", 0)),
            str(kept.get("disease", "")),
        )
    except (InputError, KeyError, TypeError, ValueError, AttributeError, OverflowError):
        return None


class StepArea(HouseRow):
    """An area that a step is for."""

    step = models.ForeignKey(Step, on_delete=models.CASCADE, related_name="areas")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="step_areas")

    class Meta:
        verbose_name = "step’s area"
        ordering = ["pk"]

    def __str__(self) -> str:
        return str(self.area)


class StepProduct(HouseRow):
    """A product of a step's mix, or one that may stand in for its first (`instead`); without a rate by the house's rule."""

    step = models.ForeignKey(Step, on_delete=models.CASCADE, related_name="products")
    position = models.PositiveSmallIntegerField()
    product = models.ForeignKey("shelf.Product", on_delete=models.CASCADE, related_name="step_products")
    target = models.CharField(max_length=80, blank=True)
    rate_value = models.FloatField(null=True)
    rate_unit = models.CharField(max_length=24, blank=True)
    instead = models.BooleanField(default=False)

    class Meta:
        verbose_name = "step’s product"
        ordering = ["position"]

    def __str__(self) -> str:
        return str(self.product)

    @property
    def rate(self) -> Rate | None:
        """The rate that was given; None where the house's rule gives it."""
        try:
            unit = RateUnit.from_key(self.rate_unit) if self.rate_value is not None else None
        except InputError:
            return None
        return Rate(self.rate_value, unit) if unit and self.rate_value is not None else None


class StepTurn(HouseRow):
    """What was set for one turn of a step on an area: another first day, or that it is skipped, and why."""

    step = models.ForeignKey(Step, on_delete=models.CASCADE, related_name="turns")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="step_turns")
    number = models.PositiveSmallIntegerField()
    on = models.DateField(null=True)
    skipped = models.BooleanField(default=False)
    why = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)
    at = models.DateTimeField()

    class Meta:
        verbose_name = "turn of a step"
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["step", "area", "number"], name="one_setting_a_turn")]

    def __str__(self) -> str:
        return f"turn {self.number + 1} of {self.step}"
