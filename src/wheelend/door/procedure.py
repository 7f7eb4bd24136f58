"""The `procedure` case."""

from wheelend.arrangements import KEYS, Step, arrangement
from wheelend.arrangements.vocabulary import FACTS
from wheelend.choices import CHOICES
from wheelend.procedure.steps import steps_of
from wheelend.readers import Json, Record, Text, Word

_CASE = Record(
    {"arrangement": Text(f"one of {', '.join(KEYS)}")},
    {
        "choices": Record({}, {key: Text("an answer") for key in CHOICES}),
        "facts": Record({}, {key: Word(words) for key, words in FACTS.items()}),
    },
)


def calculate(value: object) -> Json:
    """Read a procedure case and answer it."""
    case = _CASE.read(value, "")
    family = arrangement(case["arrangement"])
    steps = steps_of(family, choices=case.get("choices"), facts=case.get("facts"))
    return {"stages": [one.key for one in family.stages], "steps": [_said(step) for step in steps]}


def _said(step: Step) -> Json:
    said: Json = {
        "id": step.id,
        "kind": step.kind,
        "stage": step.stage,
        "per": step.per,
        "asks": step.asks,
        "after": list(step.after),
        "opens": step.opens,
        "closes": step.closes,
        "skippable": step.skippable,
        "cautions": list(step.cautions),
    }
    for name in ("clamp", "why", "catches"):
        if getattr(step, name):
            said[name] = getattr(step, name)
    for name in ("undoes", "captive"):
        if getattr(step, name):
            said[name] = list(getattr(step, name))
    return said


def schema() -> Json:
    """The JSON schema of a procedure case."""
    return _CASE.schema()
