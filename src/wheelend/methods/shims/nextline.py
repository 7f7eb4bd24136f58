"""What to do next with a shimmed wheel end, in one sentence with its numbers, and why."""

from collections.abc import Callable

from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.causes import Disagreement
from wheelend.methods.shims.trials import FittedTrial
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.locking import lock_line
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.shims import Pack, total_mm
from wheelend.shims.problem import Choice
from wheelend.wording import both, count, figure, length, pack, thickness

_FELT_STEP = 0.01
_PUSH = {"in": "push in", "out": "pull out"}


def line_at(found: Assessment, row: Row) -> NextLine | None:
    """What to do at a step; None where the step says it itself."""
    if row.step.kind == "pack":
        return _refit(found, row) if row.step.phase == "final" else _fit(found, row)
    if row.step.kind in ("reading", "locked_reading"):
        return _read(found, row)
    if row.step.kind == "opening":
        return judged(found)
    return lock_line(found.bench.progress, row)


def judged(found: Assessment) -> NextLine:
    """What the readings say once all are there."""
    for applies, line in _WHEN_READ:
        if applies(found):
            return line(found)
    return _swap(found)


def _fit(found: Assessment, row: Row) -> NextLine:
    choice = found.choice
    if found.last is None or found.disagreement():
        why = row.step.why
        if (
            found.bench.progress.card.chosen("trials_from", found.bench.progress.chosen)
            == "over_shim"
        ):
            why = "This card starts open: fit more than it will take, so that there is play, and come down."
        if not found.bench.tray:
            why += " The tray is empty: what you fit now is all there is to plan with."
        return NextLine("pack", "Which", "shims", f"go in{_at(row)}?", why)
    if choice is None:
        return NextLine(
            "pack", "Which", "shims", f"go in{_at(row)}?", f"{_play(found)}, {_limits(found)}."
        )
    mine = choice.pack[_index(found, row)]
    why = _swap_words(found, choice).capitalize() + "."
    return NextLine("pack", "Fit", pack(mine, found.bench.names), f"{_at(row)}.", why)


def _refit(found: Assessment, row: Row) -> NextLine:
    last = found.last
    if last is None:
        return NextLine("pack", row.step.asks, "", "", row.step.why)
    mine = pack(last.pack[_index(found, row)], found.bench.names)
    return NextLine("pack", "Refit the identical pack,", mine, f"{_at(row)}.", row.step.why)


def _at(row: Row) -> str:
    return f", {row.station}" if row.station not in ("", "main") else ""


def _index(found: Assessment, row: Row) -> int:
    return found.bench.progress.card.arrangement.setting_clamp.stations.index(row.station)


def felt(found: Assessment) -> str:
    """What hands can feel on this wheel end, in numbers."""
    hands = found.bench.progress.card.hands
    if hands is None:
        return "The card does not say what hands can feel here"
    least = both(hands.smallest_felt_mm, _FELT_STEP, found.bench.lead)
    return f"Hands feel {least} of play and more on this wheel end"


def _read(found: Assessment, row: Row) -> NextLine:
    dial = found.bench.progress.row("dial", "")
    set_up = dial.at.entries[-1] if dial and dial.at.entries else None
    if set_up and set_up.instrument is None:
        why = f"{felt(found)}: less passes unfelt, so a setting judged so is not proven."
        return NextLine(
            "feel", "Hold at 12 and 6,", "push and pull", ", then say what you feel.", why
        )
    slot = row.slot
    if not slot.push:
        return judged(found)
    left = 2 * len(found.bench.progress.card.places) - len(_now_rows(row))
    why = f"{count(left, 'reading')} to go. Turn only the hub; the dial’s base stays. {_expected(found)}"
    words = f"{_PUSH[slot.push].capitalize()} at"
    return NextLine("read", words, place_words(slot.place), ", hold, read.", why.strip())


def _now_rows(row: Row) -> list[object]:
    return [one for line in row.asked.lines(row.at) for one in line.rows]


def _expected(found: Assessment) -> str:
    if found.expected_mm is None:
        return ""
    if found.expected_mm < 0:
        return "Earlier trials say it will bind."
    says = both(found.expected_mm, _step(found), found.bench.lead)
    return f"Earlier trials say {says} of play for this pack."


def _by_hand(found: Assessment) -> NextLine:
    why = f"{felt(found)}. Read it with a dial to prove it."
    return NextLine(
        "set", "Judged by hand:", "no play felt", ". Go on, or read it with a dial.", why
    )


def _felt_play(found: Assessment) -> NextLine:
    why = f"{felt(found)}. How much it is, hands do not say: shims are picked by numbers."
    return NextLine("stop", "You feel play:", "take a dial", "and read how much.", why)


def _rough(found: Assessment) -> NextLine:
    last = _last(found)
    setting = found.bench.progress.card.setting
    if last.series.rough:
        why = f"{_play(found)}. With a few bolts snug it is a rough try and proves nothing."
        return NextLine("torque", "All bolts to", "their torque", ", then read again.", why)
    wanted = (
        figure(setting.torque.text, setting.torque.value, "torque", found.bench.lead)
        if setting.torque
        else ""
    )
    read_at = ", ".join(row.typed for row in last.series.torques)
    why = f"{_play(found)}, read at {read_at}: a rough try that proves nothing."
    return NextLine("torque", "Nut to", wanted, ", seat both ways, read again.", why)


def _ends(found: Assessment) -> NextLine:
    last = _last(found)
    key = f"{_mm(found, last.ends_apart_mm or 0.0)} apart"
    after = ": a shaft or a cup is not home. Seat both ways and read both ends again."
    plays = ", ".join(f"{place} {_mm(found, play)}" for place, play in last.plays_mm.items())
    why = f"{plays.capitalize()}: both ends move by one play."
    return NextLine("stop", "Stop: the ends read", key, after, why)


def _set(found: Assessment) -> NextLine:
    play, last = found.play, _last(found)
    shown = both(play.play_mm, _step(found), found.bench.lead) if play else ""
    why = f"{_play(found)}, {_limits(found)}."
    if last.locked:
        why += " It was read locked, at the torque that is there."
        return NextLine("set", "Locked, end play is", shown, "and inside. Go on.", why)
    if len(found.counted) > 1 and _two_openings(found):
        why += " All trials agree with their packs."
    after = "and inside. Open, pack, seal, refit the same pack."
    return NextLine("set", "End play is", shown, after, why)


def _two_openings(found: Assessment) -> bool:
    """Whether different packs were tried: one pack read twice shows nothing about seats."""
    return len({round(found.trial(number).total_mm, 5) for number in found.counted}) > 1


def _stop(found: Assessment) -> NextLine:
    apart = found.disagreement()
    assert apart is not None  # noqa: S101  _WHEN_READ comes here only with a disagreement
    after = f"do not add up: {_off(found, apart)}. Check before you change the pack."
    first = found.causes()[0]
    why = f"First: {first.because or first.text} {first.check}"
    return NextLine("stop", "Stop:", f"trials {apart.earlier} and {apart.later}", after, why)


def _off(found: Assessment, apart: Disagreement) -> str:
    return f"{_mm(found, abs(apart.unexplained_mm))} of play is not explained by the shims"


def _bound(found: Assessment) -> NextLine:
    choice = found.choice
    if choice is None:
        after = "is tight, and the tray cannot open it further. Get other shims and enter them."
        return NextLine("buy", "The pack of", _total(found), after, _why_over_shim(found))
    added, taken = total_mm(choice.add), total_mm(choice.remove)
    verb = "Add" if added > taken else "Take out"
    key = both(abs(added - taken), _step(found), found.bench.lead)
    after = f": {_swap_words(found, choice)}. Torque, seat both ways, read."
    return NextLine("swap", verb, key, after, _why_over_shim(found))


def _is_cut(found: Assessment) -> bool:
    return found.plan is not None and "cut" in found.plan.flags


def _cut(found: Assessment) -> NextLine:
    why = (
        f"{_play(found)}, {_limits(found)}. These thicknesses leave more packs than can be looked at: "
        "one of them may be mistyped."
    )
    return NextLine("stop", "Look again at", "the pack and the tray", ": no plan was found.", why)


def _left_out(found: Assessment) -> str:
    return " Not every pack could be looked at; another may do as well." if _is_cut(found) else ""


def _why_over_shim(found: Assessment) -> str:
    finding = _last(found).series.finding
    tight = "bound" if finding and finding.kind == "bound" else "free but without play to read"
    why = f"It is {tight}, so no reading is possible: open until there is play, then come down."
    return why + _left_out(found)


def _undecided(found: Assessment) -> NextLine:
    verdict = found.verdict
    reason = verdict.because if verdict else None
    key, after, why = _UNDECIDED[reason or "resolution"]
    return NextLine("undecided", "Too close to call:", key, after, f"{_play(found)}. {why}")


_UNDECIDED = {
    "gauge_too_coarse": ("take a finer gauge", "and read again.",
                         "This gauge’s doubt fills the window: it can never say that it is inside."),
    "scatter": ("seat again", "both ways and read every place once more.",
                "Most of the doubt comes from readings that scatter."),
    "runout": ("do not turn the hub", "between push and pull; read again.",
               "Most of the doubt is the wobble of the face."),
    "resolution": ("take a finer gauge", "or a pack nearer the aim.",
                   "The doubt reaches over the limit."),
    "mixed_direction": ("read again", "at the place that went the other way.",
                        "Some places read the other way round: check which way the needle turns."),
    "scattered": ("seat again", "both ways and read every place once more.",
                  "The places disagree by more than the gauge explains."),
    "runout_unknown": ("do not turn the hub", "between push and pull; read again.",
                       "The hub was turned and the wobble of the face is not known."),
}  # fmt: skip


def _keep_reading(found: Assessment) -> bool:
    """Undecided, and no other pack would do better."""
    undecided = found.verdict is not None and found.verdict.word == "undecided"
    return undecided and found.choice is None


def _swap(found: Assessment) -> NextLine:
    choice = found.choice
    if choice is None:
        return _buy(found)
    change = total_mm(choice.pack) - _last(found).total_mm
    verb = "Add" if change > 0 else "Take out"
    key = both(abs(change), _step(found), found.bench.lead)
    predicted = (
        "" if choice.predicted_mm is None else f" It should give {_mm(found, choice.predicted_mm)}."
    )
    after = f": {_swap_words(found, choice)}. Torque, seat both ways, read again."
    return NextLine(
        "swap", verb, key, after, f"{_play(found)}, {_limits(found)}.{predicted}{_left_out(found)}"
    )


def _buy(found: Assessment) -> NextLine:
    buy = found.plan.buy if found.plan else None
    why = f"{_play(found)}, {_limits(found)}. No pack from the tray lands inside."
    sizes = [] if buy is None else [size for size in (buy.metric_mm, buy.inch_mm) if size]
    if not sizes:
        return NextLine("buy", "Get", "thinner shims", "for this pack.", why)
    key = " or ".join(f"{thickness(size)} mm" for size in sizes)
    return NextLine("buy", "Get a shim of", key, "and enter it in the tray.", why)


def _swap_words(found: Assessment, choice: Choice) -> str:
    parts = []
    if any(choice.remove):
        parts.append(f"take out {_pack(found, choice.remove)}")
    if any(choice.add):
        parts.append(f"put in {_pack(found, choice.add)}")
    return ", ".join(parts) or "keep the pack"


def _pack(found: Assessment, packs: Pack) -> str:
    stations = found.bench.progress.card.arrangement.setting_clamp.stations
    names = found.bench.names
    if len(packs) < 2:
        return pack(packs[0], names)
    said = [f"{pack(one, names)} {word}" for one, word in zip(packs, stations, strict=True) if one]
    return " and ".join(said)


def _last(found: Assessment) -> FittedTrial:
    assert found.last is not None  # noqa: S101  asked only once something was read
    return found.last


def _total(found: Assessment) -> str:
    return f"{thickness(_last(found).total_mm)} mm"


def _step(found: Assessment) -> float:
    return found.last.gauge.resolution if found.last else 0.01


def _mm(found: Assessment, length_mm: float) -> str:
    return length(length_mm, _step(found), found.bench.lead)


def _play(found: Assessment) -> str:
    if found.play is None:
        return "There is no play to read"
    return f"Play is {_mm(found, found.play.play_mm)} ± {_mm(found, found.play.U_mm)}"


def _limits(found: Assessment) -> str:
    window = found.bench.progress.card.setting.limits
    said = str(window) if window else "no play in particular"
    return f"the card allows {said} and the aim is {_mm(found, found.aim_mm)}"


_Rule = tuple[Callable[[Assessment], bool], Callable[[Assessment], NextLine]]


def _finding(kind: str) -> Callable[[Assessment], bool]:
    def asked(found: Assessment) -> bool:
        finding = found.last.series.finding if found.last else None
        return bool(finding and finding.kind == kind)

    return asked


def _no_limits(found: Assessment) -> NextLine:
    why = f"{_play(found)}. The card gives no limits, so nothing can be judged by it."
    return NextLine("set", "It is", "written", ". Go on, or have a lead add the limits.", why)


_WHEN_READ: tuple[_Rule, ...] = (
    (lambda found: found.bench.progress.card.setting.limits is None, _no_limits),
    (lambda found: found.judged_by_hand, _by_hand),
    (_finding("felt"), _felt_play),
    (lambda found: bool(found.last and found.last.ends_apart_mm is not None), _ends),
    (lambda found: found.disagreement() is not None, _stop),
    (lambda found: found.is_set, _set),
    (lambda found: bool(found.last and found.last.rough and found.verdict
                        and found.verdict.word in ("within", "undecided")), _rough),
    (lambda found: _is_cut(found) and found.choice is None, _cut),
    (lambda found: found.evidence is not None and found.evidence.c is None, _bound),
    (_keep_reading, _undecided),
)  # fmt: skip
