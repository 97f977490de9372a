"""What was seen on the ground: fixed spots, scout reports, and photographs, which are files beside the database."""

from datetime import datetime

from django.db import models

from core.scouting.kinds import LOOKS, Look, Namer, Sure
from core.scouting.likeness import Light, Mown, Shot
from greenmeasure.accounts.models import Account
from greenmeasure.common.models import PutAway
from greenmeasure.common.rows import HouseRow
from greenmeasure.common.struck import Strikable


class Spot(PutAway):
    """A fixed place on an area that is looked at again; `x` and `y` are its place on the area's plan [m], if known."""

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="spots")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="spots")
    name = models.CharField(max_length=80)
    x = models.FloatField(null=True)
    y = models.FloatField(null=True)

    class Meta:
        verbose_name = "spot"
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name


class Scouting(Strikable):
    """What a scout found on an area: something seen or not, what it is, on how much of the turf [%], its score, and where.

    `what` is the key of a target, or words where its kind has none; `score` is on the kind's scale, what is counted per m². `x`
    and `y` are its place on the area's plan, and `across` how far it reaches there [m].
    """

    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="scouted")
    on = models.DateField()
    kind = models.CharField(max_length=12, default="disease")
    what = models.CharField(max_length=80, blank=True)
    seen = models.BooleanField()
    severity = models.FloatField(null=True)
    score = models.FloatField(null=True)
    sure = models.CharField(max_length=8, default=Sure.SURE.value)
    named_by = models.CharField(max_length=12, default=Namer.EYE.value)
    spot = models.ForeignKey(Spot, on_delete=models.SET_NULL, null=True, related_name="reports")
    x = models.FloatField(null=True)
    y = models.FloatField(null=True)
    across = models.FloatField(null=True)
    where = models.CharField(max_length=80, blank=True)
    note = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)

    class Meta:
        verbose_name = "scout report"
        ordering = ["-on", "-pk"]

    def __str__(self) -> str:
        return f"{self.what or self.kind} {'seen' if self.seen else 'not seen'} on {self.area}, {self.on}"

    @property
    def look(self) -> Look:
        return LOOKS[self.kind]


class FollowUp(Strikable):
    """How it was, some days after an application: one word, and a note."""

    application = models.ForeignKey("book.Application", on_delete=models.CASCADE, related_name="followups")
    on = models.DateField()
    how = models.CharField(max_length=10)
    note = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)
    noted_at = models.DateTimeField()

    class Meta:
        verbose_name = "follow-up"
        ordering = ["-on", "-pk"]

    def __str__(self) -> str:
        return f"{self.how} on {self.on}, after {self.application}"


class Photo(HouseRow):
    """A photograph of an area: its file is found by `sha`, the digest of what is kept; `timed` whether its hour is known."""

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="photos")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="photos")
    spot = models.ForeignKey(Spot, on_delete=models.SET_NULL, null=True, related_name="photos")
    report = models.ForeignKey(Scouting, on_delete=models.SET_NULL, null=True, related_name="photos")
    sha = models.CharField(max_length=64, db_index=True)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    name = models.CharField(max_length=120, blank=True)
    taken_at = models.DateTimeField()
    timed = models.BooleanField(default=False)
    light = models.CharField(max_length=8, blank=True)
    mown = models.CharField(max_length=8, blank=True)
    note = models.CharField(max_length=300, blank=True)
    by = models.CharField(max_length=80)
    noted_at = models.DateTimeField()
    version = models.PositiveIntegerField(default=1)

    class Meta:
        verbose_name = "photograph"
        ordering = ["-taken_at", "-pk"]
        indexes = [models.Index(fields=["account", "-taken_at"], name="photo_by_time")]

    def __str__(self) -> str:
        return self.name or self.sha[:12]

    @property
    def local(self) -> datetime:
        """When it was taken, on the ground's clock."""
        return self.taken_at.astimezone(self.area.site.zone)

    @property
    def shot(self) -> Shot:
        """How it was taken."""
        return Shot(self.local, self.spot_id, Light(self.light) if self.light else None, Mown(self.mown) if self.mown else None)
