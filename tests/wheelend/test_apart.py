"""A place that stands apart is read again, and only what was outvoted is left out."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.procedure.asking.apart import again_at, base_of, weigh_places

U = 0.005


@pytest.mark.parametrize(
    ("moves", "again"),
    [
        ({"12": 0.10, "4": 0.11, "8": 0.10}, ""),
        ({"12": 0.10, "4": 0.21, "8": 0.10}, "4 again"),
        ({"12": 0.10}, "12 again"),
        ({"left": 0.10, "right": 0.16}, "right again"),
        ({"12": 0.10, "4": -0.10, "8": 0.10}, "4 again"),
        ({"12": 0.10, "4": 0.21, "8": 0.10, "4 again": 0.11}, ""),
        ({"left": 0.10, "right": 0.16, "right again": 0.16}, "left again"),
        ({"12": 0.10, "12 again": 0.20}, "12 again 2"),
        ({"12": 0.10, "12 again": 0.20, "12 again 2": 0.30}, ""),
    ],
)
def test_which_reading_would_settle_it(moves: dict[str, float], again: str) -> None:
    assert weigh_places(moves, U).again == again


def test_the_odd_one_is_outvoted_by_its_own_second_reading() -> None:
    found = weigh_places({"12": 0.10, "4": 0.21, "8": 0.10, "4 again": 0.11}, U)
    assert found.outvoted == ("4",)
    assert found.counted == ("12", "8", "4 again")


def test_places_that_were_read_again_and_still_differ_all_count() -> None:
    moves = {"left": 0.10, "right": 0.16, "right again": 0.16, "left again": 0.10}
    found = weigh_places(moves, U)
    assert found.apart
    assert found.counted == tuple(moves)


def test_a_reading_for_the_sake_of_earlier_trials_does_not_vote() -> None:
    moves = {"12": 0.10, "4": 0.10, "12 again": 0.20}
    found = weigh_places(moves, U, {"12 again"})
    assert found.moved
    assert found.counted == ("12", "4")
    same = weigh_places({**moves, "12 again": 0.105}, U, {"12 again"})
    assert not same.moved
    assert same.counted == tuple(moves)


PLAYS = st.lists(st.floats(0.05, 0.3), min_size=3, max_size=6)


@given(st.floats(0.05, 0.3), st.integers(3, 6), st.data())
def test_readings_within_their_doubt_are_never_asked_for_again(
    play: float, count: int, data: st.DataObject
) -> None:
    spread = data.draw(st.lists(st.floats(-U, U), min_size=count, max_size=count))
    moves = {str(place): play + off for place, off in enumerate(spread, 1)}
    found = weigh_places(moves, U)
    assert (found.again, found.outvoted, found.apart) == ("", (), False)


@given(PLAYS, st.randoms())
def test_the_order_of_reading_decides_nothing_but_which_of_a_tie_is_asked(
    plays: list[float], shuffled: object
) -> None:
    moves = {str(place): play for place, play in enumerate(plays, 1)}
    order = list(moves)
    shuffled.shuffle(order)  # type: ignore[attr-defined]
    one, other = weigh_places(moves, U), weigh_places({p: moves[p] for p in order}, U)
    assert set(one.counted) == set(other.counted)
    assert bool(one.again) == bool(other.again)


@given(PLAYS)
def test_reading_again_comes_to_an_end(plays: list[float]) -> None:
    moves = {str(place): play for place, play in enumerate(plays, 1)}
    for _ in range(3 * len(plays)):
        again = weigh_places(moves, U).again
        if not again:
            return
        assert again not in moves
        moves[again] = moves[base_of(again)]
    raise AssertionError(moves)


@given(st.sampled_from(["12", "4:30", "left"]), st.integers(1, 9))
def test_the_key_of_a_second_reading_leads_back_to_its_place(place: str, times: int) -> None:
    assert base_of(again_at(place, times)) == place
