"""Machines are an account's; forms name the version they were filled from."""

import django.db.models.functions.text
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("kit", "0002_calibrations"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RemoveConstraint("machine", "machine_one_name_each"),
        migrations.RenameField("machine", "club", "account"),
        migrations.AddField("machine", "version", models.PositiveIntegerField(default=1)),
        migrations.AddConstraint(
            "machine",
            models.UniqueConstraint(
                models.F("account"),
                django.db.models.functions.text.Lower("name"),
                condition=models.Q(("archived_at", None)),
                name="machine_one_name_each",
            ),
        ),
    ]
