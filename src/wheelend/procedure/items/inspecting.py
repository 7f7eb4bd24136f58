"""Each part by what it looks like; the decision by its rule; and what a damage changes in this job."""

from wheelend.arrangements import PART_KINDS
from wheelend.arrangements.vocabulary import PAIRS
from wheelend.card import Card, Part
from wheelend.damage import Damage, damages, of_group
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest

SOUND = "sound"
_GROUPS = {
    "cone": "bearing", "ball_bearing": "bearing", "cartridge": "bearing", "hub": "hub", "housing": "hub",
    "knuckle": "hub", "spindle": "journal", "shaft": "journal", "collar": "journal", "sleeve": "journal",
    "wear_sleeve": "journal", "key": "key", "seal": "seal", "cassette_seal": "seal",
}  # fmt: skip
ALWAYS_NEW = frozenset({"seal", "cassette_seal", "pin", "gasket", "o_ring"})
"""What locks or seals is new every time, whatever the card says: our choice among the schools."""
_NOT_JUDGED = frozenset({"cup", "shim", "gasket", "pin", "bolt", "o_ring"})
_BESIDE = (
    ("studs", "wheel studs", "stud"),
    ("grease", "the grease or oil that was in it", "grease"),
)


def judged_items(at: At) -> tuple[Item, ...]:
    """One item a part, then studs and grease. Cup and cone are one decision; one-time parts are new
    whatever they look like, and looked at for what they tell."""
    found = [
        _item(f"p{index}", part)
        for index, part in enumerate(at.card.stack)
        if part.part not in _NOT_JUDGED and part.part in _GROUPS
    ]
    beside = _BESIDE if at.axle != "deck" else _BESIDE[1:]
    return (*found, *(Item(key, words, _choices(group)) for key, words, group in beside))


def _item(key: str, part: Part) -> Item:
    pair = PAIRS.get(part.part)
    words = f"{part.name} and its {pair}" if pair else part.name
    always = is_always_new(part)
    why = "New every time; read it all the same." if always else ""
    sound = "new, all the same" if always else "keep"
    asks = f"Look at the {words}. Which is it most like?"
    return Item(key, words, _choices(_GROUPS[part.part], sound), asks, why, f"stack.{key[1:]}")


def is_always_new(part: Part) -> bool:
    """Whether a part is renewed whatever it looks like."""
    return part.one_time or part.part in ALWAYS_NEW


def _choices(group: str, kept: str = "keep") -> tuple[Choice, ...]:
    sound = Choice(SOUND, "Sound", picture=f"{group}_sound", hint=kept)
    return (
        sound,
        *(Choice(one.key, one.name, picture=one.key, hint=one.decision) for one in of_group(group)),
    )


def found_damages(at: At) -> tuple[Damage, ...]:
    """The damages that were found, each once, in the order in which they were found."""
    known = {one.key: one for one in damages()}
    said = [answer_of(row) for row in latest(at.others("judged")).values()]
    return tuple(known[key] for key in dict.fromkeys(said) if key in known)


def changes(one: Damage, card: Card) -> bool:
    """Whether a damage changes something here: an aim is moved only in a window that is set to."""
    moves_aim = one.effect.startswith("aim:")
    return bool(one.change) and (card.setting.limits is not None or not moves_aim)


def change_items(at: At) -> tuple[Item, ...]:
    """What each damage changes here: accepted, or declined with a reason."""
    choices = (Choice("accepted", "Accept the change"), Choice("declined", "Decline it", "reason"))
    return tuple(
        Item(
            one.key,
            one.name,
            choices,
            f"{one.cause} Change here: {one.change}",
            f"Look at: {one.also}",
        )
        for one in found_damages(at)
        if changes(one, at.card)
    )


def decision_of(at: At, key: str) -> str:
    """Keep, new or repair, by what was found; empty where it was not looked at."""
    part = (
        at.card.stack[int(key[1:])]
        if key[1:].isdigit() and int(key[1:]) < len(at.card.stack)
        else None
    )
    if part is not None and is_always_new(part):
        return "new"
    rows = latest(at.others("judged"))
    if key not in rows:
        return ""
    known = {one.key: one for one in damages()}
    found = known.get(answer_of(rows[key]))
    return found.decision if found else "keep"


def new_keys(at: At) -> frozenset[str]:
    """The parts that are renewed: what is new every time, and what was found past use with its pair."""
    fresh = set()
    for index, part in enumerate(at.card.stack):
        key = f"p{index}"
        if decision_of(at, key) == "new" or is_always_new(part):
            fresh.add(key)
            pair = (PAIRS.get(part.part), part.seat)
            fresh |= {
                f"p{i}" for i, one in enumerate(at.card.stack) if (one.part, one.seat) == pair
            }
    return frozenset(fresh)


def _cups_of(at: At, seat: str) -> set[str]:
    return {
        f"p{index}"
        for index, one in enumerate(at.card.stack)
        if (one.part, one.seat) == ("cup", seat)
    }


def new_parts(at: At) -> tuple[tuple[str, str], ...]:
    """Key and name of every part that is renewed."""
    fresh = new_keys(at)
    named = [
        (f"p{i}", part.name or PART_KINDS[part.part].name) for i, part in enumerate(at.card.stack)
    ]
    return tuple((key, name) for key, name in named if key in fresh)
