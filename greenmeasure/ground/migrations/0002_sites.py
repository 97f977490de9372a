"""Areas lie on a site; forms name the version they were filled from."""

import django.db.models.deletion
import django.db.models.functions.text
from django.db import migrations, models

from greenmeasure.common.migrating import settle


def on_first_site(apps, schema_editor):
    Site = apps.get_model("accounts", "Site")
    alias = schema_editor.connection.alias
    for model in ("Area",):
        rows = apps.get_model("ground", model).objects.using(alias)
        for site in Site.objects.using(alias).all():
            rows.filter(account_id=site.account_id).update(site=site)
    settle(schema_editor)


class Migration(migrations.Migration):
    dependencies = [
        ("ground", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RemoveConstraint("area", "area_one_name_each"),
        migrations.RenameField("area", "club", "account"),
        migrations.AddField("area", "version", models.PositiveIntegerField(default=1)),
        migrations.AddField("area", "site", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="areas", to="accounts.site")),
        migrations.RunPython(on_first_site, migrations.RunPython.noop),
        migrations.AlterField("area", "site", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="areas", to="accounts.site")),
        migrations.AddConstraint(
            "area",
            models.UniqueConstraint(
                models.F("site"),
                django.db.models.functions.text.Lower("name"),
                condition=models.Q(("archived_at", None)),
                name="area_one_name_each",
            ),
        ),
    ]
