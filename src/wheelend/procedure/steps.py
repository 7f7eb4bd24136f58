"""The steps of a job: those of its arrangement that card, choices, facts and vehicle call for."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import TYPE_CHECKING

from wheelend.arrangements import Arrangement, Step
from wheelend.arrangements.vocabulary import FACTS, VERDICTS
from wheelend.choices import CHOICES, check_choice
from wheelend.errors import BadInput, echo

if TYPE_CHECKING:  # The JSON door tells steps without a card, and a card takes long to declare.
    from wheelend.card import Card


def steps_of(
    family: Arrangement,
    *,
    choices: Mapping[str, str] | None = None,
    facts: Mapping[str, str] | None = None,
    found: Mapping[str, str] | None = None,
    traits: Iterable[str] | None = None,
    card: "Card | None" = None,
    added: Iterable[str] = (),
    purpose: str = "service",
) -> tuple[Step, ...]:
    """The steps in the order of work.

    `traits` are the vehicle's; None where it is not known, and then nothing is left out for it. The
    same holds for the card. `purpose` is the job's. `found` are facts that were found at the bench: they
    overrule `facts`, but no step falls away by its own answer. `added` are the changes that were accepted.
    Raises BadInput for an unknown choice or fact.
    """
    said = dict(choices or {}) | dict(facts or {})
    for key, value in (choices or {}).items():
        check_choice(key, value, f"choices.{key}")
    for key, value in {**(facts or {}), **(found or {})}.items():
        _check_fact(key, value)
    verdict = said.get("verdict", VERDICTS[0])
    through = {one.key for one in family.stages if verdict in one.verdicts}
    kept = [
        step
        for step in family.steps
        if _belongs(step, purpose)
        and step.stage in through
        and (not step.added_by or step.added_by in added)
        and _fits(step, traits, card)
        and _applies(step, said, found or {})
    ]
    names = {step.id for step in kept}
    return tuple(
        step if all(before in names for before in step.after) else _waiting_for(step, names, family)
        for step in kept
    )


_EVERY_JOB = frozenset({"take_in", "close"})
"""Stages that belong to every job, whatever it is for."""


def _belongs(step: Step, purpose: str) -> bool:
    """Whether a step is asked in a job of this purpose: a recheck reads, compares and signs."""
    if purpose == "recheck" and step.purpose != purpose:
        return step.stage in _EVERY_JOB
    return step.purpose == purpose


def _found_before(step: Step, found: Mapping[str, str]) -> dict[str, str]:
    own = {item.fact for item in step.items}
    return {key: value for key, value in found.items() if key not in own}


def _check_fact(key: str, value: str) -> None:
    if key not in FACTS:
        raise BadInput(f"facts.{key}", "", f"is no fact; known: {', '.join(FACTS)}")
    if value not in FACTS[key]:
        raise BadInput(f"facts.{key}", echo(value), f"is not one of {', '.join(FACTS[key])}")


def _fits(step: Step, traits: Iterable[str] | None, card: "Card | None") -> bool:
    """Whether vehicle and card have what a step is about."""
    if traits is not None and not _has(step.trait, traits):
        return False
    return not step.needs or card is None or card.has(step.needs)


def _applies(step: Step, said: Mapping[str, str], found: Mapping[str, str]) -> bool:
    if not step.when:
        return True
    known = {**said, **_found_before(step, found)}
    return all(_said(known, name, words[0]) in words for name, words in step.when.items())


def _said(said: Mapping[str, str], name: str, otherwise: str) -> str:
    """What holds of a choice or fact; of a fact that nobody knows, nothing is left out."""
    return said.get(name, CHOICES[name].usual if name in CHOICES else otherwise)


def _has(trait: str, traits: Iterable[str]) -> bool:
    wanted = trait.removeprefix("not ")
    return not trait or (wanted in traits) is (wanted == trait)


def _waiting_for(step: Step, there: set[str], family: Arrangement) -> Step:
    """The step, waiting for what the steps that fell away waited for."""
    after: list[str] = []
    todo = list(step.after)
    while todo:
        before = todo.pop(0)
        if before in there:
            after.append(before)
        else:
            todo = [*family.by_id[before].after, *todo]
    return replace(step, after=tuple(dict.fromkeys(after)))
