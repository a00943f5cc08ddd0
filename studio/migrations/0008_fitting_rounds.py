from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("studio", "0007_nothing_left_behind")]

    operations = [
        migrations.AddField("finding", "counted", models.CharField(max_length=16, blank=True, default="")),
        migrations.AddField("finding", "piece", models.CharField(max_length=200, blank=True, default="")),
        migrations.AddField("finding", "line", models.CharField(max_length=200, blank=True, default="")),
        migrations.AddField("finding", "normal", models.TextField(blank=True, default="")),
        migrations.AddField("finding", "amended", models.JSONField(default=list)),
    ]
