"""Machines, what they were found to put down, and how they were cleaned."""

from typing import cast

from django.db import models

from core import job
from core.label.rate import Rate, RateUnit
from core.machines.nozzle import SIZES
from core.machines.pattern import Pattern, Way
from core.machines.residue import CleanStep
from core.machines.runs import Trust
from core.machines.standing import Test
from core.tank import vessels
from core.units import UNITS, Quantity
from greenmeasure.common.models import Belonging, one_name_each
from greenmeasure.common.rows import HouseRow


class Machine(Belonging):
    """A sprayer or a spreader, with the nozzles that are on it. `output` as typed stands until a calibration does;
    `output_assumed` where it is no more than a guess.

    `dials` are the positions of a hose-end's dial in `dial_unit`; `setting_step` is what lies between two clicks of a spreader's.
    """

    kind = models.CharField(max_length=10)
    form = models.CharField(max_length=20, blank=True)
    capacity_value = models.FloatField()
    capacity_unit = models.CharField(max_length=12)
    mark_value = models.FloatField(null=True)
    mark_unit = models.CharField(max_length=12, blank=True)
    output_value = models.FloatField(null=True)
    output_unit = models.CharField(max_length=24, blank=True)
    output_assumed = models.BooleanField(default=False)
    width_value = models.FloatField(null=True)
    width_unit = models.CharField(max_length=12, blank=True)
    nozzle_size = models.CharField(max_length=4, blank=True)
    nozzle_count = models.PositiveSmallIntegerField(null=True)
    nozzle_spacing_value = models.FloatField(null=True)
    nozzle_spacing_unit = models.CharField(max_length=12, blank=True)
    pressure_value = models.FloatField(null=True)
    pressure_unit = models.CharField(max_length=12, blank=True)
    droplets = models.PositiveSmallIntegerField(null=True)
    dials = models.JSONField(default=list)
    dial_unit = models.CharField(max_length=24, blank=True)
    setting_step = models.FloatField(null=True)
    note = models.TextField(blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "machine"
        constraints = [one_name_each("machine")]

    def _quantity(self, name: str) -> Quantity | None:
        value = getattr(self, f"{name}_value")
        return None if value is None else Quantity(value, UNITS[getattr(self, f"{name}_unit")])

    @property
    def capacity(self) -> Quantity:
        return Quantity(self.capacity_value, UNITS[self.capacity_unit])

    @property
    def mark(self) -> Quantity | None:
        """What lies between two marks of the tank."""
        return self._quantity("mark")

    @property
    def width(self) -> Quantity | None:
        """The swath as typed; `swath` is what counts."""
        return self._quantity("width")

    @property
    def nozzle_spacing(self) -> Quantity | None:
        return self._quantity("nozzle_spacing")

    @property
    def pressure(self) -> Quantity | None:
        return self._quantity("pressure")

    @property
    def nozzle(self) -> str:
        """What is fitted, in words; empty where nothing is noted."""
        if self.nozzle_size not in SIZES:
            return ""
        size = SIZES[self.nozzle_size]
        count = f"{self.nozzle_count} × " if self.nozzle_count and self.nozzle_count > 1 else ""
        return f"{count}{size.key} {size.colour}"

    @property
    def typed_output(self) -> Rate | None:
        return None if self.output_value is None else Rate(self.output_value, RateUnit.from_key(self.output_unit))

    @property
    def in_force(self) -> "Calibration | None":
        """The calibration of a sprayer that its output is taken from."""
        if self.kind != job.MachineKind.SPRAYER:
            return None
        return next((c for c in self.calibrations.all() if c.in_use and c.rate is not None), None)

    @property
    def output(self) -> Rate | None:
        """What one pass puts down: by the calibration in force, or as typed."""
        found = self.in_force
        return found.output if found else self.typed_output

    @property
    def assumed(self) -> bool:
        """Whether its output is a guess that no calibration has taken the place of."""
        return self.output_assumed and self.in_force is None and self.typed_output is not None

    @property
    def pans(self) -> "Calibration | None":
        """The latest pan test in use."""
        return next((c for c in self.calibrations.all() if c.in_use and c.method == Calibration.Method.PANS), None)

    @property
    def swath(self) -> float | None:
        """How far apart its passes are walked [m]: by the pan test, the calibration in force, or as typed."""
        found = self.pans or self.in_force
        if found and found.swath:
            return found.swath
        return self.width.base if self.width else None

    @property
    def pace(self) -> float | None:
        """How fast it was walked or driven when it was last timed [m/s]."""
        return next((c.pace for c in self.calibrations.all() if c.in_use and c.pace), None)

    @property
    def draws(self) -> bool:
        """Whether it draws from a bottle into a hose."""
        return self.form == job.Form.HOSE_END

    @property
    def timed(self) -> "Calibration | None":
        """The latest calibration in use in which the hose was timed."""
        return next((c for c in self.calibrations.all() if c.in_use and c.method == Calibration.Method.DIAL), None)

    @property
    def dial_rates(self) -> tuple[Rate, ...]:
        """The positions of a hose-end's dial: as typed, else the one that it was timed at."""
        if self.dials:
            unit = RateUnit.from_key(self.dial_unit)
            return tuple(Rate(value, unit) for value in self.dials)
        return (self.timed.dial,) if self.draws and self.timed else ()

    def core(self) -> job.Machine:
        """The machine as the core sees it."""
        return job.Machine(
            self.name,
            job.MachineKind(self.kind),
            self.capacity,
            self.output,
            job.Form(self.form) if self.form else None,
            self.mark,
            self.dial_rates,
            self.timed.flow if self.draws and self.timed else None,
            self.pk,
        )


class Vessel(Belonging):
    """What doses are measured with: its `capacity` and `graduation` in one unit, as its marks tell them.

    `off` is how far the marks are out by the last check with water, as a share, on `checked_on`; None where there was none. One
    that is put away is retired.
    """

    shape = models.CharField(max_length=10)
    capacity = models.FloatField()
    graduation = models.FloatField()
    unit = models.CharField(max_length=12)
    off = models.FloatField(null=True)
    checked_on = models.DateField(null=True)

    class Meta(Belonging.Meta):
        verbose_name = "vessel"
        constraints = [one_name_each("vessel")]

    @property
    def holds(self) -> Quantity:
        """Its capacity by its marks."""
        return Quantity(self.capacity, UNITS[self.unit])

    @property
    def marked(self) -> Quantity:
        """What lies between two of its marks."""
        return Quantity(self.graduation, UNITS[self.unit])

    def core(self) -> vessels.Vessel:
        """The vessel as the core sees it."""
        shape = cast(vessels.Shape, self.shape)
        unit = UNITS[self.unit]
        return vessels.Vessel(f"own-{self.pk}", self.name, shape, unit, self.capacity, self.graduation, self.off or 0.0)


class Calibration(HouseRow):
    """What a machine was found to do: figures as taken, and what they came to.

    `rate` is what one pass puts down [L/m², of a spreader g/m²], at `setting` of a spreader; `flow` [L/s], `pace` [m/s] and
    `swath` [m] where they were measured. No product means that it was made with water.
    """

    class Method(models.TextChoices):
        STRIP = "strip", "strip test"
        FLOW = "flow", "timed flow"
        CATCH = "catch", "catch on a course"
        EMPTYING = "emptying", "emptying a known volume"
        DIAL = "dial", "hose-end dial"
        TIPS = "tips", "nozzle check"
        WEIGHT = "weight", "weight on an area"
        TRAY = "tray", "tray under a drop spreader"
        PANS = "pans", "pan test"
        ROUND = "round", "a finished round"

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="calibrations")
    method = models.CharField(max_length=10, choices=Method)
    taken_on = models.DateField()
    expires_on = models.DateField(null=True)
    product = models.ForeignKey("shelf.Product", on_delete=models.PROTECT, null=True, related_name="+")
    round = models.ForeignKey("rounds.Round", on_delete=models.CASCADE, null=True, related_name="taught")
    setting = models.FloatField(null=True)
    rate = models.FloatField(null=True)
    flow = models.FloatField(null=True)
    pace = models.FloatField(null=True)
    swath = models.FloatField(null=True)
    trust = models.CharField(max_length=8, default=Trust.ONE.value)
    skewed = models.BooleanField(default=False)
    nozzle = models.CharField(max_length=40, blank=True)
    weather = models.CharField(max_length=120, blank=True)
    by = models.CharField(max_length=80, blank=True)
    note = models.CharField(max_length=300, blank=True)
    sentence = models.CharField(max_length=300, blank=True)
    given = models.JSONField(default=dict)
    in_use = models.BooleanField(default=True)

    class Meta:
        verbose_name = "calibration"
        ordering = ["-taken_on", "-pk"]

    def __str__(self) -> str:
        return f"{self.get_method_display()} of {self.taken_on}"

    @property
    def output(self) -> Rate:
        """The output of a sprayer in the account's own unit."""
        unit = RateUnit.from_key("gal/kft2" if self.machine.account.us else "l/m2_100")
        return Rate((self.rate or 0.0) / unit.size, unit)

    @property
    def dial(self) -> Rate:
        """Where the dial of a hose-end stood when it was timed, in the account's own unit."""
        drawn, per = (Quantity(float(x["value"]), UNITS[x["unit"]]) for x in (self.given["dial"], self.given["dial_per"]))
        unit = RateUnit.from_key("fl_oz/gal" if self.machine.account.us else "ml/l")
        return Rate(drawn.base / per.base / unit.size, unit)

    @property
    def pattern(self) -> Pattern | None:
        """The pattern of a pan test, as `core.machines.pattern` has it."""
        if self.method != self.Method.PANS:
            return None
        return Pattern(tuple(self.given["grams"]), self.given["apart_m"], self.given["track_at"])

    @property
    def way(self) -> Way:
        return Way(self.given.get("way", Way.BACK_AND_FORTH))

    def core(self) -> Test:
        """The calibration as the rules of use see it."""
        return Test(
            self.taken_on,
            self.rate or 0.0,
            self.expires_on,
            self.product_id,
            self.nozzle,
            self.setting,
            Trust(self.trust),
            self.skewed,
        )


class Cleaning(HouseRow):
    """A machine cleaned: which steps, when and by whom."""

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="cleanings")
    at = models.DateTimeField()
    by = models.CharField(max_length=80, blank=True)
    steps = models.JSONField(default=list)
    note = models.CharField(max_length=300, blank=True)

    class Meta:
        verbose_name = "cleaning"
        ordering = ["-at"]

    def __str__(self) -> str:
        return f"{self.machine}, {self.at:%Y-%m-%d}"

    @property
    def done(self) -> tuple[CleanStep, ...]:
        return tuple(CleanStep(s) for s in self.steps)
