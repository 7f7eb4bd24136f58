"""What makes each kind of lock right, asked one by one: by the lock that the card names, else by the stack."""

from collections.abc import Iterator

from wheelend.procedure.asking.frame import At
from wheelend.procedure.items import asked
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest

_Answer = tuple[str, str, str]
"""An answer's key, its words, and what to do where it must not stay so."""

_ASKED: dict[str, tuple[str, str, tuple[_Answer, ...]]] = {
    "pin": (
        "pin",
        "Does the pin fill its hole, both ends bent, moved by nothing?",
        (
            ("fills", "It fills it, both ends bent", ""),
            ("thin", "It is loose in it", "A thin pin works itself through: take one that fills the hole."),
            ("used", "It was bent before", "A pin that was bent twice breaks: take a new one."),
        ),
    ),
    "ring": (
        "lock ring",
        "How did the lock ring go on?",
        (
            ("dropped", "It dropped in", ""),
            ("other_face", "Turned over, it dropped in", ""),
            ("driven", "It had to be driven", "It is never driven: try each position, then its other face."),
            ("nowhere", "It drops in nowhere", "Try its other face; else the nut goes on to the next place."),
        ),
    ),
    "screw": (
        "set screw",
        "Does the set screw stand on a flat of the nut?",
        (
            ("flat", "On a flat, tight", ""),
            ("corner", "On a corner", "On a corner it lets go: choose the hole that stands over a flat."),
            ("none", "It has none", ""),
        ),
    ),
    "stake": (
        "staked nut",
        "Is the collar staked into its groove, once, with a round punch?",
        (
            ("once", "Staked once, new nut", ""),
            ("again", "Staked before", "A collar that was staked before cracks: take a new nut."),
        ),
    ),
    "snap": (
        "snap ring",
        "Is the snap ring home, felt all round?",
        (
            ("home", "Home all round", ""),
            ("proud", "It stands proud somewhere", "It springs out: seat it, feel it all round again."),
        ),
    ),
    "clip": (
        "clip or wire",
        "Is the clip engaged, or the wire drawn in the tightening way?",
        (
            ("engaged", "Engaged, it pulls tight", ""),
            ("loose", "It can be moved", "What can be moved lets go: engage it, or turn the wire round."),
        ),
    ),
    "pinch": (
        "pinch bolts",
        "Pinch bolts last, at their torque, after the nut?",
        (
            ("last", "After the nut, at torque", ""),
            ("first", "Before the nut", "They held the axle: slacken them, torque the nut, then pinch."),
        ),
    ),
}  # fmt: skip

_WORDS = {
    "pin": ("pin", "cotter"),
    "ring": ("ring",),
    "stake": ("stake",),
    "snap": ("snap",),
    "clip": ("clip", "wire"),
    "pinch": ("pinch",),
}
_PARTS = {"pin": "pin", "lock_ring": "ring"}


def lock_items(at: At) -> tuple[Item, ...]:
    """What makes this lock right, after what the arrangement itself asks."""
    said = {key: answer_of(row) for key, row in latest(at.entries).items()}
    made = (_item(key, said.get(key, "")) for key in _keys(at))
    return (*asked.items(at), *made)


def _keys(at: At) -> Iterator[str]:
    """The kinds of lock here: those that the card's words name, else what the stack holds."""
    words = at.setting.lock.kind.lower()
    named = [key for key, marks in _WORDS.items() if any(mark in words for mark in marks)]
    if "snap" in named and "lock ring" not in words:
        named = [key for key in named if key != "ring"]
    if not named:
        kinds = [part.part for part in at.card.stack]
        named = [key for kind, key in _PARTS.items() if kind in kinds]
    yield from named


def _item(key: str, said: str) -> Item:
    words, asks, answers = _ASKED[key]
    held = next((stop for answer, _, stop in answers if answer == said), "")
    choices = tuple(Choice(answer, name) for answer, name, _ in answers)
    return Item(key, words, choices, asks, held=held, stop="not locked")


def lock_words(at: At) -> str:
    """How it was locked, as it was answered; empty where nothing was."""
    said = latest(at.entries)
    found = []
    for item in lock_items(at):
        row = said.get(item.key)
        choice = next((one for one in item.choices if row and one.key == answer_of(row)), None)
        if choice:
            found.append(f"{item.words}: {choice.words.lower()}")
    return ", ".join(found)
