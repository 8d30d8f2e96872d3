import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('rim_sites', '0013_about'),
    ]

    operations = [
        migrations.AddField(
            model_name='storedsite',
            name='found',
            field=models.JSONField(default=dict, help_text='How much was found when it was last looked at, by severity.'),
        ),
        migrations.CreateModel(
            name='LookedThrough',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('revision', models.PositiveIntegerField()),
                ('at', models.DateTimeField()),
                ('findings', models.JSONField()),
                ('site', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='looked_through', to='rim_sites.storedsite')),
            ],
        ),
    ]
