"""What a row of the log may hold: one declaration for every writer."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.arrangements import Step
from wheelend.card import card_from
from wheelend.errors import BadInput
from wheelend.procedure.allowed import check_log, check_number, check_pack, check_row
from wheelend.procedure.figures import FIGURES
from wheelend.procedure.log import Instrument, Written

from .worked import document

CARD = card_from(document(read_at=["12", "6"]))
DIAL = Instrument(
    "dial", {"name": "dial", "kind": "dial", "resolution_mm": 0.01, "dial_at": "hub_face"}
)
READING = Written(
    1, "read", "out", "main", place="12", typed="0.05 mm", value=0.05, instrument=DIAL
)
PACK = Written(1, "fit_pack", "pack", "main", station="main", typed="0.50 mm", pack=((0.5,),))


def test_what_the_bench_writes_is_allowed() -> None:
    for row in (READING, PACK, replace(READING, kind="bound", place="", typed="", value=None)):
        check_row(CARD, row)


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"place": "left"}, "place"), ({"place": ""}, "place"), ({"place": "12:00"}, "place"),
        ({"place": "3"}, "place"), ({"station": "main"}, "station"), ({"clamp": "pair"}, "clamp"),
        ({"kind": "bolt"}, "kind"), ({"kind": "pick"}, "kind"), ({"typed": "150 mm", "value": 150.0}, "typed"),
        ({"typed": "5 N·m"}, "typed"), ({"typed": ""}, "typed"), ({"value": 0.06}, "value"),
        ({"value": None}, "value"), ({"round": 0}, "round"), ({"round": 1000}, "round"),
        ({"closing": 1000}, "closing"), ({"kind": "skip"}, "kind"),
        ({"instrument": Instrument("dial", {"resolution_mm": 0})}, "facts.resolution_mm"),
        ({"instrument": Instrument("dial", {"calibrated_on": "yesterday"})}, "facts.calibrated_on"),
        ({"instrument": Instrument("dial", {"colour": "red"})}, "facts.colour"),
        ({"instrument": Instrument("dial", {"name": 5})}, "facts.name"),
    ],
)  # fmt: skip
def test_what_no_page_could_show_is_refused_by_its_field(
    changes: dict[str, Any], path: str
) -> None:
    with pytest.raises(BadInput) as bad:
        check_row(CARD, replace(READING, **changes))
    assert bad.value.path == path


@pytest.mark.parametrize("pack", [(150.0,), (0.0,), (-0.1,), (0.1,) * 51])
def test_no_such_pack(pack: tuple[float, ...]) -> None:
    with pytest.raises(BadInput):
        check_pack(pack)
    with pytest.raises(BadInput):
        check_row(CARD, replace(PACK, pack=(pack,)))


@given(st.sampled_from(sorted(FIGURES)), st.floats(-1e6, 1e6))
def test_a_number_is_allowed_exactly_between_its_bounds(entry: str, value: float) -> None:
    figure = FIGURES[entry]
    typed = f"{value:.6f} {figure.unit or 'km'}"
    allowed = figure.least <= float(f"{value:.6f}") <= figure.most
    measured = entry in ("mass", "force", "turning")
    step = Step("one", "seats", "clean", "How much?", "So much",
                entry="measure" if measured else entry, figure=entry if measured else "")  # fmt: skip
    try:
        check_number(step, typed, value)
    except BadInput:
        assert not allowed
    else:
        assert allowed


def test_a_step_that_nobody_knows_is_history() -> None:
    check_row(CARD, Written(1, "from_an_older_version", "tick", typed="whatever"))


def test_a_choice_is_one_of_the_cards() -> None:
    choice = Written(1, "choice", "choice", place="aim", typed="loose_end", reason="hot brakes")
    check_row(CARD, choice)
    for place, typed in (
        ("aim", "Middle"),
        ("aim", "5 N·m"),
        ("colour", "red"),
        ("dial_at", "moon"),
    ):
        with pytest.raises(BadInput):
            check_row(CARD, replace(choice, place=place, typed=typed))


def log(*rows: Written) -> None:
    check_log({1: CARD, None: CARD}, [(1, row) for row in rows])


def test_a_place_has_one_root_and_a_row_one_successor() -> None:
    first = replace(READING, id=1)
    correction = replace(READING, id=2, corrects=1, reason="misread")
    log(first, correction)
    for rows, path in (
        ((first, replace(first, id=2)), "entries[1].place"),
        ((first, correction, replace(correction, id=3)), "entries[2].corrects"),
        ((first, replace(correction, reason="")), "entries[1].reason"),
        ((first, replace(correction, corrects=7)), "entries[1].corrects"),
        ((first, replace(correction, place="6")), "entries[1].corrects"),
    ):
        with pytest.raises(BadInput) as bad:
            log(*rows)
        assert bad.value.path == path


def test_no_row_belongs_to_a_closing_that_nothing_opened() -> None:
    opening = Written(2, "open", "pick", "main", typed="change")
    later = replace(READING, id=3, closing=1)
    log(READING, opening, later)
    with pytest.raises(BadInput) as bad:
        log(READING, replace(later, id=2))
    assert bad.value.path == "entries[1].closing"
