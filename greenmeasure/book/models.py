"""The book: what was really done. An application is what went down on one ground on one day by one mix; its entries are one a
product. They know area, product and machine by id, and keep their own copy of the names and the label, so that they stay true
when those are renamed or struck.
"""

from zoneinfo import ZoneInfo

from django.db import models

from core.label.product import Kind
from core.label.rate import LabelRate, Rate, RateUnit
from core.ledger.history import Applied
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Account, User
from greenmeasure.book import facts
from greenmeasure.common.rows import HouseRow
from greenmeasure.common.struck import Strikable
from greenmeasure.shelf.models import label_of


class Application(Strikable):
    """What went down on one ground by one mix: where, when, with what, by whom.

    `position` is the part of its round that it records: a round's part is recorded once. `looked` is what somebody looked at
    before, such as a dry leaf. `spots` tells spots all over the area, `treated` in all, in one outing of its round. One that is
    struck stays readable, and counts for nothing.
    """

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="applications")
    round = models.ForeignKey("rounds.Round", on_delete=models.PROTECT, related_name="applications", null=True)
    position = models.PositiveSmallIntegerField(null=True)
    area = models.ForeignKey("ground.Area", on_delete=models.SET_NULL, related_name="applications", null=True)
    machine = models.ForeignKey("kit.Machine", on_delete=models.SET_NULL, related_name="applications", null=True)
    applied_on = models.DateField()
    finished_at = models.DateTimeField()
    area_name = models.CharField(max_length=80)
    zone = models.CharField(max_length=40, blank=True)
    spots = models.BooleanField(default=False)
    treated_value = models.FloatField()
    treated_unit = models.CharField(max_length=12)
    spray_value = models.FloatField(null=True)
    spray_unit = models.CharField(max_length=12, blank=True)
    machine_name = models.CharField(max_length=80)
    passes = models.PositiveSmallIntegerField(default=1)
    loads = models.PositiveSmallIntegerField(default=1)
    wind = models.CharField(max_length=120, blank=True)
    air = models.CharField(max_length=120, blank=True)
    looked = models.CharField(max_length=300, blank=True)
    note = models.TextField(blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    by_name = models.CharField(max_length=80)
    licence = models.CharField(max_length=40, blank=True)

    class Meta:
        verbose_name = "application"
        ordering = ["-finished_at"]
        indexes = [models.Index(fields=["account", "-finished_at"], name="book_by_time")]
        constraints = [models.UniqueConstraint(fields=["round", "position"], name="a_part_is_recorded_once")]

    def __str__(self) -> str:
        return f"{self.applied_on} on {self.area_name}"

    @property
    def zone_there(self) -> ZoneInfo:
        """The clock of its ground; of the account's home where the ground is no longer known."""
        return self.area.site.zone if self.area else self.account.home.zone

    @property
    def treated(self) -> Quantity:
        return Quantity(self.treated_value, UNITS[self.treated_unit])

    @property
    def spray(self) -> Quantity | None:
        return None if self.spray_value is None else Quantity(self.spray_value, UNITS[self.spray_unit])


class Former(HouseRow):
    """What an application said before it was corrected: `told` is a list of what was changed, `what`, `was` and `now`."""

    application = models.ForeignKey(Application, on_delete=models.CASCADE, related_name="formers")
    at = models.DateTimeField()
    by = models.CharField(max_length=80)
    why = models.CharField(max_length=300)
    told = models.JSONField()

    class Meta:
        verbose_name = "correction"
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.application}, corrected by {self.by}"


class Entry(HouseRow):
    """One product of an application as it really was. Rates are of the label's kind; `stand` is where the actual one stands.

    What went in to taste has no rate and no amount. `against` are the rules that stood against it, a line each, where it was put
    down all the same; `reason` says why. `position` is its place in the mix.
    """

    application = models.ForeignKey(Application, on_delete=models.CASCADE, related_name="entries")
    position = models.PositiveSmallIntegerField(default=0)
    product = models.ForeignKey("shelf.Product", on_delete=models.SET_NULL, related_name="entries", null=True)
    product_name = models.CharField(max_length=80)
    kind = models.CharField(max_length=20)
    contents = models.CharField(max_length=400, blank=True)
    group_code = models.CharField(max_length=40, blank=True)
    registration = models.CharField(max_length=40, blank=True)
    use = models.CharField(max_length=120, blank=True)
    target = models.CharField(max_length=80, blank=True)
    lot = models.CharField(max_length=40, blank=True)
    facts = models.JSONField(default=dict, blank=True)
    phrase = models.CharField(max_length=200, blank=True)
    planned_value = models.FloatField(null=True)
    actual_value = models.FloatField(null=True)
    rate_unit = models.CharField(max_length=24, blank=True)
    stand = models.CharField(max_length=6, blank=True)
    against = models.TextField(blank=True)
    reason = models.CharField(max_length=400, blank=True)
    used_value = models.FloatField(null=True)
    used_unit = models.CharField(max_length=12, blank=True)
    cost = models.DecimalField(max_digits=12, decimal_places=2, null=True)
    currency = models.CharField(max_length=3, blank=True)

    class Meta:
        verbose_name = "entry"
        ordering = ["-application__finished_at", "application", "position"]
        constraints = [models.UniqueConstraint(fields=["application", "position"], name="a_component_is_recorded_once")]

    def __str__(self) -> str:
        return f"{self.application.applied_on} {self.product_name} on {self.application.area_name}"

    def applied(self) -> Applied:
        """The entry as the rules of a season look at it; `facts` holds what it brought, worked out when it was made."""
        return facts.read(self.facts, self.application.applied_on, self.product_name, Kind(self.kind), self.product_id)

    @property
    def used(self) -> Quantity | None:
        return None if self.used_value is None else Quantity(self.used_value, UNITS[self.used_unit])

    @property
    def actual(self) -> Rate | None:
        return self._rate(self.actual_value)

    @property
    def planned(self) -> Rate | None:
        return self._rate(self.planned_value)

    def _rate(self, value: float | None) -> Rate | None:
        return None if value is None else Rate(value, RateUnit.from_key(self.rate_unit))

    @property
    def label(self) -> LabelRate | None:
        return label_of(self.phrase) if self.phrase else None
