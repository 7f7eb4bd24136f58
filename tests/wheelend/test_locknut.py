"""Lock positions, against a slow search and at their edges."""

from fractions import Fraction
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.errors import BadInput
from wheelend.locknut import Lock, Nut, lock_positions, slotted
from wheelend.verdict import Limits

PLAY = Limits(0.02, 0.16)


def nut(policy: Any = "nearest_within", **more: Any) -> Nut:
    usual: dict[str, Any] = {"play_mm": Fraction(15, 100), "limits": PLAY}
    return Nut(Fraction(3, 2), policy, **{**usual, **more})


def chosen_angle(lock: Lock, one: Nut) -> float | None:
    found = lock_positions(lock, one)
    return None if found.chosen is None else found.positions[found.chosen].angle_deg


@pytest.mark.parametrize(
    ("slots", "openings", "more", "per_turn"),
    [(6, 4, {}, 12), (6, 2, {}, 6), (6, 1, {}, 6), (10, 4, {}, 20), (6, 2, {"flip": True}, 12),
     (6, 2, {"through": True}, 6)],
)  # fmt: skip
def test_positions_of_a_slotted_nut(
    slots: int, openings: int, more: dict[str, bool], per_turn: int
) -> None:
    assert slotted(slots, openings, **more) == per_turn


def test_a_pin_through_both_walls_needs_even_slots() -> None:
    with pytest.raises(BadInput, match="slots"):
        slotted(5, 2, through=True)


@pytest.mark.parametrize(
    ("policy", "to_next", "angle"),
    [
        ("nearest_within", 25, 25), ("advance_only", 25, 25), ("loosen_to_next", 0, 0),
        ("loosen_to_next", 59, -1), ("loosen_to_next", 20, None), ("advance_only", 40, None),
        ("nearest_within", 40, None), ("advance_only", 0, 0),
    ],
)  # fmt: skip
def test_the_policy_says_which_way(policy: str, to_next: int, angle: float | None) -> None:
    assert chosen_angle(Lock(6, Fraction(to_next)), nut(policy)) == angle


def test_why_a_position_is_not_allowed() -> None:
    found = lock_positions(Lock(6, Fraction(25)), nut("advance_only"))
    why = {round(p.angle_deg): p.why_not for p in found.positions}
    assert (why[-35], why[25], why[85]) == ("play_high", None, "preloaded")
    assert {p.why_not for p in lock_positions(Lock(6, Fraction(0)), nut("loosen_to_next")).positions} == {
        None, "preloaded", "play_high",
    }  # fmt: skip
    free = Nut(Fraction(3, 2), "advance_only")
    assert lock_positions(Lock(4, Fraction(10)), free).positions[0].why_not == "loosening"


def test_a_torqued_nut_is_never_loosened() -> None:
    one = Nut(Fraction(3, 2), "nearest_within", play_mm=Fraction(1, 10), limits=Limits(0, 10),
              torque_N_m=Fraction(80),
              torque_per_deg=Fraction(1))  # fmt: skip
    found = lock_positions(Lock(6, Fraction(25)), one)
    back = [p for p in found.positions if p.angle_deg < 0]
    assert {p.why_not for p in back} == {"loosening"}
    assert all(p.torque_N_m is None for p in back)


def test_a_tie_goes_to_the_smaller_turn() -> None:
    one = nut(play_mm=Fraction(1, 2), limits=Limits(0, 1), aim_mm=Fraction(1, 2))
    assert chosen_angle(Lock(4, Fraction(45)), one) in (45.0, -45.0)
    assert chosen_angle(Lock(4, Fraction(44)), one) == 44.0


@given(
    st.sampled_from([4, 6, 12]), st.integers(0, 899), st.integers(0, 40), st.integers(0, 30), st.integers(0, 6),
    st.sampled_from(["advance_only", "loosen_to_next", "nearest_within"]),
)  # fmt: skip
def test_the_washer_is_the_smallest_that_helps(
    per_turn: int, tenth: int, play: int, low: int, window: int, policy: str
) -> None:
    step = Fraction(360, per_turn)
    lock = Lock(per_turn, Fraction(tenth, 10) % step)
    limits = Limits(low / 100, (low + window) / 100)
    one = nut(policy, play_mm=Fraction(play, 100), limits=limits)
    found = lock_positions(lock, one)
    if found.washer is None:
        return
    for thickness, sign in ((found.washer.thicker_mm, 1), (found.washer.thinner_mm, -1)):
        if thickness is None:
            continue
        turn = Fraction(thickness) * 360 / one.pitch_mm * sign
        # Float noise of a hair either way must not decide.
        reached = [chosen_angle(Lock(per_turn, (lock.to_next_deg + turn + hair) % step), one)
                   for hair in (Fraction(0), Fraction(1, 10**7), Fraction(-1, 10**7))]  # fmt: skip
        assert any(angle is not None for angle in reached)
        shy = (lock.to_next_deg + turn * Fraction(9, 10)) % step
        if abs(turn) < step:
            assert chosen_angle(Lock(per_turn, shy), one) is None


@pytest.mark.parametrize(
    ("make", "path"),
    [
        (lambda: Lock(0, Fraction(0)), "positions"), (lambda: Lock(6, Fraction(60)), "to_next"),
        (lambda: Lock(6, Fraction(-1)), "to_next"), (lambda: slotted(0, 2), "slots"),
        (lambda: slotted(6, 0), "openings"), (lambda: Nut(Fraction(0), "advance_only"), "pitch"),
        (lambda: Nut(Fraction(1), "torque_window"), "torque"),
        (lambda: Nut(Fraction(1), "advance_only", torque_N_m=Fraction(1)), "torque_per_deg"),
        (lambda: Nut(Fraction(1), "advance_only", limits=PLAY), "play"),
        (lambda: Nut(Fraction(1), "nearest_within"), "limits"),
        (lambda: nut(limits=Limits(low=0.1)), "limits"),
        (lambda: nut("torque_window", torque_N_m=Fraction(1), torque_per_deg=Fraction(1)), "torque_limits"),
    ],
)  # fmt: skip
def test_what_is_missing_is_named(make: Any, path: str) -> None:
    with pytest.raises(BadInput) as bad:
        make()
    assert bad.value.path == path
