"""Each act as a line: what to do, in one sentence with its numbers, and why."""

from collections.abc import Callable

from wheelend.methods.shims.acting import Act, ActKind
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.causes import Disagreement
from wheelend.methods.shims.words import (
    felt,
    in_mm,
    last_trial,
    play_words,
    read_words,
    step_of,
    swap_words,
)
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.nextline import NextLine
from wheelend.shims import total_mm
from wheelend.wording import MM_PER_THOU, both, figure, thickness


def _by_hand(found: Assessment, _: Act) -> NextLine:
    why = f"{felt(found)}. Read it with a dial to prove it."
    return NextLine(
        "set", "Judged by hand:", "no play felt", ". Go on, or read it with a dial.", why
    )


def _take_dial(found: Assessment, _: Act) -> NextLine:
    why = f"{felt(found)}. How much it is, hands do not say: shims are picked by numbers."
    return NextLine("stop", "You feel play:", "take a dial", "and read how much.", why)


def _torque(found: Assessment, _: Act) -> NextLine:
    last = last_trial(found)
    setting = found.bench.progress.card.setting
    if last.series.rough:
        why = f"{play_words(found)}. With a few bolts snug it is a rough try and proves nothing."
        return NextLine("torque", "All bolts to", "their torque", ", then read again.", why)
    wanted = (
        figure(setting.torque.text, setting.torque.value, "torque", found.bench.lead)
        if setting.torque
        else ""
    )
    read_at = ", ".join(row.typed for row in last.series.torques)
    why = f"{play_words(found)}, read at {read_at}: a rough try that proves nothing."
    return NextLine("torque", "Nut to", wanted, ", seat both ways, read again.", why)


def _ends(found: Assessment, _: Act) -> NextLine:
    last = last_trial(found)
    key = f"{in_mm(found, last.ends_apart_mm or 0.0)} apart"
    after = ": a shaft or a cup is not home. Seat both ways and read both ends again."
    plays = ", ".join(f"{place} {in_mm(found, play)}" for place, play in last.plays_mm.items())
    why = f"{plays.capitalize()}, each read again: both ends move by one play."
    return NextLine("stop", "Stop: the ends read", key, after, why)


def _go_on(found: Assessment, _: Act) -> NextLine:
    last = last_trial(found)
    play, doubt = found.believed_mm
    shown = both(play, step_of(found), found.bench.lead)
    why = f"{read_words(found)}{_outvoted(found)}"
    if found.together:
        why += f" All {len(found.counted)} trials weighed together say {shown} ± {in_mm(found, doubt)}."
    if last.locked:
        why += " It was read locked, at the torque that is there."
        return NextLine("set", "Locked, end play is", shown, "and inside. Go on.", why)
    if found.shows_seats:
        why += " All trials agree with their packs."
    after = "and inside. Open, pack, seal, refit the same pack."
    return NextLine("set", "End play is", shown, after, why)


def _outvoted(found: Assessment) -> str:
    """What became of a reading that stood apart."""
    apart = found.place_apart
    if apart is None:
        return ""
    first = found.place_causes[0]
    why = f": {first.because}" if first.because else "."
    return f" {apart.place.capitalize()} was read again, and its first reading does not count{why}"


def _read_again(found: Assessment, act: Act) -> NextLine:
    where = place_words(base_of(act.place))
    apart = found.disagreement()
    if apart is None:
        why = f"{read_words(found)} The mean of more readings scatters less.{_odds(act)}"
        return NextLine("again", "Too close to call: read", where, "once more.", why)
    why = f"Trials {apart.earlier} and {apart.later} do not add up: {_off(found, apart)}."
    why += " This one reading settles which it is."
    return NextLine("again", "Seat both ways, then read", where, "once more.", why)


def _try_again(found: Assessment, act: Act) -> NextLine:
    apart = found.disagreement()
    why = f"{_off(found, apart)}. " if apart else ""
    why += f"Set trial {act.trial} aside first: a ring that is not home goes home, or it is tight again."
    return NextLine(
        "again", "Seat both ways at working torque,", "try again", ": is it still tight?", why
    )


def _odds(act: Act) -> str:
    """What an act is worth, where that can be said."""
    return (
        f" It proves it about {round(act.chance * 10)} times in ten."
        if 0.05 < act.chance < 1
        else ""
    )


def _read_anew(found: Assessment, act: Act) -> NextLine:
    verdict = found.verdict
    if (
        act.cause is None
        and verdict
        and verdict.because in _ANEW
        and not last_trial(found).series.weighed.moved
    ):
        key, after, why = _ANEW[verdict.because]
        return NextLine(
            "undecided", "Too close to call:", key, after, f"{play_words(found)}. {why}"
        )
    why = (
        act.cause.text
        if act.cause
        else "Read again it was another: something went home, or moved, between."
    )
    return NextLine("again", "Set this series aside:", "read every place", "anew.", why)


_ANEW = {
    "runout": ("do not turn the hub", "between push and pull; read again.",
               "Most of the doubt is the wobble of the face."),
    "mixed_direction": ("read every place again", ", and watch which way the needle turns.",
                        "Some places read the other way round."),
    "scattered": ("seat again", "both ways and read every place once more.",
                  "The places disagree by more than the gauge explains."),
    "runout_unknown": ("do not turn the hub", "between push and pull; read again.",
                       "The hub was turned and the wobble of the face is not known."),
}  # fmt: skip


def _set_aside(found: Assessment, act: Act) -> NextLine:
    apart = found.disagreement()
    off = f" {_off(found, apart)[0].upper()}{_off(found, apart)[1:]}." if apart else ""
    why = f"{_first(act)}{off}"
    others = "the others" if found.odd_one_out == act.trial else "this one"
    after = f": it speaks against {others}."
    return NextLine("again", "Set aside", f"trial {act.trial}", after, why)


def _first(act: Act) -> str:
    cause = act.cause
    return f"Most likely: {cause.because or cause.text} {cause.check}" if cause else ""


def _open_and(key: str, after: str) -> "_Line":
    def line(found: Assessment, act: Act) -> NextLine:
        apart = found.disagreement()
        if apart is None:
            why = f"{play_words(found)}. It scattered twice: look for a loose stand, dirt, a cup off its seat."
            return NextLine("stop", "Stop: open,", key, after, why)
        before = f"Stop: trials {apart.earlier} and {apart.later} do not add up:"
        return NextLine(
            "stop", before, key, after, f"{_off(found, apart)}. {_first(act)}".capitalize()
        )

    return line


def _off(found: Assessment, apart: Disagreement) -> str:
    return f"{in_mm(found, abs(apart.unexplained_mm))} of play is not explained by the shims"


def _open(found: Assessment, act: Act) -> NextLine:
    choice = act.choice or found.choice
    assert choice is not None  # noqa: S101  the act carries the pack
    added, taken = total_mm(choice.add), total_mm(choice.remove)
    verb = "Add" if added > taken else "Take out"
    key = both(abs(added - taken), step_of(found), found.bench.lead)
    after = f": {swap_words(found, choice)}. Torque, seat both ways, read."
    return NextLine("swap", verb, key, after, _why_open(found))


def _why_open(found: Assessment) -> str:
    finding = last_trial(found).series.finding
    tight = "bound" if finding and finding.kind == "bound" else "free but without play to read"
    why = f"It is {tight}, so no reading is possible: open until there is play, then come down."
    usual = found.bench.usual
    if usual and found.by_history:
        pack_mm = both(usual.pack_mm, 0.01, found.bench.lead)
        why += f" The last {usual.jobs} hubs of this card needed about {pack_mm}."
    if found.plan and "short_step" in found.plan.flags:
        why += " The tray opens it no further than this."
    return why + _left_out(found)


def _mistyped(found: Assessment, _: Act) -> NextLine:
    why = (
        f"{read_words(found)} These thicknesses leave more packs than can be looked at: "
        "one of them may be mistyped."
    )
    return NextLine("stop", "Look again at", "the pack and the tray", ": no plan was found.", why)


def _left_out(found: Assessment) -> str:
    cut = found.plan is not None and "cut" in found.plan.flags
    return " Not every pack could be looked at; another may do as well." if cut else ""


def _finer(found: Assessment, act: Act) -> NextLine:
    why = read_words(found)
    if not act.chance:
        why += " This gauge’s doubt fills the window: with it nothing can be proven."
    if act.dial:
        return NextLine(
            "undecided",
            "Too close to call: take",
            act.dial.name,
            "and read again.",
            why + _odds(act),
        )
    key = f"{thickness(act.step_mm)} mm"
    why += " No dial of this shop reads finer." if found.bench.dials else ""
    return NextLine("undecided", "Too close to call: read with a dial of", key, "or finer.", why)


def _swap(found: Assessment, act: Act) -> NextLine:
    choice = act.choice or found.choice
    assert choice is not None  # noqa: S101  the act carries the pack
    change = total_mm(choice.pack) - last_trial(found).total_mm
    verb = "Add" if change > 0 else "Take out"
    key = both(abs(change), step_of(found), found.bench.lead)
    predicted = (
        ""
        if choice.predicted_mm is None
        else f" It should give {in_mm(found, choice.predicted_mm)}."
    )
    after = f": {swap_words(found, choice)}. Torque, seat both ways, read again."
    why = f"{read_words(found)}{predicted}{_outvoted(found)}{_left_out(found)}"
    return NextLine("swap", verb, key, after, why)


def _buy(found: Assessment, act: Act) -> NextLine:
    if found.evidence is not None and found.evidence.c is None:
        after = "or more: the tray cannot open it further. Enter it in the tray."
        return NextLine(
            "buy",
            "Get a shim of",
            both(act.sizes[0], 0.01, found.bench.lead),
            after,
            _why_open(found),
        )
    why = f"{read_words(found)} No pack from the tray lands inside; one with this does."
    key = " or ".join(map(_marked, act.sizes))
    return NextLine("buy", "Get a shim of", key, "and enter it in the tray.", why)


def _marked(size_mm: float) -> str:
    """A thickness as shims are sold: in hundredths of a mm, or in thou."""
    hundredths = size_mm * 100
    if abs(hundredths - round(hundredths)) < 0.001:
        return f"{thickness(size_mm)} mm"
    return f"{size_mm / MM_PER_THOU:.0f} thou"


def _no_shims(found: Assessment, _: Act) -> NextLine:
    why = (
        f"{read_words(found)} Look for a ring that is not home, a wrong spacer or collar, "
        "a bearing of another width."
    )
    return NextLine("stop", "Stop:", "no shim helps", ": the parts do not make this setting.", why)


def _measure_shims(found: Assessment, _: Act) -> NextLine:
    why = (
        f"{read_words(found)} Pack after pack that should land inside did not: "
        "the shims differ from their marks by more than this window leaves."
    )
    after = "with a micrometer, and enter what they are."
    return NextLine("stop", "Measure", "the shims of the tray", after, why)


def _no_limits(found: Assessment, _: Act) -> NextLine:
    why = f"{play_words(found)}. The card gives no limits, so nothing can be judged by it."
    return NextLine("set", "It is", "written", ". Go on, or have a lead add the limits.", why)


_Line = Callable[[Assessment, Act], NextLine]

LINES: dict[ActKind, _Line] = {
    "write": _no_limits, "by_hand": _by_hand, "take_dial": _take_dial, "ends": _ends,
    "try_again": _try_again,
    "read_again": _read_again, "read_anew": _read_anew, "set_aside": _set_aside,
    "clean": _open_and("wipe and look", ", refit the same pack, read again."),
    "measure": _open_and("measure the pack", ", shim by shim, and enter what is there."),
    "measure_shims": _measure_shims, "torque": _torque, "go_on": _go_on, "mistyped": _mistyped, "open": _open,
    "finer_dial": _finer, "swap": _swap, "buy": _buy, "no_shims": _no_shims,
}  # fmt: skip
"""The words of each act."""
