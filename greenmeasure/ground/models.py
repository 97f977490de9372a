"""Areas of ground."""

from django.db import models

from core.job import Ground
from core.units import UNITS, Quantity
from greenmeasure.common.models import Belonging, one_name_each


class Area(Belonging):
    """A piece of ground: its size and height of cut as typed, and the grass on it."""

    size_value = models.FloatField()
    size_unit = models.CharField(max_length=12)
    grass = models.CharField(max_length=30)
    height_value = models.FloatField(null=True)
    height_unit = models.CharField(max_length=12, blank=True)
    note = models.TextField(blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "area"
        constraints = [one_name_each("area")]

    @property
    def size(self) -> Quantity:
        return Quantity(self.size_value, UNITS[self.size_unit])

    @property
    def height(self) -> Quantity | None:
        return None if self.height_value is None else Quantity(self.height_value, UNITS[self.height_unit])

    @property
    def ground(self) -> Ground:
        """The area as the core sees it."""
        return Ground(self.name, self.size)
