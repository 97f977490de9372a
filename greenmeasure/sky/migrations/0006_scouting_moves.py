"""Scout reports are an app of their own; their rows went there."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("sky", "0005_rhythm_since"), ("scouting", "0001_initial")]

    operations = [
        migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel(name="Scouting")]),
    ]
