"""The registration of what went down, and the licence of who put it down, as they were then."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('book', '0006_corrections'),
    ]

    operations = [
        migrations.AddField(
            model_name='application',
            name='licence',
            field=models.CharField(blank=True, max_length=40),
        ),
        migrations.AddField(
            model_name='entry',
            name='registration',
            field=models.CharField(blank=True, max_length=40),
        ),
    ]
