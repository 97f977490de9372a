"""`Club` becomes `Account`; a first site takes its time zone and what is closed there. The others' tables follow by their own."""

import django.db.models.deletion
import django.db.models.functions.text
from django.db import migrations, models

from greenmeasure.common.migrating import settle


def first_sites(apps, schema_editor):
    Account, Site = apps.get_model("accounts", "Account"), apps.get_model("accounts", "Site")
    alias = schema_editor.connection.alias
    for account in Account.objects.using(alias).all():
        house = dict(account.house or {})
        closed = house.pop("closed", [])
        Site.objects.using(alias).create(account=account, name=account.name, time_zone=account.time_zone, closed=closed)
        account.house = house
        account.save(using=alias, update_fields=["house"])
    settle(schema_editor)


class Migration(migrations.Migration):
    dependencies = [
        ("accounts", "0001_initial"),
        ("book", "0001_initial"),
        ("ground", "0001_initial"),
        ("kit", "0002_calibrations"),
        ("rounds", "0001_initial"),
        ("season", "0001_initial"),
        ("shelf", "0001_initial"),
        ("sky", "0001_initial"),
        ("water", "0001_initial"),
    ]

    operations = [
        migrations.RenameModel("Club", "Account"),
        migrations.RemoveConstraint("membership", "once_a_member"),
        migrations.RenameField("membership", "club", "account"),
        migrations.AddConstraint(
            "membership", models.UniqueConstraint(fields=("account", "user"), name="once_a_member")
        ),
        migrations.AddField("account", "version", models.PositiveIntegerField(default=1)),
        migrations.AddField("membership", "version", models.PositiveIntegerField(default=1)),
        migrations.CreateModel(
            name="Site",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("name", models.CharField(max_length=80)),
                ("address", models.CharField(blank=True, max_length=300)),
                ("contact", models.CharField(blank=True, max_length=200)),
                ("gate", models.CharField(blank=True, max_length=300)),
                ("time_zone", models.CharField(default="UTC", max_length=40)),
                ("closed", models.JSONField(blank=True, default=list)),
                ("archived_at", models.DateTimeField(blank=True, null=True)),
                ("version", models.PositiveIntegerField(default=1)),
                (
                    "account",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="sites", to="accounts.account"
                    ),
                ),
            ],
            options={"verbose_name": "site", "ordering": ["pk"]},
        ),
        migrations.AddConstraint(
            "site",
            models.UniqueConstraint(
                models.F("account"),
                django.db.models.functions.text.Lower("name"),
                condition=models.Q(("archived_at", None)),
                name="site_one_name_each",
            ),
        ),
        migrations.AddField(
            "membership", "sites", models.ManyToManyField(blank=True, related_name="memberships", to="accounts.site")
        ),
        migrations.RunPython(first_sites, migrations.RunPython.noop),
        migrations.RemoveField("account", "time_zone"),
    ]
