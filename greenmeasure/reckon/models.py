"""Mixes that an account keeps by name, to be reckoned again."""

from django.db import models

from greenmeasure.common.models import Belonging, one_name_each


class KeptMix(Belonging):
    """A mix with its rates, ground and machine, as `greenmeasure.reckon.mixes` writes and reads it: a job without its day.

    Each dose of `job` holds the label row's phrase and use besides its key, so that it is found again on a card whose rows were
    typed anew.
    """

    job = models.JSONField()

    class Meta(Belonging.Meta):
        verbose_name = "mix"
        constraints = [one_name_each("mix")]
