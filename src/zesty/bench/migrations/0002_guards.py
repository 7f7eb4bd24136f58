from django.db import migrations

from zesty.elements.guards import append_only, in_one_workshop, same_workshop


class Migration(migrations.Migration):
    dependencies = [("bench", "0001_initial"), ("fleet", "0002_guards"), ("cards", "0002_guards"), ("stores", "0002_guards")]
    operations = [
        in_one_workshop("bench_job"),
        in_one_workshop("bench_unit"),
        same_workshop("bench_job", "vehicle_id", "fleet_vehicle"),
        same_workshop("bench_unit", "job_id", "bench_job"),
        same_workshop("bench_unit", "card_version_id", "cards_cardversion"),
        same_workshop("bench_unitplace", "unit_id", "bench_unit"),
        same_workshop("bench_unitplace", "wheel_end_id", "fleet_wheelend"),
        same_workshop("bench_entry", "job_id", "bench_job"),
        same_workshop("bench_entry", "unit_id", "bench_unit"),
        same_workshop("bench_entry", "instrument_id", "stores_instrument"),
        append_only("bench_entry"),
        append_only("bench_entryshim"),
    ]
