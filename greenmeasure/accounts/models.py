"""Clubs, people, and who may do what where."""

from uuid import uuid4

from django.contrib.auth.models import AbstractUser
from django.db import models

from core.schools import Closed, House


class User(AbstractUser):
    """A person who signs in. People are told apart by their sign-in name, and may belong to several clubs."""

    first_name = None  # type: ignore[assignment]
    last_name = None  # type: ignore[assignment]
    full_name = models.CharField(max_length=80)

    def __str__(self) -> str:
        return self.full_name or self.username


class Club(models.Model):
    """A club: all ground, products, machines, rounds and entries belong to one."""

    class Units(models.TextChoices):
        US = "us", "US (1000 ft², gal, fl oz, lb)"
        METRIC = "metric", "Metric (100 m², L, mL, kg)"

    name = models.CharField(max_length=80)
    slug = models.SlugField(max_length=60, unique=True)
    units = models.CharField(max_length=6, choices=Units, default=Units.US)
    time_zone = models.CharField(max_length=40, default="UTC")
    currency = models.CharField(max_length=3, default="USD")
    created_at = models.DateTimeField(auto_now_add=True)
    house = models.JSONField(default=dict, blank=True)
    revision = models.UUIDField(default=uuid4, editable=False)

    def __str__(self) -> str:
        return self.name

    @property
    def house_rules(self) -> House:
        """The club's house rules as the core sees them."""
        start = self.house.get("season_start", [1, 1])
        closed = tuple(
            Closed(c["what"], tuple(c["start"]), tuple(c["end"]), c.get("why", "")) for c in self.house.get("closed", [])
        )
        return House(self.house.get("answers", {}), closed, (start[0], start[1]))

    def touch(self) -> None:
        """Say that something of the club has changed: what was kept of it is read afresh."""
        self.revision = uuid4()
        Club.objects.filter(pk=self.pk).update(revision=self.revision)

    @property
    def us(self) -> bool:
        return self.units == self.Units.US


class Role(models.TextChoices):
    """What a member may do: a viewer reads; an applicator also works rounds; a manager changes everything."""

    VIEWER = "viewer", "Viewer"
    APPLICATOR = "applicator", "Applicator"
    MANAGER = "manager", "Manager"


RANK = {Role.VIEWER: 1, Role.APPLICATOR: 2, Role.MANAGER: 3}


class Membership(models.Model):
    """A person in a club, with a role there."""

    club = models.ForeignKey(Club, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.VIEWER)
    joined_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["club", "user"], name="once_a_member")]
        ordering = ["user__full_name"]

    def __str__(self) -> str:
        return f"{self.user} ({self.role})"

    def may(self, role: str) -> bool:
        """Whether this member may do what `role` may."""
        return RANK[Role(self.role)] >= RANK[Role(role)]
