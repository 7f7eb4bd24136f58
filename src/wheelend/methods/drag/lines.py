"""What to do next with a pack that is set by drag, in one sentence with its numbers, and why."""

from wheelend.compare import Compared
from wheelend.methods.drag.assessing import Assessment
from wheelend.methods.judgement import Account, account_at
from wheelend.methods.swings import WORDS, swing_words, window_words
from wheelend.procedure.adding import added_words
from wheelend.procedure.asking.band import ADDING, Swing, swing_of
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.verdict import Limits
from wheelend.wording import SHIM_STEP_MM, both


def line_at(found: Assessment, row: Row) -> NextLine | None:
    """What to do at a step; None where the step says it itself."""
    if row.step.kind == "opening" and row.step.phase == "trial":
        return _opening(found)
    if row.step.kind == "spacer" and found.trials:
        return _spacer(found, row)
    if row.step.kind == "turns" and unexplained_at(found, row):
        return _unexplained(found)
    if row.step.kind in ADDING:
        return NextLine("drag", f"{row.step.says}:", row.slot.words, " …", row.step.asks)
    if row.step.entry == "band":
        return _outside(found, row) if found.is_outside(row) else _band(found, row)
    return None


def _band(found: Assessment, row: Row) -> NextLine:
    slot = row.slot
    what = "the radius of the pull" if slot.place == "radius" else f"the {slot.words}"
    why = row.step.why
    if row.step.kind == "drag_in_hub" and found.trials:
        why = f"On the bench it was {swing_words(found.trials[-1].swing)}. {_expected(found)}"
    elif row.step.kind == "drag_in_fork" and found.in_hub:
        known = added_words(found.fork_adds)
        why = f"In the hub it was {swing_words(found.in_hub)}. " + (
            f"Since then {known}." if known else row.step.why
        )
    elif found.limits:
        unit = "N·m" if found.bench.progress.card.setting.drag else "N"
        why = f"The card allows {window_words(found.limits, unit)}. {why}"
    before = (
        "Turn it steadily, and read"
        if slot.place != "radius"
        else "Where the string pulls, measure"
    )
    return NextLine(
        "drag",
        before,
        what,
        ": the first jerk does not count." if slot.place == "low" else ".",
        why,
    )


def _expected(found: Assessment) -> str:
    if found.rise and found.trials:
        base = found.trials[-1].swing.middle
        low, high = base + found.rise[0], base + found.rise[1]
        return f"By the fit it should come to {low:.3g} to {high:.3g} N·m."
    return "The fit squeezes the cups: it rises. By how much, two trials with different spacers would tell."


def _spacer(found: Assessment, row: Row) -> NextLine:
    if found.ahead_mm is None:
        return NextLine("spacer", row.step.asks, "", "", row.step.why)
    why = f"{_change(found)} Measure it where the last one was measured."
    return NextLine(
        "spacer",
        "The next shim:",
        _shim(found, found.ahead_mm),
        "; measure it at four places.",
        why,
    )


def _change(found: Assessment) -> str:
    advice = found.advice
    if advice is None or advice.change_mm is None:
        return ""
    way = "thicker" if advice.change_mm > 0 else "thinner"
    how = {
        "interpolated": "between two trials", "extrapolated": "beyond the trials, by their line",
        "first_step": "a first small step, as the card dares", "keep": "",
    }[advice.basis]  # fmt: skip
    return f"{_shim(found, abs(advice.change_mm))} {way}, {how}."


def _shim(found: Assessment, length_mm: float) -> str:
    return both(length_mm, SHIM_STEP_MM, found.bench.lead)


def _opening(found: Assessment) -> NextLine | None:
    verdict, advice, limits = found.verdict, found.advice, found.limits
    if verdict is None or limits is None or not found.trials:
        return None
    swing = found.trials[-1].swing
    said = _allowed(swing, limits)
    if verdict.word == "within":
        return NextLine(
            "set",
            "Right on the bench:",
            swing_words(swing),
            ". Open it and grease the cones.",
            said,
        )
    if (uncured := no_shim_cures(found)) is not None:
        return uncured
    if advice is None or advice.next_mm is None:
        return NextLine(
            "stop",
            "It turns",
            WORDS[verdict.word],
            ": another shim.",
            f"{said} The card names no step.",
        )
    why = f"{said} {_change(found)}"
    if "wrong_way" in advice.flags:
        why = (
            "A change that should have made it easier made it harder. Look first: was the shim measured,"
            f" is a ring not home, is it dry? {said}"
        )
    stock = _stock(found, advice.next_mm)
    verb = _verb(advice.change_mm or 0.0)
    change = _shim(found, abs(advice.change_mm or 0.0))
    hard = "hard" if swing.middle > (found.aim or 0) else "easy"
    after = f": a shim of {_shim(found, advice.next_mm)}{stock}."
    return NextLine("swap", f"Too {hard}. {verb}", change, after, why)


def no_shim_cures(found: Assessment) -> NextLine | None:
    """Where another shim tells nothing: it swings as wide as the window, the meter can’t tell, no change."""
    verdict, limits = found.verdict, found.limits
    if verdict is None or verdict.word != "undecided" or not found.trials:
        return None
    if limits is None or limits.window is None:
        return None
    swing = found.trials[-1].swing
    said = _allowed(swing, limits)
    room = limits.window - (swing.band[1] - swing.band[0])
    look = "look for dirt or a dent, and whether each ring is home; turn more steadily, and read it again."
    if room <= 0:
        wide = ": no other shim cures that."
        return NextLine("undecided", "It swings", "too wide", wide, f"{said} {look.capitalize()}")
    if verdict.because == "gauge_too_coarse":
        off = f"± {verdict.U:.2f} {swing.unit}"
        why = f"{said} One that is off by {room / 2:.2g} {swing.unit} or less would tell."
        return NextLine(
            "undecided", "This meter can’t tell:", off, ". Read it with a finer one.", why
        )
    if found.advice is not None and found.ahead_mm is None:
        why = f"{said} It is in the middle already: {look}"
        return NextLine("undecided", "It is", "too close to call", ": read it again.", why)
    return None


def _allowed(swing: Swing, limits: Limits) -> str:
    return f"{swing_words(swing)}, and the card allows {window_words(limits, swing.unit)}."


def _verb(change: float) -> str:
    """Less is ground off the shim that is in; more wants another."""
    return "Grind off" if change < 0 else "Take a shim that is thicker by"


def _stock(found: Assessment, wanted: float) -> str:
    """The shim of the stores that comes nearest, where one is near enough to be worth a try."""
    near = min(found.bench.tray, key=lambda one: abs(one.thickness_mm - wanted), default=None)
    if (
        near is None
        or found.steps is None
        or abs(near.thickness_mm - wanted) > found.steps.first_mm / 2
    ):
        return ""
    return f", or the {_shim(found, near.thickness_mm)} of the tray"


def _outside(found: Assessment, row: Row) -> NextLine:
    swing = swing_of(row.at)
    limits = found.limits
    setting = row.at.setting
    if row.step.kind == "drag_in_hub" and setting.drag_in_hub:
        limits = setting.drag_in_hub.limits
    word = swing.verdict(limits).word if swing and limits else "undecided"
    said = (
        f"It reads {swing_words(swing)}, the card allows {window_words(limits, swing.unit)}."
        if swing and limits
        else ""
    )
    if word == "undecided":
        why = f"{said} The swing reaches over a limit: look for dirt or a dent, turn more steadily, read again."
        return NextLine("undecided", "It is", "too close to call", ": read it again.", why)
    if row.step.kind == "drag_in_hub":
        why = f"{said} {_expected(found)} Back to the bench: {_hub_change(found)}"
        return NextLine("stop", "Stop:", f"{WORDS[word]} in the hub", ". Open it again.", why)
    why = f"{said} Open it and look: what sets it is inside, the nut cures nothing."
    return NextLine("stop", "Stop: it turns", WORDS[word], ". Open it again.", why)


def unexplained_at(found: Assessment, row: Row) -> str:
    """How far it turns from what is known to add to it, at a step after it was read; empty where it
    does not."""
    in_fork = row.step.stage == "prove"
    said = found.fork_compared if in_fork else found.compared
    if said is None or said.verdict != "unexplained" or row.step.kind not in ("turns", *_READ):
        return ""
    if not in_fork and found.rise:
        return ""  # The trials' line says what the fit adds: nobody's word stands against it.
    before = "in the hub" if in_fork else "on the bench"
    return f"It turns {abs(said.difference):.2f} ± {said.U:.2f} N·m {_way(said)} than {before}."


def account(found: Assessment, row: Row) -> Account | None:
    """What is asked where it turns as what is known to add does not explain; None where it does."""
    words = unexplained_at(found, row)
    kinds = ("seal_drag", "grease_drag") if row.step.stage == "prove" else ("fit_drag",)
    said = "" if row.step.kind == "turns" else words  # There the line says it.
    return account_at(found.bench.progress, said, *kinds) if words else None


_READ = ("drag_in_fork", "drag_in_hub", *ADDING)


def _way(said: Compared) -> str:
    return "harder" if said.difference > 0 else "easier"


def _unexplained(found: Assessment) -> NextLine:
    said = found.fork_compared
    assert said is not None  # noqa: S101  only asked where it is unexplained
    known = added_words(found.fork_adds)
    why = f"Known to add: {known}. " if known else "Nothing is known to add to it. "
    if said.left > 0:
        why += (
            "Say what seals and grease add, or look: a lip turned over, a sleeve that binds, a pinch bolt"
            " that holds."
        )
    else:
        why += (
            "Look: is every seal in, did the nut keep its torque, was it read at the same radius?"
        )
    return NextLine(
        "undecided", "It turns", f"{abs(said.difference):.2f} ± {said.U:.2f} N·m {_way(said)}",
        " than in the hub: what explains it?", why,
    )  # fmt: skip


def _hub_change(found: Assessment) -> str:
    advice = found.advice
    hub = found.bench.progress.card.setting.drag_in_hub
    limits = hub.limits if hub else found.limits
    if advice and advice.slope and limits and found.in_hub:
        middle = (limits.lowest + limits.highest) / 2
        change = (middle - found.in_hub.middle) / advice.slope
        way = "thicker" if change > 0 else "thinner"
        return f"a shim {_shim(found, abs(change))} {way} would bring it to the middle."
    return "another shim, a small step."
