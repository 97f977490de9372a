"""Areas of ground, how they were measured, how they are mown, and what their soil was found to be."""

from statistics import fmean

from django.db import models

from core.errors import InputError
from core.grasses import Sward, blend_of
from core.ground import Ground, Hazard, HazardKind, Stress
from core.soil.samples import Figure, How, Sample, figure
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Site
from greenmeasure.common.models import Belonging, one_name_each
from greenmeasure.common.rows import HouseRow


class Area(Belonging):
    """A piece of ground: its size and height of cut as typed, the grass on it, and what the label's rules ask of it.

    `blend` are the grasses of a mixed sward as `{"grass", "share"}`, in percent.
    """

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="areas")
    parent = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, blank=True, related_name="parts")
    size_value = models.FloatField()
    size_unit = models.CharField(max_length=12)
    grass = models.CharField(max_length=30)
    blend = models.JSONField(default=list, blank=True)
    cultivar = models.CharField(max_length=80, blank=True)
    use = models.CharField(max_length=12, blank=True)
    height_value = models.FloatField(null=True)
    height_unit = models.CharField(max_length=12, blank=True)
    texture = models.CharField(max_length=12, blank=True)
    shade = models.CharField(max_length=8, blank=True)
    slope = models.FloatField(null=True)
    zone = models.CharField(max_length=40, blank=True)
    sown_on = models.DateField(null=True)
    overseed_on = models.DateField(null=True)
    stress = models.CharField(max_length=10, default=Stress.NONE.value)
    tested_p = models.BooleanField(default=False)
    hazards = models.JSONField(default=list, blank=True)
    note = models.TextField(blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "area"
        constraints = [one_name_each("area", "site")]

    site_path = "site"
    shares_name = False
    """Whether an area of another site has the same name; its reader knows."""

    @property
    def called(self) -> str:
        """Its name, with its site's where another site has one of the same name."""
        return f"{self.name}, {self.site.name}" if self.shares_name else self.name

    @property
    def within(self) -> Site:
        return self.site

    @property
    def time_zone(self) -> str:
        return self.site.time_zone

    @property
    def size(self) -> Quantity:
        return Quantity(self.size_value, UNITS[self.size_unit])

    @property
    def height(self) -> Quantity | None:
        return None if self.height_value is None else Quantity(self.height_value, UNITS[self.height_unit])

    @property
    def sward(self) -> Sward:
        """What grows on it; a blend that cannot be read is none."""
        try:
            return Sward(self.grass, blend_of([(b["grass"], float(b["share"])) for b in self.blend]))
        except (InputError, KeyError, TypeError, ValueError):
            return Sward(self.grass)

    @property
    def ground(self) -> Ground:
        """The area as the core sees it."""
        hazards = tuple(
            Hazard(HazardKind(h["kind"]), h["name"], h["value"] * UNITS[h["unit"]].size if h["value"] else 0.0)
            for h in self.hazards
        )
        return Ground(
            self.called,
            self.size,
            grass=self.grass,
            blend=self.sward.blend,
            cultivar=self.cultivar,
            height=self.height,
            use=self.use,
            hazards=hazards,
            sown_on=self.sown_on,
            overseed_on=self.overseed_on,
            stress=Stress(self.stress),
            slope=None if self.slope is None else self.slope / 100,
            tested_p=self.tested_p,
            ph=self.latest_ph,
            id=self.pk,
        )

    @property
    def latest_ph(self) -> float | None:
        """The mean of the readings of the latest day [pH]; None where none was taken."""
        soil = list(self.soil.all())
        latest = [r.ph for r in soil if r.taken_on == soil[0].taken_on]
        return fmean(latest) if latest else None


class Height(HouseRow):
    """A mown height from a day on."""

    area = models.ForeignKey(Area, on_delete=models.CASCADE, related_name="heights")
    on = models.DateField()
    value = models.FloatField()
    unit = models.CharField(max_length=12)

    class Meta:
        ordering = ["-on", "-pk"]

    def __str__(self) -> str:
        return f"{self.value:g} {self.unit} from {self.on}"


class Measurement(HouseRow):
    """One measuring of an area: the method, the figures as taken, and the size they came to [m²]."""

    area = models.ForeignKey(Area, on_delete=models.CASCADE, related_name="measurements")
    taken_on = models.DateField()
    given = models.JSONField()
    size_m2 = models.FloatField()
    in_use = models.BooleanField(default=False)
    by = models.CharField(max_length=80, blank=True)

    class Meta:
        ordering = ["-taken_on", "-pk"]

    def __str__(self) -> str:
        return f"{self.given.get('method')} on {self.taken_on}"


class SoilReading(HouseRow):
    """A soil sample of a spot: its pH, what else was found of it, and where that is from.

    `spot` is the spot's name, `fixed` the fixed spot where it is one; `how` a `core.soil.samples.How`, empty where nobody said;
    `number` the laboratory's; `figures` are `{"kind", "value", "unit", "method"}` as told, `values` what was told in words.
    """

    area = models.ForeignKey(Area, on_delete=models.CASCADE, related_name="soil")
    taken_on = models.DateField()
    spot = models.CharField(max_length=60)
    ph = models.FloatField()
    depth_value = models.FloatField(null=True)
    depth_unit = models.CharField(max_length=12, blank=True)
    lab = models.CharField(max_length=60, blank=True)
    values = models.CharField(max_length=400, blank=True)
    fixed = models.ForeignKey("scouting.Spot", on_delete=models.SET_NULL, null=True, related_name="soil")
    how = models.CharField(max_length=8, blank=True)
    number = models.CharField(max_length=40, blank=True)
    figures = models.JSONField(default=list, blank=True)
    by = models.CharField(max_length=80, blank=True)

    class Meta:
        ordering = ["-taken_on", "spot"]

    def __str__(self) -> str:
        return f"pH {self.ph:g} at {self.spot}"

    @property
    def depth(self) -> Quantity | None:
        """How deep it was taken, where that was noted."""
        return None if self.depth_value is None else Quantity(self.depth_value, UNITS[self.depth_unit])

    @property
    def told(self) -> list[Figure]:
        """What was found besides the pH; a figure that cannot be is left out."""
        found = []
        for f in self.figures:
            try:
                found.append(figure(f["kind"], f["value"], f["unit"], f["method"]))
            except (InputError, KeyError, TypeError, AttributeError):
                continue
        return found

    @property
    def way(self) -> How | None:
        """How it was read, where that was said."""
        return How(self.how) if self.how in list(How) else None

    @property
    def sample(self) -> Sample:
        """The sample as the core sees it: one with a laboratory's name is that laboratory's."""
        how, deep = self.way or (How.LAB if self.lab else How.METER), self.depth
        return Sample(self.taken_on, self.ph, {f.kind.key: f for f in self.told}, deep.base if deep else None, how, self.lab)
