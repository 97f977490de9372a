"""The number under which a product is registered."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('shelf', '0004_printed'),
    ]

    operations = [
        migrations.AddField(
            model_name='product',
            name='registration',
            field=models.CharField(blank=True, max_length=40),
        ),
    ]
