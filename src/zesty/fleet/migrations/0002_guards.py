from django.db import migrations

from zesty.elements.guards import in_one_workshop, same_workshop



class Migration(migrations.Migration):
    dependencies = [("fleet", "0001_initial")]
    operations = [
        in_one_workshop("fleet_vehicle"),
        in_one_workshop("fleet_wheelend"),
        same_workshop("fleet_wheelend", "vehicle_id", "fleet_vehicle"),
    ]
