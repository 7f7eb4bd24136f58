"""Packs by drag and nuts with a lock ring, worked as advised: set, quickly, and nothing outside accepted."""

import pytest

from wheelend.simulation.setting import Summed, summed, tried, ways

MANY = range(600)


def worked(name: str, seed: str = "a seed of the tests") -> Summed:
    return summed(tried(ways()[name], name, seed, MANY))


@pytest.mark.parametrize(
    ("advised", "alone"),
    [
        ("drag, as advised", "drag, step by step"),
        ("nut and ring, as advised", "nut and ring, place by place"),
    ],
)
def test_advice_ends_nowhere_and_is_wrong_less_often_than_a_step_at_a_time(
    advised: str, alone: str
) -> None:
    with_advice, without = worked(advised), worked(alone)
    assert with_advice.dead_ends == 0
    assert with_advice.wrong <= 0.002 < without.wrong
    assert with_advice.trials < without.trials


@pytest.mark.parametrize("name", ["drag exactly at a limit", "play exactly at a limit"])
def test_what_stands_exactly_at_a_limit_is_hardly_ever_accepted(name: str) -> None:
    assert worked(name).set_ <= 0.023
