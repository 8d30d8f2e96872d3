from django.db import migrations

from upper_rim.core.model.upgrades import to_3


def lift(apps, schema_editor):
    """What is stored of sites, and the edits that lead back through them, in format 3."""
    for name, fields in (("StoredSite", ("document",)), ("Revision", ("edit", "inverse")), ("Trial", ("edit",))):
        model = apps.get_model("rim_sites", name)
        for row in model.objects.only("pk", *fields).iterator(chunk_size=200):
            lifted = {field: to_3.lifted(getattr(row, field)) for field in fields}
            if name == "StoredSite":
                lifted["document"] = {**lifted["document"], "format": 3}
            model.objects.filter(pk=row.pk).update(**lifted)


class Migration(migrations.Migration):
    """More is said of a site's languages than their order."""

    dependencies = [("rim_sites", "0008_consent")]

    operations = [migrations.RunPython(lift, migrations.RunPython.noop)]
