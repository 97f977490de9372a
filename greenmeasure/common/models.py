"""What everything of an account has in common: its account, its name, and being put away without being lost."""

from typing import Any, TypeVar

from django.db import models
from django.db.models.functions import Lower
from django.utils import timezone

from greenmeasure.common.errors import Missing
from greenmeasure.common.natural import Natural
from greenmeasure.common.rows import HouseRow

M = TypeVar("M", bound="Belonging")


def seen_by(account: Any, path: str) -> models.Q:
    """What a member sees of rows that lie on the site at `path`: all of it, unless they are limited to some sites."""
    return models.Q() if account.seen is None else models.Q(**{f"{path}__in": account.seen})


class BelongingQuerySet(models.QuerySet[M]):
    """Reads that never leave the account, nor the sites that its member sees."""

    def of(self, account: Any) -> "BelongingQuerySet[M]":
        path = self.model.site_path
        return self.filter(seen_by(account, path) if path else models.Q(), account=account)

    def kept(self) -> "BelongingQuerySet[M]":
        return self.filter(archived_at=None)

    def one(self, account: Any, pk: int) -> M:
        """The one with this key in this account.

        Raises:
            Missing: there is none, or it is another account's; the two answers do not differ.
        """
        try:
            return self.of(account).get(pk=pk)
        except self.model.DoesNotExist:
            raise Missing(str(self.model._meta.verbose_name)) from None


class PutAway(HouseRow):
    """Something that is put away rather than deleted, and whose every change has a version."""

    archived_at = models.DateTimeField(null=True, blank=True)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        abstract = True

    def next_version(self) -> None:
        """Say that it is no longer the version that forms were filled from; the caller saves."""
        self.version += 1

    def archive(self) -> None:
        """Put away: gone from lists, kept for history and for undo."""
        self.archived_at = timezone.now()
        self.next_version()
        self.save()


class Belonging(PutAway):
    """Something that an account owns, under a name of its own within that account."""

    account = models.ForeignKey("accounts.Account", on_delete=models.CASCADE, related_name="%(class)ss")
    name = models.CharField(max_length=80)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    site_path = ""
    """Where the site is found on which it lies; empty for what the account has as a whole."""

    objects = BelongingQuerySet.as_manager()

    class Meta:
        abstract = True
        ordering = [Natural("name")]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        super().save(*args, **kwargs)
        self.account.touch(self._meta.app_label)

    @property
    def within(self) -> Any:
        """The account, or the site, within which its name is its own."""
        return self.account


def one_name_each(model: str, within: str = "account") -> models.UniqueConstraint:
    """Names differ within an account, or a site, whatever their case; what is put away no longer counts."""
    return models.UniqueConstraint(within, Lower("name"), condition=models.Q(archived_at=None), name=f"{model}_one_name_each")
