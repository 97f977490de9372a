from django.db import migrations, models

PARTS = ("ground", "shelf", "stock", "kit", "water", "sky", "reckon", "season", "rounds", "book")


class Migration(migrations.Migration):
    """An account's revision becomes that of its own facts; each part of it gets one."""

    dependencies = [("accounts", "0004_doors")]

    operations = [
        migrations.RenameField("account", "revision", "account_revision"),
        *(
            migrations.AddField("account", f"{part}_revision", models.UUIDField(editable=False, null=True))
            for part in PARTS
        ),
    ]
