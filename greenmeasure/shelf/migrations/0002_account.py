"""Products are an account's; forms name the version they were filled from."""

import django.db.models.functions.text
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("shelf", "0001_initial"),
        ("accounts", "0002_account_and_sites"),
    ]

    operations = [
        migrations.RemoveConstraint("product", "product_one_name_each"),
        migrations.RenameField("product", "club", "account"),
        migrations.AddField("product", "version", models.PositiveIntegerField(default=1)),
        migrations.AddField("lot", "version", models.PositiveIntegerField(default=1)),
        migrations.AddConstraint(
            "product",
            models.UniqueConstraint(
                models.F("account"),
                django.db.models.functions.text.Lower("name"),
                condition=models.Q(("archived_at", None)),
                name="product_one_name_each",
            ),
        ),
    ]
