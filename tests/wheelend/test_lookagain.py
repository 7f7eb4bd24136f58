"""After how long a wheel end is looked at again, for what, and whose rule that is."""

from typing import Any

from wheelend.card import card_from
from wheelend.card.lookagain import OURS_DAYS, LookAgain, look_again

from .test_items import demo_cards


def asked(key: str, **changed: Any) -> LookAgain | None:
    said = {**demo_cards()[key], **changed}
    return look_again(card_from({name: value for name, value in said.items() if value is not None}))


def test_the_cards_own_time_rules() -> None:
    again = asked("slotted_nut", recheck={"days": 3, "usage": "50 km"})
    assert again is not None
    assert (again.days, again.usage, again.is_ours) == (3, "50 km", False)
    assert again.what.startswith("play")


def test_what_settles_is_looked_at_by_the_shops_rule_where_the_card_is_silent() -> None:
    again = asked("slotted_nut", recheck=None, bolt_rings=None)
    assert again is not None
    assert (again.days, again.is_ours) == (OURS_DAYS, True)


def test_what_does_not_settle_is_looked_at_only_for_its_wheel_fasteners() -> None:
    source = demo_cards()["cartridge"]["settings"][0]["source"]
    ring = {"ring": "wheel", "bolts": 5, "torque": "95 N·m", "source": source}
    again = asked("cartridge", recheck=None, bolt_rings=[ring])
    assert again is not None
    assert "wheel fasteners" in again.what
    assert asked("cartridge", recheck=None, bolt_rings=None) is None
