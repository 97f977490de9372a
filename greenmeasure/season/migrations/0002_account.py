"""What is planned is an account's."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [
        ("season", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RenameField("planned", "club", "account"),
    ]
