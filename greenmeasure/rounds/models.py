"""Rounds: one outing each, from the mix sheet to the book."""

from django.db import models

from core.job.sheet import Sheet, read_sheet
from core.label.rate import LabelRate, Rate, RateUnit
from core.label.rules import Intent, Row
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Account, User
from greenmeasure.common.errors import Missing
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
        whole = self.of(account).select_related("product__account", "machine", "started_by")
        found = whole.prefetch_related("product__contents", "parts__area__site").filter(pk=pk).first()
        if found is None:
            raise Missing("round")
        return found


class Round(models.Model):
    """One outing. `sheet` is the document of its mix sheet, as `core.job.sheet` writes and reads it; later changes to the card
    leave it alone.

    `at` is when it goes down: its day and hour; `looked` what somebody looked at before. `key` comes from whoever starts it, so
    that a start sent twice over a bad connection makes one round.
    """

    class Status(models.TextChoices):
        UNDER_WAY = "under_way", "under way"
        DONE = "done", "done"
        GIVEN_UP = "given_up", "given up"

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="rounds")
    key = models.UUIDField()
    status = models.CharField(max_length=10, choices=Status, default=Status.UNDER_WAY)
    product = models.ForeignKey("shelf.Product", on_delete=models.PROTECT, related_name="rounds")
    machine = models.ForeignKey("kit.Machine", on_delete=models.PROTECT, related_name="rounds")
    target = models.CharField(max_length=80, blank=True)
    passes = models.PositiveSmallIntegerField(default=1)
    amount_value = models.FloatField()
    amount_unit = models.CharField(max_length=12)
    spray_litres = models.FloatField(null=True)
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
        return f"{self.product}, {self.started_at:%Y-%m-%d}"

    def read_sheet(self) -> Sheet:
        return read_sheet(self.sheet)

    @property
    def amount(self) -> Quantity:
        return Quantity(self.amount_value, UNITS[self.amount_unit])

    @property
    def spray(self) -> Quantity | None:
        return None if self.spray_litres is None else Quantity(self.spray_litres, UNITS["l"])


class RoundPart(models.Model):
    """One area of a round with its rate, the label row it was planned by, and its share of the amount."""

    round = models.ForeignKey(Round, on_delete=models.CASCADE, related_name="parts")
    position = models.PositiveSmallIntegerField()
    area = models.ForeignKey("ground.Area", on_delete=models.PROTECT, related_name="rounds")
    zone = models.CharField(max_length=40, blank=True)
    use = models.CharField(max_length=120, blank=True)
    phrase = models.CharField(max_length=200)
    intent = models.CharField(max_length=12, default=Intent.ANY.value)
    interval_low = models.PositiveSmallIntegerField(null=True)
    interval_high = models.PositiveSmallIntegerField(null=True)
    rate_value = models.FloatField()
    rate_unit = models.CharField(max_length=24)
    treated_value = models.FloatField()
    treated_unit = models.CharField(max_length=12)
    dose = models.FloatField()

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return f"{self.area}, {self.zone}" if self.zone else self.area.name

    @property
    def rate(self) -> Rate:
        return Rate(self.rate_value, RateUnit.from_key(self.rate_unit))

    @property
    def label(self) -> LabelRate:
        return label_of(self.phrase)

    @property
    def treated(self) -> Quantity:
        return Quantity(self.treated_value, UNITS[self.treated_unit])

    @property
    def row(self) -> Row:
        """The label row that the part was planned by, as far as the book needs it."""
        return Row(self.label, self.use, intent=Intent(self.intent), interval=(self.interval_low, self.interval_high))


class Tick(models.Model):
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
