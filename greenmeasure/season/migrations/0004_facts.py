"""A planned window keeps what it would bring; of those picked before it is not known."""

from django.db import migrations, models


class Migration(migrations.Migration):
    """Adds the facts."""

    dependencies = [("season", "0003_once")]

    operations = [migrations.AddField("planned", "facts", models.JSONField(blank=True, default=dict))]
