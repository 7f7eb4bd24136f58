"""The words that lines and notes about shims are made of."""

from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.trials import FittedTrial
from wheelend.shims import Pack
from wheelend.shims.problem import Choice
from wheelend.wording import both, length, pack

_FELT_STEP = 0.01


def last_trial(found: Assessment) -> FittedTrial:
    """The latest trial that counts; asked only once something was read."""
    assert found.last is not None  # noqa: S101  asked only once something was read
    return found.last


def step_of(found: Assessment) -> float:
    """The step of the gauge that was read last, in mm."""
    return found.last.gauge.resolution if found.last else 0.01


def in_mm(found: Assessment, length_mm: float) -> str:
    """A length as its gauge can tell it."""
    return length(length_mm, step_of(found), found.bench.lead)


def play_words(found: Assessment) -> str:
    """The play that was read, with its doubt."""
    if found.play is None:
        return "There is no play to read"
    return f"Play is {in_mm(found, found.play.play_mm)} ± {in_mm(found, found.play.U_mm)}"


def limits_words(found: Assessment) -> str:
    """What the card allows, and the aim."""
    window = found.bench.progress.card.setting.limits
    said = str(window) if window else "no play in particular"
    return f"the card allows {said} and the aim is {in_mm(found, found.aim_mm)}"


def felt(found: Assessment) -> str:
    """What hands can feel on this wheel end, in numbers."""
    hands = found.bench.progress.card.hands
    if hands is None:
        return "The card does not say what hands can feel here"
    least = both(hands.smallest_felt_mm, _FELT_STEP, found.bench.lead)
    return f"Hands feel {least} of play and more on this wheel end"


def read_words(found: Assessment) -> str:
    """What was read, what the card allows, and the aim: a whole sentence."""
    return f"{play_words(found)}, {limits_words(found)}."


def swap_words(found: Assessment, choice: Choice) -> str:
    """What comes out and what goes in."""
    parts = []
    if any(choice.remove):
        parts.append(f"take out {packs_words(found, choice.remove)}")
    if any(choice.add):
        parts.append(f"put in {packs_words(found, choice.add)}")
    return ", ".join(parts) or "keep the pack"


def packs_words(found: Assessment, packs: Pack) -> str:
    """Packs, each with its station."""
    stations = found.bench.progress.card.arrangement.setting_clamp.stations
    names = found.bench.names
    if len(packs) < 2:
        return pack(packs[0], names)
    said = [f"{pack(one, names)} {word}" for one, word in zip(packs, stations, strict=True) if one]
    return " and ".join(said)
