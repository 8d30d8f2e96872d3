from django.db import migrations

COLUMNS = (("rim_sites_storedsite", "document"), ("rim_sites_revision", "edit"), ("rim_sites_revision", "inverse"))


class Migration(migrations.Migration):
    """A site's document is written anew with each edit: LZ4 takes a fraction of the time that the usual method does."""

    dependencies = [("rim_sites", "0003_messages")]

    operations = [
        migrations.RunSQL(
            f"ALTER TABLE {table} ALTER COLUMN {column} SET COMPRESSION lz4",
            f"ALTER TABLE {table} ALTER COLUMN {column} SET COMPRESSION default",
        )
        for table, column in COLUMNS
    ]
