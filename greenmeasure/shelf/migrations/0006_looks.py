"""On which days to look after a product went down, and what is seen then."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("shelf", "0005_registration")]

    operations = [
        migrations.AddField(model_name="product", name="looks", field=models.CharField(blank=True, max_length=60)),
        migrations.AddField(model_name="product", name="expect", field=models.CharField(blank=True, max_length=300)),
    ]
