"""The card as a document: every field declared once, read with its path, compared, completed."""

import copy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from wheelend.card import (
    CHOICES,
    DOCUMENT,
    GROUPS,
    card_from,
    check_choice,
    differences,
    field_at,
    missing,
    value_from,
)
from wheelend.errors import BadInput

from .worked import axle_document, document, setting


def test_figures_keep_how_they_were_typed() -> None:
    card = card_from(document(settings=[setting(torque="45 lbf·ft")]))
    assert str(card.setting.torque) == "45 lbf·ft"
    assert card.setting.torque is not None
    assert card.setting.torque.value == pytest.approx(61.0118, abs=1e-3)
    assert str(card.setting.limits) == "0.05 mm to 0.15 mm"


def test_our_documents_fit_the_published_schema() -> None:
    validator = Draft202012Validator(DOCUMENT.schema())
    for one in (document(), axle_document()):
        assert list(validator.iter_errors(one)) == []


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (
            {"settings": [setting(limits={"low": "0.2 kg", "high": "1 mm"})]},
            "settings[0].limits.low",
        ),
        ({"settings": [setting(limits={"low": "0.2 mm", "high": "0.1 mm"})]}, "settings[0].limits"),
        ({"settings": [setting(torque="0 N·m")]}, "settings[0].torque"),
        ({"settings": [setting(torque="61")]}, "settings[0].torque"),
        ({"settings": [setting(clamp="pair")]}, "settings[0].clamp"),
        ({"settings": [setting(source="nobody")]}, "settings[0].source"),
        ({"settings": [setting(aim="Middle")]}, "settings[0].aim"),
        ({"settings": [setting(lock={"slots": 6})]}, "settings[0].lock.openings"),
        ({"settings": [setting(lock={"positions": 18})]}, "settings[0].lock.pitch"),
        (
            {
                "settings": [
                    setting(lock={"slots": 6, "openings": 2, "positions": 9, "pitch": "1 mm"})
                ]
            },
            "settings[0].lock",
        ),
        ({"read_at": ["12", "left"]}, "read_at[1]"),
        ({"read_at": [""]}, "read_at[0]"),
        ({"bolt_rings": [{"ring": "plate", "bolts": 4, "torque": "10 N·m"}]}, "bolt_rings[0].ring"),
        (
            {"bolt_rings": [{"ring": "wheel", "bolts": 5, "torque": "10 N·m", "stages": [0.5]}]},
            "bolt_rings[0].stages",
        ),
        ({"choices": {"dial_at": "moon"}}, "choices.dial_at"),
        ({"arrangement": "tricycle"}, "arrangement"),
        ({"colour": "red"}, "colour"),
        (
            {"stack": [{"part": "washer", "name": "w", "bore": "40 mm", "outside": "30 mm"}]},
            "stack[0].outside",
        ),
        ({"stack": [{"part": "washer", "name": "w", "after": ["ghost"]}]}, "stack[0].after"),
        ({"stack": [{"part": "washer", "name": "w\n2"}]}, "stack[0].name"),
        ({"name": "x" * 81}, "name"),
    ],
)
def test_what_cannot_be_used_is_named_by_its_path(change: dict[str, Any], path: str) -> None:
    with pytest.raises(BadInput) as refused:
        card_from(document(**change))
    assert refused.value.path == path


def test_clock_positions_count_once_however_they_are_written() -> None:
    assert card_from(document(read_at=["12", "12:00", "6"])).places == ("12", "6")
    assert card_from(axle_document()).places == ("left", "right")


def test_what_is_missing_says_what_stays_unproven() -> None:
    said = document(settings=[{"method": "shims", "clamp": "main"}], bolt_rings=[])
    found = {one.path: one.unproven for one in missing(card_from(said), said)}
    assert found["settings.0.limits"] == "that the play is inside"
    assert found["settings.0.torque"] == "that the nut is at its torque"
    assert found["bolt_rings"] == "that the wheel bolts are down"
    assert "settings.0.limits" not in {
        one.path for one in missing(card_from(document()), document())
    }


def test_a_setting_that_no_step_asks_for_is_not_missed() -> None:
    said = axle_document()
    del said["settings"][0]["torque"]
    found = {one.path for one in missing(card_from(said), said)}
    assert "settings.0.torque" not in found
    assert "settings.1.limits" not in found


def test_differences_name_the_field_and_both_values() -> None:
    before, after = document(), document(settings=[setting(torque="62 N·m")])
    after["read_at"] = ["12", "4", "8"]
    found = {one.path: (one.before, one.after) for one in differences(before, after)}
    assert found == {"settings.0.torque": ("61 N·m", "62 N·m"), "read_at": ("12, 6", "12, 4, 8")}
    assert differences(before, copy.deepcopy(before)) == ()


@pytest.mark.parametrize(
    ("path", "typed", "value"),
    [
        ("settings.0.torque", "45", "45 N·m"),
        ("settings.0.torque", "45 lbf·ft", "45 lbf·ft"),
        ("stack.2.width", "15,2", "15,2 mm"),
        ("settings.0.lock.slots", "6", 6),
        ("read_at", "12, 4, 8", ["12", "4", "8"]),
        ("second_person", "yes", True),
        ("bolt_rings.0.stages", "0.4, 1", [0.4, 1.0]),
        ("note", "  faces   dry ", "faces dry"),
        ("settings.0.torque", "", None),
    ],
)
def test_what_is_typed_becomes_what_a_document_has(path: str, typed: str, value: Any) -> None:
    assert value_from(path, typed) == value


@pytest.mark.parametrize(
    ("path", "typed"),
    [("settings.0.torque", "45 mm"), ("settings.0.lock.slots", "²"), ("settings", "x"), ("nowhere.0.x", "1"),
     ("settings.0.lock.slots", "9" * 5000), ("stack.0.part", "bun")],
)  # fmt: skip
def test_what_is_typed_wrong_is_refused(path: str, typed: str) -> None:
    with pytest.raises(BadInput):
        value_from(path, typed)


def test_every_field_has_a_label_and_one_place() -> None:
    for group, fields in GROUPS.items():
        keys = [field.key for field in fields]
        assert len(keys) == len(set(keys)), group
        assert all(field.label for field in fields)
    assert field_at("settings.3.lock.pitch").unit == "mm"


def test_choices_have_meanings_and_a_usual_answer() -> None:
    for choice in CHOICES.values():
        assert choice.usual in choice.options
        assert all(len(words) > 5 for words in choice.options.values())
    with pytest.raises(BadInput, match="is no choice"):
        check_choice("colour", "red", "choices.colour")


values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(
        ["low", "high", "torque", "limits", "method", "clamp", "name", "part", "bolts", "ring"]), inner, max_size=4),
    max_leaves=8,
)  # fmt: skip


@given(st.sampled_from(sorted(document())), values)
def test_any_damage_is_refused_as_bad_input_or_read(key: str, value: Any) -> None:
    try:
        card_from({**document(), key: value})
    except BadInput as refused:
        assert str(refused)
