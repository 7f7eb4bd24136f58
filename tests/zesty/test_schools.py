"""The table of schools, row by row: each is a choice that can be changed and is printed, a rule, or a record."""

import re
import uuid
from pathlib import Path

import pytest

from wheelend.arrangements import KEYS, arrangement
from wheelend.card import CHOICES
from wheelend.card.fields import PART, SOURCE
from wheelend.errors import BadInput
from zesty.bench.actions import log
from zesty.elements.refused import Refused
from zesty.records.queries import sheet_context

from .conftest import Shop

TABLE = Path(__file__).parents[2] / "docs" / "schools.md"
ROWS = [
    [cell.strip() for cell in line.strip("| \n").split("|")]
    for line in TABLE.read_text(encoding="utf-8").splitlines()
    if line.startswith("| ") and not line.startswith("| question")
]
CHOSEN = [row for row in ROWS if row[1].startswith("choice")]


def key_in(words: str) -> str:
    found = re.search(r"`(\w+)`", words)
    assert found
    return found.group(1)


def test_the_table_has_every_choice_and_no_other() -> None:
    assert len(ROWS) == 21
    assert {key_in(row[1]) for row in CHOSEN} == {*CHOICES} - {"same_number"}


@pytest.mark.parametrize("row", CHOSEN, ids=lambda row: key_in(row[1]))
def test_a_choice_has_the_schools_of_its_row_and_is_made_somewhere(row: list[str]) -> None:
    choice = CHOICES[key_in(row[1])]
    assert [one.strip() for one in row[2].split(",")] == list(choice.options)
    assert any(choice.is_made_in(arrangement(key)) for key in KEYS)


@pytest.mark.parametrize("row", CHOSEN, ids=lambda row: key_in(row[1]))
def test_a_choice_is_changed_in_a_job_with_a_reason_and_printed(shop: Shop, row: list[str]) -> None:
    key = key_in(row[1])
    value = list(CHOICES[key].options)[1]
    if key == "lock_policy":
        value = "advance_only"
    with pytest.raises((Refused, BadInput)):
        log.choose(shop.file, shop.unit, shop.people["tech"], what=key, value="otherwise", reason="so",
                   token=uuid.uuid4())  # fmt: skip
    log.choose(shop.file, shop.unit, shop.people["tech"], what=key, value=value,
               reason="as this shed does it", token=uuid.uuid4())  # fmt: skip
    assert shop.unit.progress.choice(key) == value
    member = (
        shop.people["lead"].memberships.get()
        if hasattr(shop.people["lead"], "memberships")
        else None
    )
    member = member or shop.people["lead"].membership
    printed = sheet_context(shop.file, member, shop.file.job.opened_at, "set")
    (unit,) = printed["units"]
    assert [(one.place, one.typed, one.reason) for one in unit["choices"]] == [
        (key, value, "as this shed does it")
    ]


def test_what_is_fixed_and_what_is_recorded_is_there() -> None:
    by_question = {row[0]: row[1] for row in ROWS}
    steps = {step.id for step in arrangement("slotted_nut").steps}
    assert key_in(by_question["cleaning"]) in steps
    assert key_in(by_question["old small parts"]) in {field.key for field in PART}
    kinds = next(field for field in SOURCE if field.key == "kind").reader.schema()["enum"]
    assert "unsourced" in kinds
    assert {"hub_maker", "kit_sheet"} <= {*kinds}
