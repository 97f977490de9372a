"""Accounts with their sites, people, and who may do what where."""

from collections.abc import Collection
from typing import Any
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models.functions import Lower

from core.schools import Closed, House
from greenmeasure.common.kept import kept, newest_of, note
from greenmeasure.common.models import PutAway
from greenmeasure.common.rows import HouseRow

VISITOR = "looks.round"
"""The sign-in name of whoever looks round in the sample account; nobody else's, and without a password."""


class User(AbstractUser):
    """A person who signs in. People are told apart by their sign-in name, and may belong to several accounts."""

    first_name = None  # type: ignore[assignment]
    last_name = None  # type: ignore[assignment]
    full_name = models.CharField(max_length=80)

    @property
    def visits(self) -> bool:
        """Whether they only look round: several people at once are this one, so nothing of it is their own."""
        return self.username == VISITOR

    def __str__(self) -> str:
        return self.full_name or self.username


PARTS = (
    "ground",
    "shelf",
    "stock",
    "kit",
    "water",
    "work",
    "scouting",
    "sky",
    "reckon",
    "season",
    "rounds",
    "ticks",
    "book",
    "trials",
    "programme",
    "outings",
)
"""The parts of an account that change by themselves; each has a revision: stock apart from the shelf, a round's ticks apart from
rounds, for they change at every pour. Its own, of name, units, house rules and sites, counts
for all of them.
"""
PARTS_OF = {part: (part,) for part in PARTS if part not in ("stock", "ticks")} | {
    "accounts": (),
    "shelf": ("shelf", "stock"),
    "rounds": ("rounds", "ticks"),
    "scouting": ("scouting", "book"),
}
"""By the app, the parts in which its tables lie and what they hang on; what the account itself is counts for all."""
OWN = "account"


def _revision() -> "models.UUIDField[UUID | None, UUID | None]":
    """Of a part; none while nothing of it has changed."""
    return models.UUIDField(null=True, editable=False)


class Account(HouseRow):
    """Who keeps the records: one lawn owner, a club, a contractor. Shelf, kit, house rules and members are its.

    `seen` is which sites a member who is limited to some of them sees; None for all. The door sets it, and every read of
    what lies on a site goes by it.
    """

    class Units(models.TextChoices):
        US = "us", "US (1000 ft², gal, fl oz, lb)"
        METRIC = "metric", "Metric (100 m², L, mL, kg)"

    class Keeps(models.TextChoices):
        LAWN = "lawn", "My lawn"
        GROUNDS = "grounds", "Grounds of a club, course or school"
        CUSTOMERS = "customers", "Customers' properties"

    name = models.CharField(max_length=80)
    slug = models.SlugField(max_length=60, unique=True)
    keeps = models.CharField(max_length=10, choices=Keeps, default=Keeps.GROUNDS)
    units = models.CharField(max_length=6, choices=Units, default=Units.US)
    currency = models.CharField(max_length=3, default="USD")
    created_at = models.DateTimeField(auto_now_add=True)
    house = models.JSONField(default=dict, blank=True)
    account_revision = models.UUIDField(default=uuid4, editable=False)
    ground_revision = _revision()
    shelf_revision = _revision()
    stock_revision = _revision()
    kit_revision = _revision()
    water_revision = _revision()
    work_revision = _revision()
    scouting_revision = _revision()
    sky_revision = _revision()
    trials_revision = _revision()
    programme_revision = _revision()
    outings_revision = _revision()
    reckon_revision = _revision()
    season_revision = _revision()
    rounds_revision = _revision()
    ticks_revision = _revision()
    book_revision = _revision()
    version = models.PositiveIntegerField(default=1)

    seen: frozenset[int] | None = None

    def __str__(self) -> str:
        return self.name

    @property
    def house_rules(self) -> House:
        """The account's house rules; what a site closes comes on top of them there, as `Site.house_rules`."""
        start = self.house.get("season_start", [1, 1])
        return House(self.house.get("answers", {}), (), (start[0], start[1]))

    @classmethod
    def from_db(cls, db: str | None, field_names: Collection[str], values: Collection[Any], **more: Any) -> "Account":
        """The row; its revisions are the newest from here on."""
        found: Account = super().from_db(db, field_names, values, **more)
        if set(field_names) >= REVISIONS:
            note(found, found._revisions())
        return found

    def _revisions(self) -> dict[str, UUID | None]:
        return {part: getattr(self, f"{part}_revision") for part in (OWN, *PARTS)}

    def revisions(self, parts: tuple[str, ...]) -> tuple[UUID | None, ...]:
        """The revisions of the account itself and of some of its parts, as they were read or made last."""
        now = newest_of(self) or self._revisions()
        return (now[OWN], *(now[part] for part in parts))

    def touch(self, *parts: str) -> None:
        """Say that parts of the account have changed, all of it where none is named: what was kept of them is read afresh."""
        made = {part: uuid4() for part in parts or (OWN, *PARTS)}
        for part, revision in made.items():
            setattr(self, f"{part}_revision", revision)
        Account.objects.filter(pk=self.pk).update(**{f"{part}_revision": revision for part, revision in made.items()})
        note(self, made)

    @property
    def us(self) -> bool:
        return self.units == self.Units.US

    @property
    def home(self) -> "Site":
        """The first of the sites seen: its calendar is that of shelf and kit, which lie on no site."""
        return next(iter(sites_of(self).values()))

    @property
    def time_zone(self) -> str:
        return self.home.time_zone


REVISIONS = {f"{part}_revision" for part in (OWN, *PARTS)}


class Site(PutAway):
    """A place on which areas lie: where it is, whom one asks, how one gets in, its time zone, and what is closed there.

    `agreed` is what was agreed with its owner, `tell` what they must be told, and when; `water` is where tanks are filled there,
    `fill_minutes` what a filling takes, the way to it and back included. `closed` are times of year in which a nutrient may not
    go down, as `core.schools.Closed`.
    """

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="sites")
    name = models.CharField(max_length=80)
    address = models.CharField(max_length=300, blank=True)
    contact = models.CharField(max_length=200, blank=True)
    gate = models.CharField(max_length=300, blank=True)
    agreed = models.CharField(max_length=500, blank=True)
    tell = models.CharField(max_length=300, blank=True)
    water = models.CharField(max_length=200, blank=True)
    fill_minutes = models.PositiveSmallIntegerField(null=True)
    time_zone = models.CharField(max_length=40, default="UTC")
    closed = models.JSONField(default=list, blank=True)

    class Meta:
        verbose_name = "site"
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint("account", Lower("name"), condition=models.Q(archived_at=None), name="site_one_name_each")
        ]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        super().save(*args, **kwargs)
        self.account.touch(OWN)

    @property
    def zone(self) -> ZoneInfo:
        return ZoneInfo(self.time_zone)

    @property
    def house_rules(self) -> House:
        """The account's house rules with what is closed here."""
        house = self.account.house_rules
        closed = tuple(Closed(c["what"], tuple(c["start"]), tuple(c["end"]), c.get("why", "")) for c in self.closed)
        return House(house.answers, closed, house.season_start)


@kept()
def sites_of(account: Account) -> dict[int, Site]:
    """The sites that are seen, by their ids, the first one first; those put away are left out."""
    found = account.sites.filter(archived_at=None)
    if account.seen is not None:
        found = found.filter(pk__in=account.seen)
    every = {s.pk: s for s in found}
    for site in every.values():
        site.account = account
    return every


class Role(models.TextChoices):
    """What a member may do: a viewer reads; an applicator also works rounds; a manager changes everything."""

    VIEWER = "viewer", "Viewer"
    APPLICATOR = "applicator", "Applicator"
    MANAGER = "manager", "Manager"


RANK = {Role.VIEWER: 1, Role.APPLICATOR: 2, Role.MANAGER: 3}


class MembershipQuerySet(models.QuerySet["Membership"]):
    """Reads of memberships."""

    def whole(self) -> "MembershipQuerySet":
        """With their accounts, and whether they are limited to some sites: asked of every request, in one query."""
        some = Membership.sites.through.objects.filter(membership=models.OuterRef("pk"))
        return self.select_related("account").annotate(of_some=models.Exists(some))


class Membership(HouseRow):
    """A person in an account, with a role there; `sites` limit them to some of its sites, none means all.

    `licence` is the number under which they may apply what needs one.
    """

    account = models.ForeignKey(Account, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.VIEWER)
    sites = models.ManyToManyField(Site, related_name="memberships", blank=True)
    joined_at = models.DateTimeField(auto_now_add=True)
    licence = models.CharField(max_length=40, blank=True)
    version = models.PositiveIntegerField(default=1)

    objects = MembershipQuerySet.as_manager()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["account", "user"], name="once_a_member")]
        ordering = ["user__full_name"]

    def __str__(self) -> str:
        return f"{self.user} ({self.role})"

    def limited(self) -> Account:
        """The account, limited to the sites that this member sees."""
        some = self.sites.all() if getattr(self, "of_some", True) else ()
        self.account.seen = frozenset(s.pk for s in some) or None
        return self.account

    def may(self, role: str) -> bool:
        """Whether this member may do what `role` may."""
        return RANK[Role(self.role)] >= RANK[Role(role)]


class Reminders(HouseRow):
    """What a member wants in their calendar, by keys, and the number that its private address holds, none while it has none.

    `mail` is whether they want the letter of the day, `sent_on` the day at the account's home whose letter went out last.
    """

    membership = models.OneToOneField(Membership, on_delete=models.CASCADE, related_name="reminders")
    holds = models.JSONField(default=list)
    nonce = models.UUIDField(null=True)
    mail = models.BooleanField(default=False)
    sent_on = models.DateField(null=True)

    def __str__(self) -> str:
        return f"{self.membership}"


def licence_of(account: Account, by: User, name: str) -> str:
    """The licence of who applied something: of the member of that name, rather `by` of several; empty where there is none."""
    named = Membership.objects.filter(account=account, user__full_name__iexact=name.strip()).select_related("user")
    return next((m.licence for m in sorted(named, key=lambda m: m.user_id != by.pk)), "")


class Sent(HouseRow):
    """A creating request that was answered: by whom, under which key, what it was (as a digest), and the answer."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    key = models.CharField(max_length=80)
    digest = models.CharField(max_length=64)
    status = models.PositiveSmallIntegerField(default=0)
    answer = models.TextField(blank=True)
    at = models.DateTimeField(db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "key"], name="a_key_counts_once")]

    def __str__(self) -> str:
        return self.key


class Coming(HouseRow):
    """Somebody signed in: in which session, since when, from where, and when it was last used."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="comings")
    session = models.CharField(max_length=40, unique=True)
    at = models.DateTimeField()
    last_at = models.DateTimeField()
    agent = models.CharField(max_length=200, blank=True)
    address = models.CharField(max_length=45, blank=True)

    def __str__(self) -> str:
        return f"{self.user} since {self.at:%Y-%m-%d %H:%M}"


class Tried(HouseRow):
    """One knock at a door that is open to strangers: at which, from where, when."""

    what = models.CharField(max_length=20)
    address = models.CharField(max_length=45)
    at = models.DateTimeField(db_index=True)

    class Meta:
        indexes = [models.Index(fields=["what", "address", "at"], name="tried_from_where")]

    def __str__(self) -> str:
        return f"{self.what} from {self.address}"
