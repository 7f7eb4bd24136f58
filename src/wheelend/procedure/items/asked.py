"""What a step asks item by item as its arrangement says: an answer may stop the work, or be a fact."""

from collections.abc import Iterable, Mapping

from wheelend.arrangements.model import Answer, Asked
from wheelend.card import Card
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest
from wheelend.procedure.log import Written


def items(at: At) -> tuple[Item, ...]:
    """The items that this stack, this vehicle and these facts call for."""
    said = {key: answer_of(row) for key, row in latest(at.entries).items()}
    found = {one.fact: said[one.key] for one in at.step.items if one.fact and one.key in said}
    facts = {**at.card.facts, **found}
    return tuple(
        _item(one, said.get(one.key, ""))
        for one in at.step.items
        if _applies(one, at.card, facts) and _on(one, at.axle)
    )


def _applies(one: Asked, card: Card, facts: Mapping[str, str]) -> bool:
    there = not one.parts or any(part.part in one.parts for part in card.stack)
    return there and all(facts.get(name, words[0]) in words for name, words in one.when.items())


def _on(one: Asked, axle: str) -> bool:
    return not one.trait or (one.trait == "deck") is (axle == "deck")


def _item(one: Asked, said: str) -> Item:
    stops = next((answer.stops for answer in one.answers if answer.key == said), "")
    choices = tuple(map(_choice, one.answers))
    return Item(one.key, one.words, choices, one.asks, one.why, held=stops, stop="not yet")


def _choice(one: Answer) -> Choice:
    return Choice(one.key, one.words, one.wants, hint=one.hint, label=one.label)


def facts_found(card: Card, standing: Iterable[Written]) -> Mapping[str, str]:
    """The facts that were found at the bench; they overrule the card's."""
    facts = {
        (step.id, item.key): item.fact
        for step in card.arrangement.steps
        for item in step.items
        if item.fact
    }
    return {
        facts[row.step, row.place]: answer_of(row)
        for row in standing
        if row.kind == "noted" and (row.step, row.place) in facts
    }
