from django.db import migrations, models

SLOTS = ("menus", "pieces")


def apart(apps, schema_editor):
    """From the document of each site, menus and pieces into rows; their ids stay there, in order."""
    node = apps.get_model("rim_sites", "StoredNode")
    for stored in apps.get_model("rim_sites", "StoredSite").objects.iterator(chunk_size=20):
        for slot in SLOTS:
            values = stored.document.get(slot, [])
            node.objects.bulk_create(
                node(site=stored, slot=slot, node_id=value["id"], path="", document=value) for value in values
            )
            stored.document[slot] = [value["id"] for value in values]
        stored.save(update_fields=["document"])


def together(apps, schema_editor):
    """From rows into the document again."""
    rows = apps.get_model("rim_sites", "StoredNode").objects.filter(slot__in=SLOTS)
    for stored in apps.get_model("rim_sites", "StoredSite").objects.iterator(chunk_size=20):
        values = dict(rows.filter(site=stored).values_list("node_id", "document"))
        for slot in SLOTS:
            stored.document[slot] = [values[node_id] for node_id in stored.document[slot]]
        stored.save(update_fields=["document"])
    rows.delete()


class Migration(migrations.Migration):
    """An edit writes the menu or the piece that it changes, not all of them."""

    dependencies = [("rim_sites", "0009_format_3")]

    operations = [
        migrations.AlterField(
            model_name="storednode",
            name="slot",
            field=models.CharField(
                choices=[("pages", "Pages"), ("assets", "Assets"), ("menus", "Menus"), ("pieces", "Pieces")],
                max_length=6,
            ),
        ),
        migrations.RunPython(apart, together),
    ]
