"""An entry tells the rules that stood against it, and why it was put down all the same."""

from django.db import migrations, models


class Migration(migrations.Migration):
    """Adds the two marks, empty for what was booked before."""

    dependencies = [("book", "0002_by_id")]

    operations = [
        migrations.AddField("entry", "against", models.TextField(blank=True, default=""), preserve_default=False),
        migrations.AddField("entry", "looked", models.CharField(blank=True, default="", max_length=300), preserve_default=False),
        migrations.AddField("entry", "reason", models.CharField(blank=True, default="", max_length=400), preserve_default=False),
    ]
