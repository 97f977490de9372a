"""An application holds its entries, one a product; entries of before are applications of one."""

from typing import Any

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from greenmeasure.common.migrating import settle

SHARED = (
    "account_id",
    "round_id",
    "position",
    "area_id",
    "machine_id",
    "applied_on",
    "finished_at",
    "area_name",
    "zone",
    "treated_value",
    "treated_unit",
    "spray_value",
    "spray_unit",
    "machine_name",
    "passes",
    "loads",
    "wind",
    "air",
    "looked",
    "note",
    "by_id",
    "by_name",
)
"""What moves from an entry to its application, by the names of the columns."""
BATCH = 1000


def as_applications_of_one(apps: Any, editor: Any) -> None:
    """Give every entry its application, which has the entry's own number."""
    alias = editor.connection.alias
    application, entry = apps.get_model("book", "Application"), apps.get_model("book", "Entry")
    made = [
        application(id=found.pk, **{name: getattr(found, name) for name in SHARED})
        for found in entry.objects.using(alias).order_by("pk").iterator(BATCH)
    ]
    application.objects.using(alias).bulk_create(made, batch_size=BATCH)
    entry.objects.using(alias).update(application_id=models.F("id"))
    settle(editor)


def optional(name: str, to: str) -> tuple[str, Any]:
    field = models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="applications", to=to)
    return (name, field)


class Migration(migrations.Migration):
    """Makes the table, fills it, and takes what it holds out of the entries."""

    dependencies = [
        ("book", "0003_marks"),
        ("accounts", "0002_account_and_sites"),
        ("ground", "0002_sites"),
        ("kit", "0003_account"),
        ("rounds", "0004_at"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.RemoveConstraint("entry", "a_part_is_recorded_once"),
        migrations.RemoveIndex("entry", "book_by_time"),
        migrations.CreateModel(
            name="Application",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("position", models.PositiveSmallIntegerField(null=True)),
                ("applied_on", models.DateField()),
                ("finished_at", models.DateTimeField()),
                ("area_name", models.CharField(max_length=80)),
                ("zone", models.CharField(blank=True, max_length=40)),
                ("treated_value", models.FloatField()),
                ("treated_unit", models.CharField(max_length=12)),
                ("spray_value", models.FloatField(null=True)),
                ("spray_unit", models.CharField(blank=True, max_length=12)),
                ("machine_name", models.CharField(max_length=80)),
                ("passes", models.PositiveSmallIntegerField(default=1)),
                ("loads", models.PositiveSmallIntegerField(default=1)),
                ("wind", models.CharField(blank=True, max_length=120)),
                ("air", models.CharField(blank=True, max_length=120)),
                ("looked", models.CharField(blank=True, max_length=300)),
                ("note", models.TextField(blank=True)),
                ("by_name", models.CharField(max_length=80)),
                (
                    "account",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="applications", to="accounts.account"
                    ),
                ),
                optional("area", "ground.area"),
                optional("machine", "kit.machine"),
                (
                    "round",
                    models.ForeignKey(
                        null=True, on_delete=django.db.models.deletion.PROTECT, related_name="applications", to="rounds.round"
                    ),
                ),
                (
                    "by",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL
                    ),
                ),
            ],
            options={"verbose_name": "application", "ordering": ["-finished_at"]},
        ),
        migrations.AddField(
            "entry",
            "application",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.CASCADE, related_name="entries", to="book.application"
            ),
        ),
        migrations.RunPython(as_applications_of_one, migrations.RunPython.noop),
        migrations.AlterModelOptions("entry", options={"verbose_name": "entry"}),
        *(migrations.RemoveField("entry", name.removesuffix("_id")) for name in SHARED),
        migrations.AddField("entry", "position", models.PositiveSmallIntegerField(default=0)),
        migrations.AlterField(
            "entry",
            "application",
            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="entries", to="book.application"),
        ),
        *(migrations.AlterField("entry", name, models.FloatField(null=True)) for name in ("planned_value", "actual_value", "used_value")),
        migrations.AlterField("entry", "phrase", models.CharField(blank=True, max_length=200)),
        migrations.AlterField("entry", "rate_unit", models.CharField(blank=True, max_length=24)),
        migrations.AlterField("entry", "stand", models.CharField(blank=True, max_length=6)),
        migrations.AlterField("entry", "used_unit", models.CharField(blank=True, max_length=12)),
        migrations.AlterModelOptions(
            "entry", options={"ordering": ["-application__finished_at", "application", "position"], "verbose_name": "entry"}
        ),
        migrations.AddIndex("application", models.Index(fields=["account", "-finished_at"], name="book_by_time")),
        migrations.AddConstraint(
            "application", models.UniqueConstraint(fields=["round", "position"], name="a_part_is_recorded_once")
        ),
        migrations.AddConstraint(
            "entry", models.UniqueConstraint(fields=["application", "position"], name="a_component_is_recorded_once")
        ),
    ]
