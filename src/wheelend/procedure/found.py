"""What was found at the bench decides what is asked: the verdict of Check, the changes that were accepted."""

from collections.abc import Iterable

from wheelend.arrangements.vocabulary import VERDICTS
from wheelend.card import Card
from wheelend.damage import Damage, damages
from wheelend.procedure.items.frame import answer_of
from wheelend.procedure.items.inspecting import changes
from wheelend.procedure.log import Written


def verdict_of(card: Card, standing: Iterable[Written]) -> str:
    """What Check ended in, by the rows that stand; until it is written, it comes apart."""
    ids = {step.id for step in card.arrangement.steps if step.kind == "verdict"}
    said = [row.typed for row in standing if row.step in ids and row.kind == "pick"]
    return said[-1] if said else VERDICTS[0]


def accepted(card: Card, standing: Iterable[Written]) -> tuple[Damage, ...]:
    """The damages whose change was accepted for this job."""
    ids = {step.id for step in card.arrangement.steps if step.kind == "killed_by"}
    rows = [row for row in standing if row.step in ids and row.kind == "noted"]
    said = {row.place: answer_of(row) for row in rows}
    return tuple(one for one in damages() if said.get(one.key) == "accepted" and changes(one, card))


def changed_choices(card: Card, standing: Iterable[Written]) -> dict[str, str]:
    """What accepted changes choose otherwise than the card."""
    pairs = [one.effect.split(":", 1) for one in accepted(card, standing) if one.effect]
    return {name: value for name, value in pairs if name != "step"}


def added(card: Card, standing: Iterable[Written]) -> tuple[str, ...]:
    """The steps that accepted changes add."""
    effects = [one.effect for one in accepted(card, standing)]
    return tuple(one.removeprefix("step:") for one in effects if one.startswith("step:"))
