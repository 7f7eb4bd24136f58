"""What to do next with a nut that is set by angle, in one sentence with its numbers, and why."""

from collections.abc import Callable, Mapping

from wheelend.locknut import Position
from wheelend.methods.nut_angle.assessing import Assessment
from wheelend.methods.reading import WORDS, play_words, reading_line
from wheelend.procedure.locking import POLICIES, washer_words, why_not
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.wording import both, length

_STEP = 0.01


def line_at(found: Assessment, row: Row) -> NextLine | None:
    """What to do at a step; None where the step says it itself."""
    if found.stops_at(row):
        return _outside(found)
    if found.is_close(row):
        return _close(found)
    rule = _RULES.get(row.step.kind)
    return rule(found, row) if rule else None


def _turned_back(found: Assessment, row: Row) -> NextLine:
    wanted, pitch = found.wanted_deg, found.pitch_mm
    here = "From lash-free, turn" if found.bench.progress.of_kind("lash_free") else "Now turn"
    if wanted is None:
        return NextLine(
            "turn_back", f"{here} the nut back", "a little",
            ": between just no play and just some.", row.step.why,
        )  # fmt: skip
    card = found.bench.progress.card.setting.angle
    why = "The card says so." if card else "That is the aim by the thread’s pitch."
    if pitch and here.startswith("From"):
        play = pitch * wanted / 360
        why += f" Pitch {pitch:g} mm makes that {both(play, _STEP, found.bench.lead)} of play."
    return NextLine(
        "turn_back",
        f"{here} the nut back",
        f"{wanted:.0f}°",
        ", then enter the angle.",
        why,
    )


def _reading(found: Assessment, row: Row) -> NextLine | None:
    foreseen = found.predicted if row.step.kind == "locked_reading" else None
    says = ""
    if foreseen:
        says = f" By the turn to its place it should be {length(foreseen.value, _STEP, found.bench.lead)}."
    elif found.angle:
        says = f" By its angle it has {length(found.angle.play_mm, _STEP, found.bench.lead)}."
    return reading_line(found.bench, row, says)


def _next_place(found: Assessment, row: Row) -> NextLine:
    before = NextLine("place", "How far on is", "the next place", "?", row.step.why)
    if found.read is None or found.read.play is None:
        return before
    said = (
        f"It reads {play_words(found.bench, found.read)}: {WORDS[found.read.word]}. "
        if found.read.word
        else ""
    )
    turn = found.angle
    if turn and turn.agrees is False and turn.difference_mm is not None:
        said += (
            f"Pitch times angle says {length(turn.play_mm, _STEP, found.bench.lead)},"
            f" {length(turn.difference_mm, _STEP, found.bench.lead)} apart: what was read counts. "
        )
    return NextLine("place", before.before, before.key, before.after, said + row.step.why)


def _to_place(found: Assessment, row: Row) -> NextLine | None:
    plan = found.plan
    if plan is None:
        return None
    place = found.chosen
    if place is None:
        sizes = washer_words(plan.washer, row) if plan.washer else []
        why = f"No place sets a play inside the limits ({POLICIES[found.policy]})."
        if sizes:
            return NextLine(
                "washer", "Fit a washer", " or ".join(sizes), ", then set it again.", why
            )
        return NextLine(
            "stop", "Stop:", "no place fits", ". Set it again, a little otherwise.", why
        )
    gives = both(place.play_mm or 0.0, _STEP, found.bench.lead)
    now = both(found.counts.value if found.counts else 0.0, _STEP, found.bench.lead)
    source = "read" if found.read and found.read.play else "turned back"
    why = (
        f"{now} was {source}; the rest is pitch times angle. {POLICIES[found.policy].capitalize()}."
    )
    nearest = _nearest_refused(found)
    if nearest:
        why += f" The place {turn_words(nearest)} {why_not(nearest)}."
    if abs(place.angle_deg) < 0.05:
        return NextLine("lock", "A place is in line:", "leave the nut", "where it stands.", why)
    return NextLine("lock", "Turn the nut", turn_words(place), f"to its place: about {gives}.", why)


def turn_words(place: Position) -> str:
    """A turn in words: on is tightening.

    >>> turn_words(Position(-12.0, None, None, None))
    '12° back'
    """
    way = "on" if place.angle_deg > 0 else "back"
    return f"{abs(place.angle_deg):.0f}° {way}"


def _nearest_refused(found: Assessment) -> Position | None:
    """A place that is nearer than the chosen one, and not allowed."""
    chosen, plan = found.chosen, found.plan
    if chosen is None or plan is None:
        return None
    near = [
        one for one in plan.positions
        if one.why_not and abs(one.angle_deg) < abs(chosen.angle_deg) and one.angle_deg
    ]  # fmt: skip
    return min(near, key=lambda one: abs(one.angle_deg), default=None)


def _outside(found: Assessment) -> NextLine:
    last = found.locked
    if last is None or last.play is None:
        return NextLine(
            "stop",
            "Stop:",
            "it binds",
            ". Set it again from the torque.",
            "No play is left at its place.",
        )
    window = found.bench.progress.card.setting.limits
    why = f"It reads {play_words(found.bench, last)} where it stays, and the card allows {window}."
    why += _beside(found, last.play.play_mm)
    return NextLine("stop", "Stop:", WORDS[last.word], ". Set it again from the torque.", why)


def _beside(found: Assessment, play_mm: float) -> str:
    """What the lock places beside this one would give."""
    per_turn = found.bench.progress.card.setting.lock.per_turn
    if found.pitch_mm is None or not per_turn:
        return ""
    step = found.pitch_mm / per_turn
    on = play_mm - step
    words = both(on, _STEP, found.bench.lead) if on > 0 else "preload"
    back = both(play_mm + step, _STEP, found.bench.lead)
    return f" One place on would give {words}, one place back {back}."


def _close(found: Assessment) -> NextLine | None:
    """Neither inside nor outside with its doubt: another washer brings the place to the aim."""
    last, aim = found.locked, found.aim_mm
    if last is None or last.play is None or aim is None:
        return None
    off = last.play.play_mm - aim
    if abs(off) < _STEP / 2:
        said = f"It reads {play_words(found.bench, last)} where it stays, and that is the aim."
        why = f"{said} Go on, and it is signed as set, not proven."
        return NextLine("undecided", "Too close to call:", "a finer dial", ", or go on.", why)
    washer = f"{both(abs(off), _STEP, found.bench.lead)} {'thicker' if off > 0 else 'thinner'}"
    why = (
        f"It reads {play_words(found.bench, last)} where it stays. Over a washer {washer} the same place"
        " stands at the aim; or go on, and it is signed as set, not proven."
    )
    return NextLine("undecided", "Too close to call:", "another washer", ", or go on.", why)


_RULES: Mapping[str, Callable[[Assessment, Row], NextLine | None]] = {
    "turned_back": _turned_back,
    "reading": _reading,
    "locked_reading": _reading,
    "place": _next_place,
    "opening": _to_place,
}
