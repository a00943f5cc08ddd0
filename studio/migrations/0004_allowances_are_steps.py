"""Seam allowances leave the job's side table and become a step of its recipe, in every revision."""

from django.db import migrations

from izett.files.older import allowances_step


def into_steps(apps, schema_editor):
    Job = apps.get_model("studio", "Job")
    for job in Job.objects.all():
        step = allowances_step(job.cutting or {})
        if step is None:
            continue
        for revision in job.revisions.all():
            revision.document["steps"] = [*revision.document.get("steps", []), step]
            revision.save(update_fields=["document"])


class Migration(migrations.Migration):

    dependencies = [
        ('studio', '0003_house_rules'),
    ]

    operations = [
        migrations.RunPython(into_steps, migrations.RunPython.noop),
        migrations.RemoveField(model_name='job', name='cutting'),
    ]
