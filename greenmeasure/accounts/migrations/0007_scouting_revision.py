"""A revision of what was seen."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("accounts", "0006_work_revision")]

    operations = [
        migrations.AddField(
            model_name="account",
            name="scouting_revision",
            field=models.UUIDField(editable=False, null=True),
        ),
    ]
