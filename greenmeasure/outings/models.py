"""Routes that sites are driven to by, the ways between them, and outings that were taken up: their jobs and the stops of each."""

from django.db import models

from greenmeasure.accounts.models import Account, Site, User
from greenmeasure.common.errors import Missing
from greenmeasure.common.models import Belonging, one_name_each
from greenmeasure.common.rows import HouseRow


class Route(Belonging):
    """Sites that are driven to together: on which weekdays, from 0, Monday; on any where none is named."""

    days = models.JSONField(default=list, blank=True)

    class Meta(Belonging.Meta):
        verbose_name = "route"
        constraints = [one_name_each("route")]


class RouteSite(HouseRow):
    """A site on its route."""

    route = models.ForeignKey(Route, on_delete=models.CASCADE, related_name="stops")
    site = models.OneToOneField(Site, on_delete=models.CASCADE, related_name="on_route")

    def __str__(self) -> str:
        return f"{self.site} on {self.route}"


class Way(HouseRow):
    """How long it takes from one site to another, and back, as somebody said; `one` is the site with the lower key."""

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="ways")
    one = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="+")
    other = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="+")
    minutes = models.PositiveSmallIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["one", "other"], name="a_way_is_kept_once")]

    def __str__(self) -> str:
        return f"{self.one} to {self.other}: {self.minutes} min"


class OutingQuerySet(models.QuerySet["Outing"]):
    """Reads of outings that never leave the account, nor the sites that its member sees."""

    def of(self, account: Account) -> "OutingQuerySet":
        """The account's outings, as far as all of their ground is seen."""
        found = self.filter(account=account)
        if account.seen is None:
            return found
        return found.exclude(jobs__stops__in=OutingStop.objects.exclude(area__site__in=account.seen))

    def whole(self, account: Account) -> "OutingQuerySet":
        """The same with all that belongs to them."""
        return self.of(account).prefetch_related(
            "jobs__stops__area__site", "jobs__machine", "jobs__round__applications", "jobs__round__parts"
        )

    def one(self, account: Account, pk: int) -> "Outing":
        """The outing with this key in this account. Raises Missing."""
        found = self.whole(account).filter(pk=pk).first()
        if found is None:
            raise Missing("outing")
        return found


class Outing(HouseRow):
    """One outing: the day it is for, and how far it has come.

    `key` comes from whoever takes it up, so that one sent twice over a bad connection is one. `begin` is from when on it was put
    in order, `people` how many go out and `crew` who, in words. `closing` are the acts at its end that were done, as
    `{"key", "by", "at", "note"}`; `pauses` when it stood still and why, as `{"from", "to", "why"}`, the last without `to` while
    it does.
    """

    class Status(models.TextChoices):
        PLANNED = "planned", "planned"
        UNDER_WAY = "under_way", "under way"
        DONE = "done", "done"
        GIVEN_UP = "given_up", "given up"

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="outings")
    key = models.UUIDField()
    status = models.CharField(max_length=10, choices=Status, default=Status.PLANNED)
    on = models.DateField()
    begin = models.DateTimeField()
    people = models.PositiveSmallIntegerField(default=1)
    crew = models.CharField(max_length=120, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made_at = models.DateTimeField()
    started_at = models.DateTimeField(null=True)
    ended_at = models.DateTimeField(null=True)
    closing = models.JSONField(default=list, blank=True)
    pauses = models.JSONField(default=list, blank=True)

    objects = OutingQuerySet.as_manager()

    class Meta:
        verbose_name = "outing"
        ordering = ["-on", "-pk"]
        constraints = [
            models.UniqueConstraint(fields=["account", "key"], name="an_outing_counts_once"),
            models.CheckConstraint(
                condition=models.Q(status__in=["planned", "under_way"], ended_at=None)
                | (models.Q(status__in=["done", "given_up"]) & models.Q(ended_at__isnull=False)),
                name="an_outing_that_is_over_has_an_end",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.on}"

    @property
    def site_ids(self) -> set[int]:
        """The sites that it leads to."""
        return {s.area.site_id for j in self.jobs.all() for s in j.stops.all()}


class OutingJob(HouseRow):
    """One job of an outing at its place in it: a mix with its machine, water or the mower.

    `job` is the mix on its ground as Reckon takes it, empty for what needs none; `begin` and `end` are when it was planned for,
    measuring before it and cleaning after it apart. `who` of the people does it, counted from 0, None where nobody stays with it.
    `round` is the mix sheet that it became.
    """

    outing = models.ForeignKey(Outing, on_delete=models.CASCADE, related_name="jobs")
    position = models.PositiveSmallIntegerField()
    doing = models.CharField(max_length=10)
    machine = models.ForeignKey("kit.Machine", on_delete=models.PROTECT, null=True, related_name="in_outings")
    job = models.JSONField(default=dict, blank=True)
    ready_minutes = models.PositiveSmallIntegerField(default=0)
    clean_minutes = models.PositiveSmallIntegerField(default=0)
    who = models.PositiveSmallIntegerField(null=True)
    begin = models.DateTimeField()
    end = models.DateTimeField()
    round = models.ForeignKey("rounds.Round", on_delete=models.SET_NULL, null=True, related_name="in_outings")

    class Meta:
        ordering = ["begin", "position"]
        constraints = [models.UniqueConstraint(fields=["outing", "position"], name="one_outing_job_a_place")]

    def __str__(self) -> str:
        return f"{self.doing} {self.position}"


class OutingStop(HouseRow):
    """One ground of a job: when it was planned for, and whether it was done or skipped, and why.

    `told` is what it is for, in words; `want` what it was due by, as the due list names it.
    """

    class State(models.TextChoices):
        OPEN = "open", "open"
        DONE = "done", "done"
        SKIPPED = "skipped", "skipped"

    job = models.ForeignKey(OutingJob, on_delete=models.CASCADE, related_name="stops")
    position = models.PositiveSmallIntegerField()
    area = models.ForeignKey("ground.Area", on_delete=models.PROTECT, related_name="in_outings")
    begin = models.DateTimeField()
    end = models.DateTimeField()
    state = models.CharField(max_length=8, choices=State, default=State.OPEN)
    why = models.CharField(max_length=300, blank=True)
    told = models.CharField(max_length=300, blank=True)
    want = models.CharField(max_length=80, blank=True)

    class Meta:
        ordering = ["position"]
        constraints = [models.UniqueConstraint(fields=["job", "area"], name="an_area_once_in_a_job")]

    def __str__(self) -> str:
        return self.area.name
