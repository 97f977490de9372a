"""Products and their label cards."""

from functools import lru_cache

from django.db import models

from core.rates import product as core
from core.rates.phrase import read_label_rate
from core.rates.rate import Basis, LabelRate
from core.units import DENSITY_UNITS, UNITS, Quantity
from greenmeasure.common.models import Belonging, one_name_each


@lru_cache(maxsize=2000)
def label_of(phrase: str) -> LabelRate:
    """The rate a phrase states; phrases repeat, and reading one is pure."""
    return read_label_rate(phrase)


class Product(Belonging):
    """A product as its label describes it. Numbers are kept as typed, with their units."""

    kind = models.CharField(max_length=20)
    formulation = models.CharField(max_length=2)
    density_value = models.FloatField(null=True)
    density_unit = models.CharField(max_length=8, blank=True)
    group_code = models.CharField(max_length=20, blank=True)
    package_value = models.FloatField(null=True)
    package_unit = models.CharField(max_length=12, blank=True)
    price = models.DecimalField(max_digits=10, decimal_places=2, null=True)
    stains = models.BooleanField(default=False)
    ppe_mixing = models.TextField(blank=True)
    ppe_applying = models.TextField(blank=True)
    note = models.TextField(blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "product"
        constraints = [one_name_each("product")]

    @property
    def density_g_per_l(self) -> float | None:
        return None if self.density_value is None else self.density_value * DENSITY_UNITS[self.density_unit]

    @property
    def package(self) -> Quantity | None:
        return None if self.package_value is None else Quantity(self.package_value, UNITS[self.package_unit])

    def core(self) -> core.Product:
        """The product as the core sees it."""
        size = self.package
        return core.Product(
            self.name,
            core.Kind(self.kind),
            core.FORMULATIONS[self.formulation],
            tuple(c.core() for c in self.contents.all()),
            self.density_g_per_l,
            core.Package(size, self.price, self.club.currency) if size else None,
            self.stains,
            tuple(self.ppe_mixing.splitlines()),
            tuple(self.ppe_applying.splitlines()),
        )


class Content(models.Model):
    """One active or nutrient of a product: `amount` in `unit`, which is `%` by weight, `g/l` or `lb/gal`."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="contents")
    position = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    basis = models.CharField(max_length=10)
    amount = models.FloatField()
    unit = models.CharField(max_length=8)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name

    def core(self) -> core.Content:
        if self.unit == "%":
            return core.Content(self.name, Basis(self.basis), percent=self.amount)
        return core.Content(self.name, Basis(self.basis), g_per_l=self.amount * DENSITY_UNITS[self.unit])


class RateRow(models.Model):
    """One rate of the label, as printed, and what it is for."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="rates")
    position = models.PositiveSmallIntegerField()
    use = models.CharField(max_length=120, blank=True)
    phrase = models.CharField(max_length=200)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.phrase

    def label(self) -> LabelRate:
        """The rate that the phrase states."""
        return label_of(self.phrase)
