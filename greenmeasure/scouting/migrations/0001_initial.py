"""Scout reports move here from the sky, with their rows; spots and photographs begin."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("accounts", "0007_scouting_revision"),
        ("ground", "0002_sites"),
        ("sky", "0005_rhythm_since"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="Scouting",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("on", models.DateField()),
                        ("disease", models.CharField(max_length=40)),
                        ("seen", models.BooleanField()),
                        ("severity", models.FloatField(null=True)),
                        ("where", models.CharField(blank=True, max_length=80)),
                        ("note", models.CharField(blank=True, max_length=300)),
                        ("by", models.CharField(max_length=80)),
                        (
                            "area",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="scouted", to="ground.area"
                            ),
                        ),
                    ],
                    options={"verbose_name": "scout report", "ordering": ["-on", "-pk"], "db_table": "sky_scouting"},
                ),
            ],
        ),
        migrations.AlterModelTable(name="scouting", table=None),
    ]
