"""Stations and their hours, what was read by hand, and how areas are watched."""

from datetime import date, datetime
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.db import models

from core.disease.threshold import Care, Level
from core.weather.wetness import Wetness
from greenmeasure.accounts.models import Account, Site
from greenmeasure.common import clock
from greenmeasure.common.models import Belonging, one_name_each
from greenmeasure.common.rows import HouseRow


class Station(Belonging):
    """Where weather comes from: a service over HTTP with, maybe, a soil probe; or files alone, where `url` is empty.

    `asked_at` is when somebody wanted its hours now, `begun_at` when the fetching process took that up; both are empty when it
    is done. `revision` changes with every hour that comes in. `offset` is added to its humidity [%], for a canopy that is moister
    than where it stands; `wetness` is the estimator of wet leaves where none are measured.
    """

    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="stations")
    url = models.CharField(max_length=300, blank=True)
    probe_url = models.CharField(max_length=300, blank=True)
    latitude = models.FloatField(null=True)
    longitude = models.FloatField(null=True)
    off_site = models.BooleanField(default=False)
    offset = models.FloatField(default=0.0)
    wetness = models.CharField(max_length=12, default=Wetness.HUMIDITY.value)
    fill = models.PositiveSmallIntegerField(default=3)
    asked_at = models.DateTimeField(null=True, blank=True)
    begun_at = models.DateTimeField(null=True, blank=True)
    revision = models.UUIDField(default=uuid4, editable=False)

    class Meta(Belonging.Meta):
        verbose_name = "station"
        constraints = [one_name_each("station")]

    site_path = "site"

    @property
    def time_zone(self) -> str:
        return self.site.time_zone

    @property
    def zone(self) -> ZoneInfo:
        return self.site.zone

    def renew(self) -> None:
        """Say that its hours have changed."""
        self.revision = uuid4()
        Station.objects.filter(pk=self.pk).update(revision=self.revision)
        self.account.touch("sky")

    def revisions(self, parts: tuple[str, ...]) -> tuple[UUID]:
        """Its own: what is kept of a station is made of its hours."""
        return (self.revision,)


class Columns(HouseRow):
    """What may be known of an hour, in the units of `core.weather.hours.Hours`."""

    at = models.DateTimeField()
    air = models.FloatField(null=True)
    humidity = models.FloatField(null=True)
    rain = models.FloatField(null=True)
    wind = models.FloatField(null=True)
    wet = models.FloatField(null=True)
    soil = models.FloatField(null=True)
    snow = models.FloatField(null=True)
    dew = models.FloatField(null=True)

    class Meta:
        abstract = True


class Quality(models.TextChoices):
    """How far an hour is to be trusted."""

    WHOLE = "whole", "as it came"
    PARTLY = "partly", "some of it set aside"


class Reading(Columns):
    """One measured hour (UTC), from where it came, and whether some of it was set aside."""

    station = models.ForeignKey(Station, on_delete=models.CASCADE, related_name="readings")
    source = models.CharField(max_length=8)
    quality = models.CharField(max_length=8, choices=Quality, default=Quality.WHOLE)

    class Meta:
        ordering = ["at"]
        constraints = [models.UniqueConstraint(fields=["station", "at"], name="an_hour_is_read_once")]

    def __str__(self) -> str:
        return f"{self.station} {self.at:%Y-%m-%d %H:%M}"


class Foretold(Columns):
    """One hour of the latest forecast of a station, which was issued at `issued`."""

    station = models.ForeignKey(Station, on_delete=models.CASCADE, related_name="foretold")
    issued = models.DateTimeField()

    class Meta:
        ordering = ["at"]
        constraints = [models.UniqueConstraint(fields=["station", "at"], name="an_hour_is_foretold_once")]

    def __str__(self) -> str:
        return f"{self.station} {self.at:%Y-%m-%d %H:%M}, foretold"


class Aside(HouseRow):
    """A value that cannot be, set aside and listed; the same one is listed once."""

    station = models.ForeignKey(Station, on_delete=models.CASCADE, related_name="aside")
    at = models.DateTimeField()
    field = models.CharField(max_length=12)
    value = models.CharField(max_length=40)
    problem = models.CharField(max_length=200)
    source = models.CharField(max_length=8)

    class Meta:
        ordering = ["-at"]
        constraints = [models.UniqueConstraint(fields=["station", "at", "field", "source"], name="set_aside_once")]

    def __str__(self) -> str:
        return f"{self.at:%Y-%m-%d %H:%M} {self.problem}"


class Fetch(HouseRow):
    """One asking of a station's service: when, how it went, and how many hours were new."""

    station = models.ForeignKey(Station, on_delete=models.CASCADE, related_name="fetches")
    at = models.DateTimeField()
    ok = models.BooleanField()
    hours = models.PositiveIntegerField(default=0)
    new = models.PositiveIntegerField(default=0)
    problem = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.station} {self.at:%Y-%m-%d %H:%M}: {self.problem or 'came'}"


class HandReading(HouseRow):
    """What somebody read: `rain` of a local day [mm], `soil` [°C], `wet` leaf [1 or 0] or `snow` [cm] at a time.

    `text` is how it was typed.
    """

    class Kind(models.TextChoices):
        RAIN = "rain", "Rain gauge"
        SOIL = "soil", "Soil thermometer"
        WET = "wet", "Leaf"
        SNOW = "snow", "Snow"

    station = models.ForeignKey(Station, on_delete=models.CASCADE, related_name="by_hand")
    area = models.ForeignKey("ground.Area", on_delete=models.SET_NULL, related_name="+", null=True)
    kind = models.CharField(max_length=6, choices=Kind)
    at = models.DateTimeField()
    value = models.FloatField()
    text = models.CharField(max_length=40)
    by = models.CharField(max_length=80)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.kind} {self.text} at {self.at:%Y-%m-%d %H:%M}"


class Watch(HouseRow):
    """How an area is watched for a disease: by which model, and what moves its threshold. Without a row the defaults hold.

    A row that is not there yet is version 0.
    """

    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="watches")
    disease = models.CharField(max_length=40)
    on = models.BooleanField(default=True)
    model = models.CharField(max_length=40, blank=True)
    susceptible = models.CharField(max_length=6, default=Level.USUAL.value)
    bears = models.CharField(max_length=6, default=Level.USUAL.value)
    history = models.BooleanField(default=False)
    own = models.FloatField(null=True)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["area", "disease"], name="watched_once")]

    def __str__(self) -> str:
        return f"{self.disease} on {self.area}"

    @property
    def care(self) -> Care:
        return Care(Level(self.susceptible), Level(self.bears), self.history, self.own)


class Hold(HouseRow):
    """The degree days for which a regulator's active holds on an area, as somebody set them [°C·d], over a base [°C]."""

    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="holds")
    active = models.CharField(max_length=80)
    sum = models.FloatField()
    base = models.FloatField(default=0)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["area", "active"], name="one_hold_an_active")]

    def __str__(self) -> str:
        return f"{self.active} on {self.area}"


def _today() -> date:
    """The day on which a rhythm is set up, at Greenwich."""
    return clock.now().date()


class Rhythm(HouseRow):
    """What comes back every week: mowing or watering of an area, or hours that a site keeps free.

    `days` are weekdays from 0, Monday; `begin` and `end` are on the ground's clock; `since` is the day from which it is taken
    to have been done.
    """

    class Kind(models.TextChoices):
        MOW = "mow", "Mowing"
        WATER = "water", "Watering"
        QUIET = "quiet", "Kept free"

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="rhythms")
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="rhythms")
    area = models.ForeignKey("ground.Area", on_delete=models.CASCADE, related_name="rhythms", null=True)
    kind = models.CharField(max_length=6, choices=Kind)
    days = models.JSONField()
    begin = models.TimeField()
    end = models.TimeField()
    why = models.CharField(max_length=80, blank=True)
    since = models.DateField(default=_today)

    class Meta:
        ordering = ["kind", "begin"]

    def __str__(self) -> str:
        return f"{self.kind} {self.begin:%H:%M} to {self.end:%H:%M}"

    def touches(self, begin: datetime) -> bool:
        """Whether it falls into the hour that begins at a time on the ground's clock."""
        minute = begin.hour * 60 + begin.minute
        first, last = self.begin.hour * 60 + self.begin.minute, self.end.hour * 60 + self.end.minute
        return begin.weekday() in self.days and first < minute + 60 and minute < last
