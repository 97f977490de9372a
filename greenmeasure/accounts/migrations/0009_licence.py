"""The number under which a member may apply what needs a licence."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0008_ticks_revision'),
    ]

    operations = [
        migrations.AddField(
            model_name='membership',
            name='licence',
            field=models.CharField(blank=True, max_length=40),
        ),
    ]
