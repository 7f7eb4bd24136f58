"""Every arrangement from the complaint to the signature: no dead end, nothing proven that rests on no entry."""

import pytest

from wheelend.arrangements import KEYS
from wheelend.card import card_from
from wheelend.methods import claims_of
from wheelend.procedure.progress import Row

from .test_items import demo_cards
from .worked import Worked

JUDGED = {"shimmed_pair", "through_axle"}
NOTED = {"captive": "on", "fasteners": "undone", "fastened": "torqued"}
"""How items of a list are answered; the first fastener is undone, and that is all."""


def walk(work: Worked) -> list[str]:
    """Answer every step as plainly as can be, up to the signature; the steps that were asked."""
    asked = []
    for _ in range(220):
        due = work.due()
        asked.append(due.step.id)
        assert str(work.line)
        bare = [
            one.name
            for one in claims_of(work.bench, work.judgement)
            if one.proven and not one.rests_on
        ]
        assert set(bare) <= {"Setting has a source"}, f"{due.step.id}: rests on no entry"
        if due.step.id == "sign":
            return asked
        answer(work, due)
    raise AssertionError(f"no way on from {asked[-3:]}")


def answer(work: Worked, due: Row) -> None:
    if due.step.entry == "second":
        work.write("pick", typed="read", by=2, saw=work.progress.digest)
    elif due.step.kind in NOTED and not (due.step.kind == "fasteners" and due.at.entries):
        work.write("noted", typed=NOTED[due.step.kind])
    else:
        work.tick_one()


@pytest.mark.parametrize("key", [key for key in KEYS if key not in JUDGED])
def test_from_the_complaint_to_the_signature(key: str) -> None:
    work = Worked(card=card_from(demo_cards()[key]))
    asked = walk(work)
    assert "findings" in asked
    assert "stripped" in asked
    assert work.statement != "proven"
    stages = [work.progress.by_id[one].stage for one in asked]
    order = [one.key for one in work.card.arrangement.stages]
    assert [order.index(one) for one in stages] == sorted(order.index(one) for one in stages)


@pytest.mark.parametrize("key", [key for key in KEYS if key not in JUDGED])
def test_opened_again_nothing_of_the_closing_stays_believed(key: str) -> None:
    work = Worked(card=card_from(demo_cards()[key]))
    walk(work)
    before = {row.step.id for row in work.progress.rows if row.state == "done"}
    opening = next(step for step in work.progress.steps if step.id == "stripped")
    work.write(step=opening.id, round=2)
    after = {row.step.id for row in work.progress.rows if row.state == "done"}
    gone = before - after
    assert "fasteners_back" in gone
    for row in work.progress.rows:
        if row.state == "past":
            continue
        if row.step.kind in (
            "torque",
            "lock",
            "turns",
            "drag",
            "reading",
            "seal_in",
            "packed",
            "spacer",
        ):
            assert row.state != "done", row.step.id
