"""Soil samples: their fixed spot, how and where they were read, and a laboratory's figures."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('ground', '0002_sites'),
        ('scouting', '0004_place_of_reports'),
    ]

    operations = [
        migrations.AddField(
            model_name='soilreading',
            name='by',
            field=models.CharField(blank=True, max_length=80),
        ),
        migrations.AddField(
            model_name='soilreading',
            name='figures',
            field=models.JSONField(blank=True, default=list),
        ),
        migrations.AddField(
            model_name='soilreading',
            name='fixed',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='soil', to='scouting.spot'),
        ),
        migrations.AddField(
            model_name='soilreading',
            name='how',
            field=models.CharField(blank=True, max_length=8),
        ),
        migrations.AddField(
            model_name='soilreading',
            name='number',
            field=models.CharField(blank=True, max_length=40),
        ),
    ]
