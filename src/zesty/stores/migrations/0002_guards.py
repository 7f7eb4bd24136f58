from django.db import migrations

from zesty.elements.guards import append_only, in_one_workshop, same_workshop


class Migration(migrations.Migration):
    dependencies = [("stores", "0001_initial")]
    operations = [
        in_one_workshop("stores_instrument"),
        in_one_workshop("stores_shim"),
        same_workshop("stores_calibration", "instrument_id", "stores_instrument"),
        append_only("stores_calibration"),
    ]
