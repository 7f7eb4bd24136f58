"""What the attacks share: a workshop, and how long they go on."""

import os

import pytest

from tests.zesty.conftest import Shop, app_role, make_shop, other, shop

__all__ = ["Shop", "app_role", "make_shop", "other", "shop"]

LONG = bool(os.environ.get("ZESTY_LONG"))
"""One switch for all that takes long: 20,000 tries, drills, kill rounds."""


def tries(few: int, many: int) -> int:
    """How many tries: few in every check, many behind the switch."""
    return many if LONG else few


@pytest.fixture
def busy(shop: Shop) -> Shop:
    """A workshop whose job has a trial, and readings of a second one."""
    shop.trial()
    shop.say("pick", step="open", typed="change")
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.read("0", "0.05")
    return shop
