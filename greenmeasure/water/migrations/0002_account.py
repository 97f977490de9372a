"""Tasks are an account's."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [
        ("water", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RenameField("task", "club", "account"),
    ]
