from django.db import migrations

from upper_rim.core.model.upgrades import to_2


def lift(apps, schema_editor):
    """What is stored of sites, and the edits that lead back through them, in format 2."""
    for name, fields in (("StoredSite", ("document",)), ("Revision", ("edit", "inverse")), ("Trial", ("edit",))):
        model = apps.get_model("rim_sites", name)
        for row in model.objects.only("pk", *fields).iterator(chunk_size=200):
            lifted = {field: to_2.lifted(getattr(row, field)) for field in fields}
            if name == "StoredSite":
                lifted["document"] = {**lifted["document"], "format": 2}
            model.objects.filter(pk=row.pk).update(**lifted)
    apps.get_model("rim_sites", "Arrival").objects.all().delete()


class Migration(migrations.Migration):
    """Notice bars say how they move. Bundles that somebody was choosing from are opened anew."""

    dependencies = [("rim_sites", "0004_quick_documents")]

    operations = [migrations.RunPython(lift, migrations.RunPython.noop)]
