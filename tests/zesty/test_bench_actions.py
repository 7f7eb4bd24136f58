"""The bench's verbs: nothing typed is lost, changed, or counted twice."""

import uuid

import pytest
from django.db import IntegrityError, transaction

from zesty.bench import actions
from zesty.bench.models import Reading, ReadingKind, Trial
from zesty.bench.queries.jobfile import job_file, standing
from zesty.cards.actions import new_version
from zesty.elements.refused import Refused
from zesty.stores.models import Shim

from .conftest import SAYS, STACK, Shop, mm, torque


def count_of(shop: Shop, nominal: str) -> int:
    return Shim.objects.get(workshop=shop.workshop, nominal=nominal).count


def test_a_reading_is_kept_as_typed_and_in_mm(shop: Shop) -> None:
    shop.trial()
    reading = shop.one("12", "in", "4 thou")
    reading.refresh_from_db()
    assert (reading.typed, str(reading.value_mm)) == ("4 thou", "0.10160")


def test_a_second_reading_of_a_place_is_refused_and_the_first_stays(shop: Shop) -> None:
    shop.trial()
    shop.one("12", "in", "0.01")
    with pytest.raises(Refused, match=r"0\.01 mm already"):
        shop.one("12", "in", "0.02")
    assert Reading.objects.count() == 1


def test_sent_twice_counts_once(shop: Shop) -> None:
    shop.trial()
    token = uuid.uuid4()
    assert shop.one("12", "in", "0.01", token=token) == shop.one("12", "in", "0.01", token=token)
    again = uuid.uuid4()
    assert shop.trial(after=1, token=again) == shop.trial(after=1, token=again)
    assert Trial.objects.count() == 2


def test_a_correction_is_a_new_row_that_points_at_the_old_one(shop: Shop) -> None:
    trial = shop.trial()
    old = shop.one("12", "in", "0.01")
    new = actions.correct(shop.job, shop.tech, old, value=mm("0.03"), reason="misread")
    old.refresh_from_db()
    assert (old.typed, new.corrects, new.reason) == ("0.01 mm", old, "misread")
    assert standing(trial) == [new]


def test_the_same_reading_is_not_corrected_twice(shop: Shop) -> None:
    shop.trial()
    old = shop.one("12", "in", "0.01")
    actions.correct(shop.job, shop.tech, old, value=mm("0.03"), reason="misread")
    with pytest.raises(Refused, match="meanwhile"):
        actions.correct(shop.job, shop.tech, old, value=mm("0.05"), reason="misread")
    with pytest.raises(Refused, match="meanwhile"):
        actions.take_back(shop.job, shop.tech, old, reason="slip")


def test_taken_back_a_place_is_free_again_and_all_rows_stay(shop: Shop) -> None:
    trial = shop.trial()
    old = shop.one("12", "in", "0.01")
    actions.take_back(shop.job, shop.tech, old, reason="slip")
    assert standing(trial) == []
    new = shop.one("12", "in", "0.02")
    assert standing(trial) == [new]
    assert Reading.objects.count() == 3


def test_bound_can_be_taken_back_and_found_again(shop: Shop) -> None:
    trial = shop.trial()
    for _ in range(2):
        found = actions.find(shop.job, shop.tech, kind="bound", trial=1, token=uuid.uuid4())
        assert standing(trial) == [found]
        actions.take_back(shop.job, shop.tech, found, reason="slip")
    assert standing(trial) == []


def test_a_reading_for_an_older_trial_is_refused(shop: Shop) -> None:
    shop.trial()
    shop.trial("0.50, 0.05")
    with pytest.raises(Refused, match="trial 2 has begun meanwhile"):
        shop.one("12", "in", "0.01", 1)
    assert not Reading.objects.exists()


def test_two_people_do_not_begin_the_same_trial(shop: Shop) -> None:
    shop.trial(after=0)
    with pytest.raises(Refused, match="Trial 1 has begun meanwhile"):
        shop.trial("0.20", after=0)


def test_shims_move_between_tray_and_pack(shop: Shop) -> None:
    shop.trial("0.50, 0.10")
    assert (count_of(shop, "0.50 mm"), count_of(shop, "0.10 mm")) == (0, 2)
    shop.trial("0.10, 0.10, 0.05")
    assert (count_of(shop, "0.50 mm"), count_of(shop, "0.10 mm")) == (1, 1)
    assert count_of(shop, "0.05 mm") == 1


def test_a_pack_as_found_leaves_the_tray_alone_and_comes_out_into_it(shop: Shop) -> None:
    shop.trial("0.50, 0.37", as_found=True)
    assert count_of(shop, "0.50 mm") == 1
    shop.trial("0.50, 0.10")
    assert (count_of(shop, "0.37 mm"), count_of(shop, "0.10 mm")) == (1, 2)


def test_a_shim_from_elsewhere_is_real_and_no_count_goes_below_nothing(shop: Shop) -> None:
    shop.trial("0.50, 0.50, 0.33")
    assert count_of(shop, "0.50 mm") == 0


def test_more_shims_than_the_card_allows_are_refused(shop: Shop) -> None:
    with pytest.raises(Refused, match="9 shims are more than the 8"):
        shop.trial(", ".join(["0.05"] * 9))
    assert count_of(shop, "0.05 mm") == 2


def test_a_job_stays_pinned_to_its_card_version(shop: Shop) -> None:
    says = {**SAYS, "high": mm("0.30 mm")}
    new_version(shop.card, shop.people["lead"], follows=1, stack=STACK, **says)
    file = job_file(shop.workshop, shop.job.pk)
    assert file.assess().setting.card.limits.highest == 0.15
    with pytest.raises(Refused, match="made version 2 while you edited version 1"):
        new_version(shop.card, shop.people["owner"], follows=1, stack=STACK, **says)


def test_one_open_job_a_wheel_end(shop: Shop) -> None:
    with pytest.raises(Refused, match="Job 1 is open"):
        actions.open_job(shop.workshop, shop.tech, shop.job.wheel_end, card=shop.card)


def test_nothing_is_locked_before_something_is_set(shop: Shop) -> None:
    lock = {"torque": torque("61 N·m"), "lock": "pin", "done": True, "note": ""}
    with pytest.raises(Refused, match="Nothing is set yet"):
        actions.record_lock(shop.job, shop.tech, token=uuid.uuid4(), **lock)


@pytest.mark.parametrize(
    "row",
    [
        {"kind": "in", "clock": "12", "typed": "", "value_mm": None},
        {"kind": "bound", "clock": "", "typed": "1 mm", "value_mm": 1},
        {"kind": "in", "clock": "6", "typed": "0.01 mm", "value_mm": 0},
    ],
)
def test_the_database_itself_refuses_a_bent_reading(shop: Shop, row: dict[str, object]) -> None:
    trial = shop.trial()
    shop.one("6", "in", "0.01")
    with pytest.raises(IntegrityError), transaction.atomic():
        Reading.objects.create(trial=trial, by=shop.tech, **row)


def test_a_correction_needs_a_reason_in_the_database(shop: Shop) -> None:
    trial = shop.trial()
    old = shop.one("6", "in", "0.01")
    with pytest.raises(IntegrityError), transaction.atomic():
        Reading.objects.create(trial=trial, by=shop.tech, kind=ReadingKind.WITHDRAWN, corrects=old)


def test_a_trial_set_aside_no_longer_counts_and_can_count_again(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    shop.trial("0.50, 0.05")
    shop.read(("0.00", "0.20"), ("0.00", "0.20"))
    assert job_file(shop.workshop, shop.job.pk).assess().disagreement() is not None
    mark = {"trial": 1, "reason": "a shim had stuck to another"}
    actions.set_aside(shop.job, shop.tech, aside=True, **mark)
    found = job_file(shop.workshop, shop.job.pk).assess()
    assert (found.disagreement(), found.counted) == (None, (2,))
    actions.set_aside(shop.job, shop.tech, aside=False, **mark)
    assert job_file(shop.workshop, shop.job.pk).assess().counted == (1, 2)


def test_the_latest_trial_set_aside_is_read_again_with_the_same_pack(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    actions.set_aside(shop.job, shop.tech, trial=1, aside=True, reason="the base moved")
    file = job_file(shop.workshop, shop.job.pk)
    assert [str(shim) for shim in file.trial.shims.all()] == ["0.50 mm"]
    assert file.assess().setting.now.number == 2
    assert count_of(shop, "0.50 mm") == 0
    with pytest.raises(Refused, match="no trial 9"):
        actions.set_aside(shop.job, shop.tech, trial=9, aside=True, reason="x")
