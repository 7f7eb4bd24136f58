"""What may be claimed of a shimmed setting. Only a reading in the closing that lasts proves it."""

from wheelend.methods.judgement import Claim, Measured
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.trials import FittedTrial
from wheelend.methods.shims.words import felt
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.shims.problem import steps
from wheelend.wording import both, length, sides

_WORDS = {
    "within": "inside",
    "below": "too tight",
    "above": "too loose",
    "undecided": "too close to call",
}


def claims(found: Assessment) -> tuple[Claim, ...]:
    """Every claim of the setting, in the order in which they are printed."""
    said = (_end_play(found), _places(found), _ends(found), _adds_up(found), _identical(found))
    return tuple(claim for claim in said if claim)


def _locked(found: Assessment) -> FittedTrial | None:
    now = found.now
    return now if now and now.locked else None


def _ids(trial: FittedTrial | None) -> tuple[int, ...]:
    if trial is None:
        return ()
    return tuple(row.id for row in (*trial.series.rows, *trial.series.torques))


def _end_play(found: Assessment) -> Claim:
    locked = _locked(found)
    name = "End play inside, read locked"
    if found.judged_by_hand:
        return Claim(
            "end_play",
            name,
            False,
            f"judged by hand: no play felt. {felt(found)}",
            _ids(found.last),
        )
    play = found.play
    if play is None or play.verdict is None or found.last is None:
        return Claim("end_play", name, False, "no reading that counts", blocks=True)
    word = "within" if found.together else play.verdict.word
    proven = locked is not None and locked is found.last and found.inside
    limits = found.bench.progress.card.setting.limits
    fact = (
        f"{_play(found)}, {_WORDS[word]}; limits {limits}; {_gauge(found.last)}{_again(found.last)}"
    )
    if found.together:
        fact += f"; by all {len(found.counted)} trials weighed together"
    if locked is None:
        fact += f"; trial {found.last.number}, before the nut was last turned: not read since"
    elif locked.rough:
        fact += "; not at the card’s torque"
    window = found.limits
    return Claim(
        "end_play", name, proven, fact, _ids(found.last), blocks=word in ("below", "above"),
        measured=Measured(*found.believed_mm, window.low, window.high),
    )  # fmt: skip


def _again(trial: FittedTrial) -> str:
    """Which readings were outvoted by a second one."""
    places = dict.fromkeys(base_of(one) for one in trial.series.weighed.outvoted)
    return "".join(f"; {place_words(one)} read again, its first outvoted" for one in places)


def _play(found: Assessment) -> str:
    play, last = found.play, found.last
    if play is None or last is None:
        return "not read"
    step, lead = last.gauge.resolution, found.bench.lead
    value, doubt = found.believed_mm
    return f"{both(value, step, lead)} ± {length(doubt, step, lead)}"


def _gauge(trial: FittedTrial) -> str:
    tool = trial.series.instrument
    if tool is None:
        return "by hand"
    papers = "" if tool.has_papers else ", without a certificate: counted as ± one step"
    return f"{tool.name}{papers}"


def _places(found: Assessment) -> Claim | None:
    locked = _locked(found)
    wanted = found.bench.progress.card.places
    if found.judged_by_hand:
        return None
    read = len([place for place in wanted if locked and place in locked.plays_mm])
    fact = f"{read} of {len(wanted)}, locked"
    return Claim("places", "Read at every place asked for", read == len(wanted), fact, _ids(locked))


def _ends(found: Assessment) -> Claim | None:
    last = found.last
    if found.bench.progress.card.arrangement.read_at != "stations" or last is None:
        return None
    said = ", ".join(
        f"{place} {length(play, last.gauge.resolution, found.bench.lead)}"
        for place, play in last.plays_mm.items()
    )
    agree = last.ends_apart_mm is None and len(last.plays_mm) == len(last.series.places)
    return Claim("ends", "Both ends agree", agree, said or "not read", _ids(last))


def _adds_up(found: Assessment) -> Claim:
    name = "Trials add up"
    apart = found.disagreement()
    if apart:
        fact = f"trials {apart.earlier} and {apart.later} do not add up"
        rows = _ids(found.trial(apart.earlier)) + _ids(found.trial(apart.later))
        return Claim("adds_up", name, False, fact, rows)
    used = [found.trial(number) for number in found.counted]
    closings = len({trial.series.closing for trial in used})
    fact = "one trial only: nothing to compare it with"
    if len(used) > 1:
        carried = f", carried over {closings} closings" if closings > 1 else ""
        fact = f"{len(used)} agree{carried}"
        if not found.shows_packs:
            fact += "; one pack, so nothing is shown of its seats"
    return Claim("adds_up", name, bool(used), fact, tuple(i for trial in used for i in _ids(trial)))


def _identical(found: Assessment) -> Claim | None:
    progress = found.bench.progress
    rows = [row for row in progress.of_kind("pack") if row.step.phase == "final" and row.at.entries]
    trial = next((t for t in reversed(found.trials) if not t.locked and not t.series.aside), None)
    if not rows or trial is None:
        return None
    fitted = tuple(row.at.entries[-1].pack[0] if row.at.entries[-1].pack else () for row in rows)
    same = [sorted(map(steps, one)) for one in fitted] == [
        sorted(map(steps, one)) for one in trial.pack
    ]
    fact = sides(fitted, found.bench.names)
    if not same:
        fact = f"{fact}; trial {trial.number} had {sides(trial.pack, found.bench.names)}"
    return Claim("identical", "Same pack as in the last trial", same, fact,
                 tuple(row.at.entries[-1].id for row in rows))  # fmt: skip
