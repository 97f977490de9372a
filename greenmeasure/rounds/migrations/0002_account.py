"""Rounds are an account's."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("rounds", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RemoveConstraint("round", "a_start_counts_once"),
        migrations.RenameField("round", "club", "account"),
        migrations.AddConstraint(
            "round", models.UniqueConstraint(fields=("account", "key"), name="a_start_counts_once")
        ),
    ]
