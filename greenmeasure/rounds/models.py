"""Rounds: one outing each, from the mix sheet to the book."""

from django.db import models

from core.job.sheet import Sheet, read_sheet
from core.label.rate import LabelRate, Rate, RateUnit
from core.label.rules import Intent, Row
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Account, User
from greenmeasure.common.errors import Missing
from greenmeasure.common.rows import HouseRow
from greenmeasure.shelf.models import label_of


class RoundQuerySet(models.QuerySet["Round"]):
    """Reads of rounds that never leave the account, nor the sites that its member sees."""

    def of(self, account: Account) -> "RoundQuerySet":
        """The account's rounds, as far as all of their ground is seen."""
        found = self.filter(account=account)
        if account.seen is None:
            return found
        return found.exclude(parts__in=RoundPart.objects.exclude(area__site__in=account.seen))

    def one(self, account: Account, pk: int) -> "Round":
        """The round with this key in this account. Raises Missing."""
        whole = self.of(account).select_related("account", "machine", "started_by")
        found = whole.prefetch_related("mix__product__contents", "parts__area__site", "parts__doses").filter(pk=pk).first()
        if found is None:
            raise Missing("round")
        mix = {c.pk: c for c in found.mix.all()}
        for dose in (d for p in found.parts.all() for d in p.doses.all()):
            dose.component = mix[dose.component_id]
        return found


class Emptied(models.TextChoices):
    """What became of the last of a mix for spots."""

    SPRAYED = "sprayed", "sprayed out"
    DISPOSED = "disposed", "disposed of as the label says"


class Round(HouseRow):
    """One outing. `sheet` is the document of its mix sheet, as `core.job.sheet` writes and reads it; later changes to the card
    leave it alone.

    `at` is when it goes down: its day and hour; `looked` what somebody looked at before. `key` comes from whoever starts it, so
    that a start sent twice over a bad connection makes one round. `dial` is where a hose-end stands, where somebody set it.
    `crossing` is how a further pass lies to the one before. With `spots` its mix treats spots over several outings, each an
    application of its own, until it is `emptied`.
    """

    class Status(models.TextChoices):
        UNDER_WAY = "under_way", "under way"
        DONE = "done", "done"
        GIVEN_UP = "given_up", "given up"

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="rounds")
    key = models.UUIDField()
    status = models.CharField(max_length=10, choices=Status, default=Status.UNDER_WAY)
    machine = models.ForeignKey("kit.Machine", on_delete=models.PROTECT, related_name="rounds")
    passes = models.PositiveSmallIntegerField(default=1)
    spray_litres = models.FloatField(null=True)
    dial_value = models.FloatField(null=True)
    dial_unit = models.CharField(max_length=24, blank=True)
    undiluted = models.BooleanField(default=False)
    crossing = models.CharField(max_length=12, blank=True)
    spots = models.BooleanField(default=False)
    emptied = models.CharField(max_length=12, blank=True, choices=Emptied)
    sheet = models.JSONField()
    started_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    started_at = models.DateTimeField()
    at = models.DateTimeField()
    looked = models.CharField(max_length=300, blank=True)
    ended_at = models.DateTimeField(null=True)

    objects = RoundQuerySet.as_manager()

    class Meta:
        verbose_name = "round"
        ordering = ["-started_at"]
        constraints = [
            models.UniqueConstraint(fields=["account", "key"], name="a_start_counts_once"),
            models.CheckConstraint(
                condition=models.Q(status="under_way", ended_at=None)
                | (~models.Q(status="under_way") & models.Q(ended_at__isnull=False)),
                name="what_is_over_has_an_end",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.started_at:%Y-%m-%d}"

    def read_sheet(self) -> Sheet:
        return read_sheet(self.sheet)

    @property
    def dial(self) -> Rate | None:
        return None if self.dial_value is None else Rate(self.dial_value, RateUnit.from_key(self.dial_unit))

    @property
    def spray(self) -> Quantity | None:
        return None if self.spray_litres is None else Quantity(self.spray_litres, UNITS["l"])

    @property
    def gone_out(self) -> float:
        """What of its mix is in the book by its outings [L]."""
        return sum((a.spray.base for a in self.applications.all() if a.spray and not a.struck_at), 0.0)

    @property
    def share_left(self) -> float:
        """What of its mix is still to go down, as a share: all of it, but where spots were treated before."""
        return max(0.0, 1 - self.gone_out / self.spray_litres) if self.spots and self.spray_litres else 1.0


class RoundComponent(HouseRow):
    """One product of a round's mix: what it is for, and what of it goes down in all, nothing to taste."""

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="mix")
    position = models.PositiveSmallIntegerField()
    product = models.ForeignKey("shelf.Product", on_delete=models.PROTECT, related_name="in_rounds")
    target = models.CharField(max_length=80, blank=True)
    amount_value = models.FloatField(null=True)
    amount_unit = models.CharField(max_length=12, blank=True)

    class Meta:
        ordering = ["position"]
        constraints = [models.UniqueConstraint(fields=["round", "position"], name="one_component_a_place")]

    def __str__(self) -> str:
        return self.product.name

    @property
    def amount(self) -> Quantity | None:
        return None if self.amount_value is None else Quantity(self.amount_value, UNITS[self.amount_unit])


class RoundPart(HouseRow):
    """One ground of a round: what of it is treated."""

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="parts")
    position = models.PositiveSmallIntegerField()
    area = models.ForeignKey("ground.Area", on_delete=models.PROTECT, related_name="rounds")
    zone = models.CharField(max_length=40, blank=True)
    treated_value = models.FloatField()
    treated_unit = models.CharField(max_length=12)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return f"{self.area}, {self.zone}" if self.zone else self.area.name

    @property
    def treated(self) -> Quantity:
        return Quantity(self.treated_value, UNITS[self.treated_unit])


class RoundDose(HouseRow):
    """One component on one ground of a round: its rate, the label row it was planned by, and its share of the amount [L or g].

    What goes in to taste has none.
    """

    part = models.ForeignKey(RoundPart, on_delete=models.CASCADE, related_name="doses")
    component = models.ForeignKey(RoundComponent, on_delete=models.CASCADE, related_name="doses")
    use = models.CharField(max_length=120, blank=True)
    phrase = models.CharField(max_length=200)
    intent = models.CharField(max_length=12, default=Intent.ANY.value)
    interval_low = models.PositiveSmallIntegerField(null=True)
    interval_high = models.PositiveSmallIntegerField(null=True)
    rate_value = models.FloatField()
    rate_unit = models.CharField(max_length=24)
    dose = models.FloatField()

    class Meta:
        ordering = ["component__position"]
        constraints = [models.UniqueConstraint(fields=["part", "component"], name="one_dose_a_component")]

    def __str__(self) -> str:
        return f"{self.component} on {self.part}"

    @property
    def amount(self) -> Quantity:
        """Its share, in the unit of the whole."""
        whole = UNITS[self.component.amount_unit]
        return Quantity(self.dose / whole.size, whole)

    @property
    def rate(self) -> Rate:
        return Rate(self.rate_value, RateUnit.from_key(self.rate_unit))

    @property
    def label(self) -> LabelRate:
        return label_of(self.phrase)

    @property
    def row(self) -> Row:
        """The label row that it was planned by, as far as the book needs it."""
        return Row(self.label, self.use, intent=Intent(self.intent), interval=(self.interval_low, self.interval_high))


class Poured(HouseRow):
    """What was really measured of one component for one load; a later measure takes its place."""

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="poured")
    load = models.PositiveSmallIntegerField()
    component = models.ForeignKey(RoundComponent, on_delete=models.CASCADE, related_name="poured")
    value = models.FloatField()
    unit = models.CharField(max_length=12)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["load", "component__position"]
        constraints = [models.UniqueConstraint(fields=["round", "load", "component"], name="measured_once")]

    def __str__(self) -> str:
        return f"{self.component}, load {self.load}"

    @property
    def amount(self) -> Quantity:
        return Quantity(self.value, UNITS[self.unit])


class Tick(HouseRow):
    """One act done: of load `load` (0 for what is worn), by whom and when."""

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="ticks")
    load = models.PositiveSmallIntegerField()
    act = models.CharField(max_length=30)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["at"]
        constraints = [models.UniqueConstraint(fields=["round", "load", "act"], name="ticked_once")]

    def __str__(self) -> str:
        return f"{self.load}/{self.act}"
