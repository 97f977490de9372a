"""Machines."""

from django.db import models

from core import job
from core.rates.rate import Rate, RateUnit
from core.units import UNITS, Quantity
from greenmeasure.common.models import Belonging, one_name_each


class Machine(Belonging):
    """A sprayer or a spreader. The output of a sprayer is what one pass puts down per area."""

    kind = models.CharField(max_length=10)
    capacity_value = models.FloatField()
    capacity_unit = models.CharField(max_length=12)
    output_value = models.FloatField(null=True)
    output_unit = models.CharField(max_length=24, blank=True)
    note = models.TextField(blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "machine"
        constraints = [one_name_each("machine")]

    @property
    def capacity(self) -> Quantity:
        return Quantity(self.capacity_value, UNITS[self.capacity_unit])

    @property
    def output(self) -> Rate | None:
        return None if self.output_value is None else Rate(self.output_value, RateUnit.from_key(self.output_unit))

    def core(self) -> job.Machine:
        """The machine as the core sees it."""
        return job.Machine(self.name, job.MachineKind(self.kind), self.capacity, self.output)
