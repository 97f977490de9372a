"""Entries know area, product and machine by id, and keep their own copy of the names."""

import django.db.models.deletion
from django.db import migrations, models

from greenmeasure.common.migrating import settle


def known_by_id(apps, schema_editor):
    """Entries take product, machine and part from the round that they came of."""
    alias = schema_editor.connection.alias
    Entry = apps.get_model("book", "Entry")
    seen = {}
    for entry in Entry.objects.using(alias).filter(round__isnull=False).select_related("round").order_by("pk"):
        entry.product_id, entry.machine_id = entry.round.product_id, entry.round.machine_id
        entry.position = seen.get(entry.round_id, 0)
        seen[entry.round_id] = entry.position + 1
        entry.save(using=alias, update_fields=["product", "machine", "position"])
    settle(schema_editor)


class Migration(migrations.Migration):
    dependencies = [
        ("book", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
        ("ground", "0002_sites"),
        ("kit", "0003_account"),
        ("rounds", "0002_account"),
        ("shelf", "0002_account"),
    ]

    operations = [
        migrations.RemoveIndex("entry", "book_entry_club_id_9aaadf_idx"),
        migrations.RenameField("entry", "club", "account"),
        migrations.RenameField("entry", "area", "area_name"),
        migrations.RenameField("entry", "ground", "area"),
        migrations.RenameField("entry", "product", "product_name"),
        migrations.RenameField("entry", "machine", "machine_name"),
        migrations.AddField(
            "entry",
            "product",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="entries", to="shelf.product"
            ),
        ),
        migrations.AddField(
            "entry",
            "machine",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="entries", to="kit.machine"
            ),
        ),
        migrations.AddField("entry", "position", models.PositiveSmallIntegerField(null=True)),
        migrations.RunPython(known_by_id, migrations.RunPython.noop),
        migrations.AddIndex("entry", models.Index(fields=["account", "-finished_at"], name="book_by_time")),
        migrations.AddConstraint(
            "entry", models.UniqueConstraint(fields=("round", "position"), name="a_part_is_recorded_once")
        ),
    ]
