import django.utils.timezone
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('rim_sites', '0011_making'),
    ]

    operations = [
        migrations.AddField(
            model_name='content',
            name='kept_at',
            field=models.DateTimeField(default=django.utils.timezone.now, help_text='The last time that somebody brought it.'),
        ),
    ]
