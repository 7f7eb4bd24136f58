from django.db import migrations

from zesty.elements.guards import append_only, in_one_workshop, same_workshop


class Migration(migrations.Migration):
    dependencies = [("cards", "0001_initial"), ("fleet", "0002_guards")]
    operations = [
        in_one_workshop("cards_speccard"),
        in_one_workshop("cards_cardversion"),
        same_workshop("cards_cardversion", "card_id", "cards_speccard"),
        append_only("cards_cardversion"),
    ]
