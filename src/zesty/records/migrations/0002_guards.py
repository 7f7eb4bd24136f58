from django.db import migrations

from zesty.elements.guards import append_only, same_workshop


class Migration(migrations.Migration):
    dependencies = [("records", "0001_initial"), ("bench", "0002_guards")]
    operations = [
        same_workshop("records_signoff", "job_id", "bench_job"),
        append_only("records_signoff"),
        append_only("records_sheetpdf"),
    ]
