"""A round has the time at which it goes down, and what was looked at; of those begun before, when they were started."""

from typing import Any

from django.db import migrations, models
from django.db.models import F

from greenmeasure.common.migrating import settle


def when_started(apps: Any, editor: Any) -> None:
    """Give every round its time."""
    apps.get_model("rounds", "Round").objects.using(editor.connection.alias).filter(at=None).update(at=F("started_at"))
    settle(editor)


class Migration(migrations.Migration):
    """Adds the time, fills it, and makes it needed."""

    dependencies = [("rounds", "0003_ends")]

    operations = [
        migrations.AddField("round", "at", models.DateTimeField(null=True)),
        migrations.RunPython(when_started, migrations.RunPython.noop),
        migrations.AlterField("round", "at", models.DateTimeField()),
        migrations.AddField("round", "looked", models.CharField(blank=True, default="", max_length=300), preserve_default=False),
    ]
