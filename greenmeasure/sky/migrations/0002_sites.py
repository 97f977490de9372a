"""Stations and rhythms are a site's; forms name the version they were filled from."""

import django.db.models.deletion
import django.db.models.functions.text
from django.db import migrations, models

from greenmeasure.common.migrating import settle


def on_first_site(apps, schema_editor):
    Site = apps.get_model("accounts", "Site")
    alias = schema_editor.connection.alias
    for model in ("Station", "Rhythm"):
        rows = apps.get_model("sky", model).objects.using(alias)
        for site in Site.objects.using(alias).all():
            rows.filter(account_id=site.account_id).update(site=site)
    settle(schema_editor)


class Migration(migrations.Migration):
    dependencies = [
        ("sky", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RemoveConstraint("station", "station_one_name_each"),
        migrations.RenameField("station", "club", "account"),
        migrations.AddField("station", "version", models.PositiveIntegerField(default=1)),
        migrations.RenameField("rhythm", "club", "account"),
        migrations.AddField("watch", "version", models.PositiveIntegerField(default=1)),
        migrations.AddField("station", "site", models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name="stations", to="accounts.site")),
        migrations.AddField("rhythm", "site", models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name="rhythms", to="accounts.site")),
        migrations.RunPython(on_first_site, migrations.RunPython.noop),
        migrations.AlterField("station", "site", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="stations", to="accounts.site")),
        migrations.AlterField("rhythm", "site", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="rhythms", to="accounts.site")),
        migrations.AddConstraint(
            "station",
            models.UniqueConstraint(
                models.F("account"),
                django.db.models.functions.text.Lower("name"),
                condition=models.Q(("archived_at", None)),
                name="station_one_name_each",
            ),
        ),
    ]
