from django.db import migrations

from zesty.elements.guards import append_only, in_one_workshop, same_workshop


class Migration(migrations.Migration):
    dependencies = [("stores", "0003_papers")]
    operations = [
        in_one_workshop("stores_calibration"),
        same_workshop("stores_confirmation", "calibration_id", "stores_calibration"),
        append_only("stores_confirmation"),
    ]
