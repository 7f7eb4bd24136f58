"""The next line: one sentence that says what to do now, and a smaller one that says why."""

from collections.abc import Callable
from dataclasses import dataclass

from wheelend.arrangements import ENDS
from wheelend.procedure.causes import Disagreement
from wheelend.procedure.series import Place, Series
from wheelend.procedure.setting import Assessment
from wheelend.shims import Pack, total_mm
from wheelend.shims.problem import Choice
from wheelend.wording import both, count, length, pack, thickness, torque

_FELT_STEP = 0.01

PUSH = {"in": "Push in", "out": "Pull out"}


@dataclass(frozen=True)
class NextLine:
    """`before`, `key` and `after` make the sentence; `key` is what must be read from afar.

    `kind` is a stable name for what is asked: pack, read, swap, set, stop, undecided, buy, look.
    """

    kind: str
    before: str
    key: str
    after: str
    why: str

    @property
    def tail(self) -> str:
        """What follows the key; punctuation follows it without a blank."""
        return self.after if self.after[:1] in ":,.;" else f" {self.after}"

    def __str__(self) -> str:
        return f"{self.before} {self.key}{self.tail}".strip()


def next_line(found: Assessment) -> NextLine:
    """What to do now at the setting stage."""
    now = found.setting.now
    if now is None:
        return _first_pack(found)
    if now.by_hand and now.finding is None:
        return _by_hand(found)
    if now.next_place:
        return _read(found, now, now.next_place)
    for applies, line in _WHEN_READ:
        if applies(found):
            return line(found)
    return _swap(found)


def _first_pack(found: Assessment) -> NextLine:
    why = "Enter the pack as found, or a first guess: the readings tell what it must become."
    if found.setting.card.trial_method == "over_shim":
        why = "This card starts open: fit more than it will take, so that there is play, and come down."
    if not found.setting.tray:
        why += " The tray is empty: what you fit now is all there is to plan with."
    return NextLine("pack", "Enter the", "shim pack", "that is fitted, then torque the nut.", why)


def felt(found: Assessment) -> str:
    """What hands can feel on this wheel end, in numbers."""
    least = found.setting.card.smallest_felt_mm
    if least is None:
        return "The card does not say what hands can feel here"
    return f"Hands feel {both(least, _FELT_STEP, found.setting.lead)} of play and more on this wheel end"


def _by_hand(found: Assessment) -> NextLine:
    why = f"{felt(found)}: less passes unfelt, so a setting judged so is not proven."
    return NextLine("feel", "Hold at 12 and 6,", "push and pull", ", then say what you feel.", why)


def _judged(found: Assessment) -> NextLine:
    why = f"{felt(found)}. Read it with a dial to prove it."
    return NextLine(
        "set", "Judged by hand:", "no play felt", ". Go on, or read it with a dial.", why
    )


def place_words(place: str) -> tuple[str, str]:
    """A place to read at: what must be seen from afar, and the rest."""
    return (f"the {place} end", "and read.") if place in ENDS else (place, "o'clock and read.")


def _read(found: Assessment, now: Series, place: Place) -> NextLine:
    clock, push = place
    where, after = place_words(clock)
    key = f"{PUSH[push].lower()} at {where}"
    expected = _expected(found)
    if now.untouched:
        why = "Every ring must be against what holds it before a reading counts. " + expected
        return NextLine("read", _before_reading(found), key, after, why.strip())
    left = sum((c, p) not in now.readings for c in now.places for p in ("in", "out"))
    why = f"{count(left, 'reading')} to go. Turn only the hub; the dial's base stays. {expected}"
    return NextLine("read", "", key[0].upper() + key[1:], after, why.strip())


def _before_reading(found: Assessment) -> str:
    card, lead = found.setting.card, found.setting.lead
    if card.plate_torque_N_m is not None:
        return f"Both plates to {torque(card.plate_torque_N_m, lead)} crosswise, seat both ways, zero the dial,"
    return f"Nut to {torque(card.nut_torque_N_m, lead)}, seat both ways, zero the dial,"


def _expected(found: Assessment) -> str:
    if found.expected_mm is None:
        return ""
    if found.expected_mm < 0:
        return "Earlier trials say it will bind."
    says = both(found.expected_mm, _step(found), found.setting.lead)
    return f"Earlier trials say {says} of play for this pack."


def _ends(found: Assessment) -> NextLine:
    now = found.setting.series[-1]
    plays = now.plays_mm
    key = f"{_mm(found, now.ends_apart_mm or 0.0)} apart"
    after = ": a shaft or a cup is not home. Seat both ways and read both ends again."
    why = f"Left {_mm(found, plays['left'])}, right {_mm(found, plays['right'])}: both ends move by one play."
    return NextLine("stop", "Stop: the ends read", key, after, why)


def _set(found: Assessment) -> NextLine:
    play = found.play
    assert play is not None  # noqa: S101  _WHEN_READ comes here only with a play
    step = _step(found)
    after = "and is inside. Go on to torque and lock."
    why = f"{_play(found)}, {_limits(found)}."
    if len(found.counted) > 1:
        why += " All trials agree with their packs, so nothing is off its seat."
    closer = found.plan.choice if found.plan and found.plan.kind == "fit" else None
    if closer and closer.predicted_mm is not None:
        why += f" A pack nearer the aim would be {_pack(found, closer.pack)}."
    return NextLine("set", "End play is", both(play.play_mm, step, found.setting.lead), after, why)


def _stop(found: Assessment) -> NextLine:
    apart = found.disagreement()
    assert apart is not None  # noqa: S101  _WHEN_READ comes here only with a disagreement
    after = f"do not add up: {_off(found, apart)}. Check before you change the pack."
    key = f"trials {apart.earlier} and {apart.later}"
    first = found.causes()[0]
    why = f"First: {first.because or first.text} {first.check}"
    return NextLine("stop", "Stop:", key, after, why)


def _off(found: Assessment, apart: Disagreement) -> str:
    size = _mm(found, abs(apart.unexplained_mm))
    return f"{size} of play is not explained by the shims"


def _bound(found: Assessment) -> NextLine:
    choice = found.plan.choice if found.plan else None
    if choice is None:
        after = "is tight, and the tray cannot open it far enough. Get thicker shims."
        return NextLine("buy", "The pack of", _total(found), after, _why_over_shim(found))
    added, taken = total_mm(choice.add), total_mm(choice.remove)
    verb = "Add" if found.setting.card.effect == "opens" else "Take out"
    key = both(abs(added - taken), _step(found), found.setting.lead)
    after = f": {_swap_words(found, choice)}. Torque, seat both ways, read."
    return NextLine("swap", verb, key, after, _why_over_shim(found))


def _why_over_shim(found: Assessment) -> str:
    now = found.setting.now
    tight = "bound" if now and now.finding == "bound" else "free but without play to read"
    return f"It is {tight}, so no reading is possible: open until there is play, then come down."


def _undecided(found: Assessment) -> NextLine:
    verdict = found.verdict
    reason = verdict.because if verdict else None
    key, after, why = _UNDECIDED[reason or "resolution"]
    return NextLine("undecided", "Too close to call:", key, after, f"{_play(found)}. {why}")


_UNDECIDED = {
    "gauge_too_coarse": ("take a finer gauge", "and read again.",
                         "This gauge's doubt fills the window: it can never say that it is inside."),
    "scatter": ("seat again", "both ways and read every place once more.",
                "Most of the doubt comes from readings that scatter."),
    "runout": ("do not turn the hub", "between push and pull; read again.",
               "Most of the doubt is the wobble of the face."),
    "resolution": ("take a finer gauge", "or a pack nearer the aim.",
                   "The doubt reaches over the limit."),
}  # fmt: skip


def _keep_reading(found: Assessment) -> bool:
    """Undecided, and no other pack would do better."""
    undecided = found.verdict is not None and found.verdict.word == "undecided"
    return undecided and (found.plan is None or found.plan.kind != "fit")


def _swap(found: Assessment) -> NextLine:
    choice = found.plan.choice if found.plan else None
    if choice is None:
        return _buy(found)
    change = total_mm(choice.pack) - total_mm(found.setting.series[-1].pack)
    verb = "Add" if change > 0 else "Take out"
    key = both(abs(change), _step(found), found.setting.lead)
    predicted = (
        "" if choice.predicted_mm is None else f" It should give {_mm(found, choice.predicted_mm)}."
    )
    after = f": {_swap_words(found, choice)}. Torque, seat both ways, read again."
    return NextLine("swap", verb, key, after, f"{_play(found)}, {_limits(found)}.{predicted}")


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


def _pack(found: Assessment, sides: Pack) -> str:
    names = found.setting.names
    if len(sides) == 1:
        return pack(sides[0], names)
    said = [f"{pack(side, names)} {word}" for side, word in zip(sides, ENDS, strict=True) if side]
    return " and ".join(said)


def _total(found: Assessment) -> str:
    return f"{thickness(total_mm(found.setting.series[-1].pack))} mm"


def _step(found: Assessment) -> float:
    return found.setting.series[-1].gauge.resolution


def _mm(found: Assessment, length_mm: float) -> str:
    return length(length_mm, _step(found), found.setting.lead)


def _play(found: Assessment) -> str:
    if found.play is None:
        return "There is no play to read"
    return f"Play is {_mm(found, found.play.play_mm)} ± {_mm(found, found.play.U_mm)}"


def _limits(found: Assessment) -> str:
    limits = found.setting.card.limits
    window = f"{_mm(found, limits.lowest)} to {_mm(found, limits.highest)}"
    return f"the card allows {window} and the aim is {_mm(found, found.aim_mm)}"


_Rule = tuple[Callable[[Assessment], bool], Callable[[Assessment], NextLine]]
_WHEN_READ: tuple[_Rule, ...] = (
    (lambda found: found.judged_by_hand, _judged),
    (lambda found: found.setting.series[-1].ends_apart_mm is not None, _ends),
    (lambda found: found.disagreement() is not None, _stop),
    (lambda found: found.is_set, _set),
    (lambda found: found.evidence is not None and found.evidence.c is None, _bound),
    (_keep_reading, _undecided),
)
