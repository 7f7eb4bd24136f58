"""What may be claimed of a setting by the nut. Only a reading where the nut stays proves it."""

from collections.abc import Iterator
from dataclasses import replace

from wheelend.methods.judgement import Claim
from wheelend.methods.nut_angle.assessing import Assessment
from wheelend.methods.reading import play_claim
from wheelend.procedure.asking.torque import reach_of
from wheelend.procedure.locking import window_words, wrong_words
from wheelend.seating import seating
from wheelend.wording import length

_STEP = 0.01


def claims(found: Assessment) -> tuple[Claim, ...]:
    """Every claim of the setting, in the order in which they are printed."""
    return tuple(_claims(found))


def _claims(found: Assessment) -> Iterator[Claim]:
    said = play_claim(
        found.bench, found.locked, "End play inside, read where the nut stays",
        missing="not read since the nut went to its place",
    )  # fmt: skip
    yield replace(said, fact=said.fact + _outranked(found))
    yield from _torqued(found)
    yield _seated(found)
    yield from _angle(found)
    yield from _as_foreseen(found)


def _torqued(found: Assessment) -> Iterator[Claim]:
    progress = found.bench.progress
    for row in progress.of_kind("torque"):
        if row.step.phase != "trial" or not row.step.figure or row.at.setting.torque is None:
            continue
        mine = [one for one in found.torques if one.step == row.step.id]
        name = (
            "Seated at its torque"
            if row.step.figure == "first_torque"
            else "Torqued while it turned"
        )
        if not mine:
            yield Claim("torque", name, False, "not written", blocks=True)
            continue
        reach = reach_of(mine[-1], row.at.setting)
        fact = f"{mine[-1].typed}; the card allows {window_words(reach, row)}{wrong_words(reach)}"
        yield Claim(
            "torque", name, reach.word == "reached" and reach.sure, fact, (mine[-1].id,),
            blocks=reach.word in ("below", "above"),
        )  # fmt: skip


def _seated(found: Assessment) -> Claim:
    moves = [row.value for row in found.moves if row.value is not None]
    ids = tuple(row.id for row in found.moves)
    if not moves:
        return Claim("seated", "Seated until still", False, "not repeated until still", blocks=True)
    state = seating(moves).state
    fact = f"moved {', '.join(row.typed for row in found.moves)}"
    if state != "seated":
        fact += ": still moving"
    return Claim(
        "seated", "Seated until still", state == "seated", fact, ids, blocks=state != "seated"
    )


def _angle(found: Assessment) -> Iterator[Claim]:
    """The angle alone is no proof; where a dial reads as it says, both are proven."""
    turned = found.angle
    if turned is None or found.turned is None or turned.agrees is False:
        return
    play = f"{found.turned.typed} back: {_mm(found, turned.play_mm)} ± {_mm(found, turned.U_mm)}"
    if turned.agrees is None:
        fact = f"{play}; nothing was read beside it"
        yield Claim("angle", "Turned back by its angle", False, fact, (found.turned.id,))
        return
    fact = f"{play}; a dial reads {_mm(found, turned.difference_mm or 0.0)} apart"
    ids = (found.turned.id, *(found.read.ids if found.read else ()))
    yield Claim("angle", "Angle and dial agree", True, fact, ids)


def _mm(found: Assessment, value: float) -> str:
    return length(value, _STEP, found.bench.lead)


def _outranked(found: Assessment) -> str:
    """What the angle said where the dial says otherwise: what was read counts."""
    turned = found.angle
    if turned is None or turned.agrees is not False or turned.difference_mm is None:
        return ""
    return (
        f"; by its angle {_mm(found, turned.play_mm)}, {_mm(found, turned.difference_mm)} apart:"
        " what was read counts"
    )


def _as_foreseen(found: Assessment) -> Iterator[Claim]:
    """What is read at the place is what the turn to it makes of what was read before."""
    said = found.compared
    if said is None or found.locked is None or found.predicted is None:
        return
    lead = found.bench.lead
    fact = (
        f"foreseen {length(found.predicted.value, _STEP, lead)}, apart by "
        f"{length(abs(said.difference), _STEP, lead)} ± {length(said.U, _STEP, lead)}"
    )
    ids = (*(found.read.ids if found.read else ()), *found.locked.ids)
    yield Claim("as_set", "Reads as it was set", said.verdict != "unexplained", fact, ids)
