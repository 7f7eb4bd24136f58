"""Life-limited parts: usage travels with the part from vehicle to vehicle."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.errors import BadInput
from wheelend.life import Event, life


@given(st.lists(st.tuples(st.floats(0, 1e5), st.floats(0, 1e4)), max_size=6))
def test_what_it_ran_on_each_vehicle_adds_up(runs: list[tuple[float, float]]) -> None:
    events = [
        one for start, run in runs for one in (Event("fitted", start), Event("off", start + run))
    ]
    assert life(events).used == pytest.approx(sum(run for _, run in runs), abs=1e-6)
    assert not life(events).is_fitted


def test_a_check_begins_its_interval_anew_and_the_life_goes_on() -> None:
    events = [Event("fitted", 0), Event("checked", 9), Event("off", 12)]
    found = life(events, limit=40, check_every=10)
    assert (found.used, found.since_check, found.check_left) == (12, 3, 7)
    assert not found.check_is_due
    assert life(events, limit=12).is_past


@pytest.mark.parametrize(
    "events",
    [
        [Event("fitted", 1), Event("fitted", 2)],
        [Event("off", 1)],
        [Event("fitted", 9), Event("off", 8)],
    ],
)
def test_what_can_not_have_happened_is_refused(events: list[Event]) -> None:
    with pytest.raises(BadInput):
        life(events)
