"""What everything of a club has in common: its club, its name, and being put away without being lost."""

from typing import Any, TypeVar

from django.db import models
from django.db.models.functions import Lower
from django.utils import timezone

from greenmeasure.common.errors import Missing

M = TypeVar("M", bound="Belonging")


class BelongingQuerySet(models.QuerySet[M]):
    """Reads that never leave the club."""

    def of(self, club: Any) -> "BelongingQuerySet[M]":
        return self.filter(club=club)

    def kept(self) -> "BelongingQuerySet[M]":
        return self.filter(archived_at=None)

    def one(self, club: Any, pk: int) -> M:
        """The one with this key in this club.

        Raises:
            Missing: there is none, or it is another club's; the two answers do not differ.
        """
        try:
            return self.get(club=club, pk=pk)
        except self.model.DoesNotExist:
            raise Missing(str(self.model._meta.verbose_name)) from None


class Belonging(models.Model):
    """Something that a club owns, under a name of its own within that club."""

    club = models.ForeignKey("accounts.Club", on_delete=models.CASCADE, related_name="%(class)ss")
    name = models.CharField(max_length=80)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    archived_at = models.DateTimeField(null=True, blank=True)

    objects = BelongingQuerySet.as_manager()

    class Meta:
        abstract = True
        ordering = [Lower("name")]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        super().save(*args, **kwargs)
        self.club.touch()

    def archive(self) -> None:
        """Put away: gone from lists, kept for history and for undo."""
        self.archived_at = timezone.now()
        self.save(update_fields=["archived_at", "changed_at"])


def one_name_each(model: str) -> models.UniqueConstraint:
    """Names differ within a club, whatever their case; what is put away no longer counts."""
    return models.UniqueConstraint("club", Lower("name"), condition=models.Q(archived_at=None), name=f"{model}_one_name_each")
