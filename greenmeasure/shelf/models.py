"""Products with their label cards, packages and stock."""

from functools import lru_cache

from django.db import models

from core.label import product as core
from core.label.groups import read_codes
from core.label.phrase import read_label_rate
from core.label.rate import Basis, LabelRate
from core.label.rules import Intent, Row
from core.units import DENSITY_UNITS, UNITS, Quantity
from greenmeasure.common.models import Belonging, one_name_each
from greenmeasure.common.rows import HouseRow
from greenmeasure.shelf.rules import rules_of


@lru_cache(maxsize=2000)
def label_of(phrase: str) -> LabelRate:
    """The rate a phrase states; phrases repeat, and reading one is pure."""
    return read_label_rate(phrase)


class Product(Belonging):
    """A product as its label describes it. Numbers are kept as typed, with their units; `rules` as `RulesIn` gives them.

    `also` is what it is besides its kind: a weed-and-feed is a herbicide and a fertiliser. `printed` are the settings that
    its bag prints for kinds of spreader.
    """

    kind = models.CharField(max_length=20)
    also = models.JSONField(default=list, blank=True)
    printed = models.JSONField(default=list, blank=True)
    formulation = models.CharField(max_length=2)
    density_value = models.FloatField(null=True)
    density_unit = models.CharField(max_length=8, blank=True)
    group_code = models.CharField(max_length=40, blank=True)
    registration = models.CharField(max_length=40, blank=True)
    looks = models.CharField(max_length=60, blank=True)
    expect = models.CharField(max_length=300, blank=True)
    stains = models.BooleanField(default=False)
    rules = models.JSONField(default=dict, blank=True)
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
    def kinds(self) -> tuple[core.Kind, ...]:
        """Everything that it is: its kind, and what it is `also`."""
        return tuple(core.Kind(k) for k in (self.kind, *self.also))

    @property
    def codes(self) -> tuple[str, ...]:
        return read_codes(self.group_code, scheme=core.leading(self.kinds).scheme)

    def core(self) -> core.Product:
        """The product as the core sees it."""
        return core.Product(
            self.name,
            core.Kind(self.kind),
            core.FORMULATIONS[self.formulation],
            tuple(c.core() for c in self.contents.all()),
            self.density_g_per_l,
            tuple(p.core(self.account.currency) for p in self.packages.all()),
            self.stains,
            tuple(self.ppe_mixing.splitlines()),
            tuple(self.ppe_applying.splitlines()),
            self.codes,
            rules_of(self.rules),
            self.pk,
            self.kinds[1:],
            tuple(core.Printed(p["form"], p["setting"]) for p in self.printed),
        )


class Content(HouseRow):
    """One active or nutrient of a product: `amount` in `unit`, which is `%` by weight, `g/l` or `lb/gal`.

    `slow` is how much of the product [%] is this nutrient in slow-release form.
    """

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="contents")
    position = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    basis = models.CharField(max_length=10)
    amount = models.FloatField()
    unit = models.CharField(max_length=8)
    slow = models.FloatField(null=True)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name

    def core(self) -> core.Content:
        if self.unit == "%":
            return core.Content(self.name, Basis(self.basis), percent=self.amount, slow_percent=self.slow)
        return core.Content(self.name, Basis(self.basis), g_per_l=self.amount * DENSITY_UNITS[self.unit])


class RateRow(HouseRow):
    """One rate of the label, as printed: what it is for, and the ground it is for. Empty lists do not narrow it."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="rates")
    position = models.PositiveSmallIntegerField()
    use = models.CharField(max_length=120, blank=True)
    phrase = models.CharField(max_length=200)
    target = models.CharField(max_length=80, blank=True)
    grasses = models.JSONField(default=list, blank=True)
    uses = models.JSONField(default=list, blank=True)
    height_low = models.FloatField(null=True)
    height_high = models.FloatField(null=True)
    height_unit = models.CharField(max_length=12, blank=True)
    intent = models.CharField(max_length=12, default=Intent.ANY.value)
    interval_low = models.PositiveSmallIntegerField(null=True)
    interval_high = models.PositiveSmallIntegerField(null=True)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.phrase

    def label(self) -> LabelRate:
        """The rate that the phrase states."""
        return label_of(self.phrase)

    def core(self) -> Row:
        """The row as the core sees it."""

        def metres(value: float | None) -> float | None:
            return None if value is None else value * UNITS[self.height_unit].size

        return Row(
            self.label(),
            self.use,
            self.target or self.use,
            tuple(self.grasses),
            (metres(self.height_low), metres(self.height_high)),
            tuple(self.uses),
            Intent(self.intent),
            (self.interval_low, self.interval_high),
        )


class Package(HouseRow):
    """A size that the product is sold in, and what it costs."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="packages")
    position = models.PositiveSmallIntegerField()
    value = models.FloatField()
    unit = models.CharField(max_length=12)
    price = models.DecimalField(max_digits=10, decimal_places=2, null=True)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return str(self.size)

    @property
    def size(self) -> Quantity:
        return Quantity(self.value, UNITS[self.unit])

    def core(self, currency: str) -> core.Package:
        return core.Package(self.size, self.price, currency)


class Lot(HouseRow):
    """What is left of one lot on the shelf."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="lots")
    number = models.CharField(max_length=40)
    left_value = models.FloatField()
    left_unit = models.CharField(max_length=12)
    received_on = models.DateField(null=True)
    expires_on = models.DateField(null=True)
    note = models.CharField(max_length=200, blank=True)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["expires_on", "received_on", "pk"]

    def __str__(self) -> str:
        return self.number

    @property
    def left(self) -> Quantity:
        return Quantity(self.left_value, UNITS[self.left_unit])


class LabelFileManager(models.Manager["LabelFile"]):
    """Files without what is in them, which is read when it is asked for: lists name them alone."""

    def get_queryset(self) -> models.QuerySet["LabelFile"]:
        return super().get_queryset().defer("data")


class LabelFile(HouseRow):
    """A photograph or a PDF of a label, kept in the database so that a copy of it is a whole copy."""

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="labels")
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=40)
    added_at = models.DateTimeField(auto_now_add=True)
    data = models.BinaryField()

    objects = LabelFileManager()

    class Meta:
        ordering = ["-added_at"]

    def __str__(self) -> str:
        return self.name
