from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('rim_sites', '0010_rows_of_menus_and_pieces'),
    ]

    operations = [
        migrations.AddField(
            model_name='edition',
            name='making',
            field=models.CharField(blank=True, default='', max_length=64),
            preserve_default=False,
        ),
    ]
