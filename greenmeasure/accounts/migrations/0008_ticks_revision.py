"""A revision of rounds' ticks, apart from that of rounds."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("accounts", "0007_scouting_revision")]

    operations = [
        migrations.AddField(
            model_name="account",
            name="ticks_revision",
            field=models.UUIDField(editable=False, null=True),
        ),
    ]
