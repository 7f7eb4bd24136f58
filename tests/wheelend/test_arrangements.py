"""Arrangements as data: what is refused, and one that is made up runs with no Python touched."""

import re

import pytest

from wheelend.arrangements import KEYS, arrangement, arrangement_from
from wheelend.arrangements.loading import common_names, data_of
from wheelend.card import card_from
from wheelend.errors import BadInput

from ..conftest import MADE_UP
from .worked import DIAL, Worked, document, setting


@pytest.mark.parametrize("key", KEYS)
def test_ours_are_whole(key: str) -> None:
    family = arrangement(key)
    closing = [step for step in family.steps if step.closes]
    opening = [step for step in family.steps if step.opens]
    assert closing
    assert opening
    assert {step.stage for step in family.steps} == {one.key for one in family.stages}
    assert all(step.catches or step.why or step.phase or step.kind for step in family.steps)


@pytest.mark.usefixtures("made_up")
def test_one_that_is_made_up_runs_to_the_signature() -> None:
    said = document(
        arrangement="made_up",
        settings=[setting(clamp="hub", lock={"kind": "pin"})],
        bolt_rings=[{"ring": "cover", "bolts": 3, "torque": "12 N·m"}],
    )
    done = Worked(card=card_from(said))
    done.tick_until("shims_in")
    done.pack(0.5, 0.15)
    done.tick_until("gauge")
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.read("0 mm", "0.18 mm", "0 mm", "0.18 mm")
    assert "Take out 0.07 mm" in str(done.line)
    done.write("pick", typed="change")
    done.pack(0.5, 0.0762)
    done.tick_until("measure")
    done.read("0 mm", "0.11 mm", "0 mm", "0.10 mm")
    done.write("pick", typed="last")
    done.pack(0.5, 0.0762)
    done.torque("74 N·m")
    done.write()
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert done.due().step.id == "sign"
    assert done.statement == "proven"


def broken(old: str, new: str) -> str:
    assert old in MADE_UP
    return MADE_UP.replace(old, new, 1)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        (broken('id = "gauge"', 'id = "measure"'), "stands twice"),
        (broken('after = ["gauge"]', 'after = ["pinned"]'), "does not stand earlier"),
        (broken('ring = "cover"', 'ring = "wheel"'), "is not in the arrangement"),
        (broken('stage = "set"', 'stage = "seal"'), "is not in the arrangement"),
        (broken('clamp = "hub"', 'clamp = "nave"'), "is not in the arrangement"),
        (broken('kind = "dial"', 'kind = "clock"'), "is not one of"),
        (broken('use = "close"', 'use = "closed"'), "is no group"),
        (broken('key = "lock"', 'key = "bake"'), "is no stage"),
        (broken('part = "cone"', 'part = "bun"'), "is not one of"),
        (
            broken(
                'key = "set"\n[[stages]]\nkey = "lock"', 'key = "lock"\n[[stages]]\nkey = "set"'
            ),
            "order of the stages",
        ),
        ("name = ", "is not TOML"),
    ],
)
def test_what_contradicts_itself_is_refused_with_its_place(text: str, says: str) -> None:
    with pytest.raises(BadInput, match=says) as refused:
        arrangement_from("made_up", text)
    assert str(refused.value).startswith("made_up")


def test_what_opens_or_closes_names_its_clamp() -> None:
    text = broken(
        'clamp = "hub"\nphase = "trial"\nentry = "bolts"', 'phase = "trial"\nentry = "bolts"'
    )
    with pytest.raises(BadInput, match="names its clamp"):
        arrangement_from("made_up", text)


def test_an_unknown_arrangement_names_those_that_are_known() -> None:
    with pytest.raises(BadInput, match="shimmed_pair"):
        arrangement("tricycle")


def test_no_step_of_ours_names_a_setting() -> None:
    for key in (*common_names(), *KEYS):
        assert not re.search(r"\d\s*(N·m|mm|thou|lbf)", repr(data_of(key)))
