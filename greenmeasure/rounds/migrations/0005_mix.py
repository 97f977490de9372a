"""A round has a mix of components and a dose of each on every ground; rounds of before are mixes of one."""

from typing import Any

import django.db.models.deletion
from django.db import migrations, models

from greenmeasure.common.migrating import settle

DOSE = ("use", "phrase", "intent", "interval_low", "interval_high", "rate_value", "rate_unit", "dose")
BATCH = 1000


def as_mixes_of_one(apps: Any, editor: Any) -> None:
    """Give every round its one component, and every ground of it the dose."""
    alias = editor.connection.alias

    def model(name: str) -> Any:
        return apps.get_model("rounds", name)

    mixed = {}
    for found in model("Round").objects.using(alias).iterator(BATCH):
        mixed[found.pk] = model("RoundComponent")(
            round_id=found.pk,
            position=0,
            product_id=found.product_id,
            target=found.target,
            amount_value=found.amount_value,
            amount_unit=found.amount_unit,
        )
    model("RoundComponent").objects.using(alias).bulk_create(mixed.values(), batch_size=BATCH)
    doses = [
        model("RoundDose")(part_id=part.pk, component=mixed[part.round_id], **{name: getattr(part, name) for name in DOSE})
        for part in model("RoundPart").objects.using(alias).iterator(BATCH)
    ]
    model("RoundDose").objects.using(alias).bulk_create(doses, batch_size=BATCH)
    settle(editor)


def key() -> Any:
    return models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")


class Migration(migrations.Migration):
    """Makes the two tables, fills them, and takes their columns out of round and part."""

    dependencies = [("rounds", "0004_at"), ("shelf", "0002_account")]

    operations = [
        migrations.CreateModel(
            name="RoundComponent",
            fields=[
                ("id", key()),
                ("position", models.PositiveSmallIntegerField()),
                ("target", models.CharField(blank=True, max_length=80)),
                ("amount_value", models.FloatField(null=True)),
                ("amount_unit", models.CharField(blank=True, max_length=12)),
                (
                    "product",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="in_rounds", to="shelf.product"
                    ),
                ),
                (
                    "round",
                    models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="mix", to="rounds.round"),
                ),
            ],
            options={"ordering": ["position"]},
        ),
        migrations.CreateModel(
            name="RoundDose",
            fields=[
                ("id", key()),
                ("use", models.CharField(blank=True, max_length=120)),
                ("phrase", models.CharField(max_length=200)),
                ("intent", models.CharField(default="any", max_length=12)),
                ("interval_low", models.PositiveSmallIntegerField(null=True)),
                ("interval_high", models.PositiveSmallIntegerField(null=True)),
                ("rate_value", models.FloatField()),
                ("rate_unit", models.CharField(max_length=24)),
                ("dose", models.FloatField()),
                (
                    "component",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="doses", to="rounds.roundcomponent"
                    ),
                ),
                (
                    "part",
                    models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="doses", to="rounds.roundpart"),
                ),
            ],
            options={"ordering": ["component__position"]},
        ),
        migrations.RunPython(as_mixes_of_one, migrations.RunPython.noop),
        migrations.AddConstraint(
            "roundcomponent", models.UniqueConstraint(fields=["round", "position"], name="one_component_a_place")
        ),
        migrations.AddConstraint("rounddose", models.UniqueConstraint(fields=["part", "component"], name="one_dose_a_component")),
        *(migrations.RemoveField("round", name) for name in ("product", "target", "amount_value", "amount_unit")),
        *(migrations.RemoveField("roundpart", name) for name in DOSE),
    ]
