"""What is asked while a bearing is packed: what was in there, and how it went in."""

from wheelend.arrangements.vocabulary import THICKENERS
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items import asked
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest, plain
from wheelend.procedure.items.laying_out import captive_items
from wheelend.thickeners import CAUTION, meeting

_OLD = "old"
_CLEAN = Choice("clean", "All of it is out")
_UNKNOWN = Choice("unknown", "Nobody knows")


def items(at: At) -> tuple[Item, ...]:
    """What is in there against what goes in, where the card says what goes in; then how it was packed."""
    old = (_old(at),) if at.card.lubricant.thickener else ()
    return (*captive_items(at), *old, *asked.items(at))


def _old(at: At) -> Item:
    new = at.card.lubricant.thickener
    said = latest(at.entries)
    answer = answer_of(said[_OLD]) if _OLD in said else ""
    choices = (_CLEAN, *(_choice(one, new) for one in THICKENERS), _UNKNOWN)
    return Item(
        _OLD,
        "what was in there",
        choices,
        f"What was in there? {plain(new).capitalize()} goes in.",
        CAUTION,
        held=_held(answer, new),
        stop="must not meet",
    )


def _choice(old: str, new: str) -> Choice:
    return Choice(old, plain(old).capitalize(), hint=meeting(old, new).word)


def _held(old: str, new: str) -> str:
    if old not in THICKENERS:
        return ""
    found = meeting(old, new)
    if found.word != "no":
        return ""
    return f"{plain(old).capitalize()} and {plain(new)}: {found.why} Clean all of it out, then answer again."
