"""What a diagnosis is asked: the evidence, and what kind of wheel end it is of."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from wheelend.arrangements.vocabulary import ARRANGEMENTS
from wheelend.diagnose.table import UNKNOWN, Cause, Check, Table, table
from wheelend.errors import BadInput, echo

AXLES = ("plain", "steered", "driven", "steered_driven", "deck")


@dataclass(frozen=True)
class Answer:
    """What one check found; "unknown" counts as if nothing was written."""

    check: str
    answer: str


@dataclass(frozen=True)
class Case:
    """Evidence, oldest first, at one wheel end. Raises BadInput with the field for what is not known.

    `arrangement` and `axle` leave causes out; what is not named leaves nothing out. `leave_out` are
    checks that can't be done here.
    """

    evidence: tuple[Answer, ...] = ()
    arrangement: str | None = None
    axle: str | None = None
    leave_out: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        known = {check.id: check for check in table().checks}
        for index, one in enumerate(self.evidence):
            _check_answer(one, known, f"evidence[{index}]")
        for index, key in enumerate(self.leave_out):
            if key not in known:
                raise BadInput(
                    f"leave_out[{index}]", echo(key), f"is no check; give {', '.join(known)}"
                )
        if self.arrangement is not None and self.arrangement not in ARRANGEMENTS:
            need = f"is no arrangement; give {', '.join(ARRANGEMENTS)}"
            raise BadInput("arrangement", echo(self.arrangement), need)
        if self.axle is not None and self.axle not in AXLES:
            raise BadInput("axle", echo(self.axle), f"is no axle; give {', '.join(AXLES)}")
        self._check_deck()

    def _check_deck(self) -> None:
        decks = table().rules["decks"]
        if self.axle is None or self.arrangement is None:
            return
        if self.axle == "deck" and self.arrangement not in decks["arrangements"]:
            need = f"has no {self.arrangement}; give {' or '.join(decks['arrangements'])}"
            raise BadInput("axle", '"deck"', need)
        if self.axle != "deck" and self.arrangement in decks["always"]:
            raise BadInput("axle", echo(self.axle), f"has no {self.arrangement}; give deck")

    @property
    def on_deck(self) -> bool:
        """Whether it stands in a mower's deck."""
        return self.axle == "deck" or self.arrangement in table().rules["decks"]["always"]

    @property
    def answers(self) -> Mapping[str, str]:
        """The answers that count: the later of two, and none that is not known."""
        said = {one.check: one.answer for one in self.evidence if one.answer != UNKNOWN}
        return {check.id: said[check.id] for check in table().checks if check.id in said}

    @property
    def causes(self) -> tuple[Cause, ...]:
        """The causes that are not left out, in their order."""
        out = set(self._left_out())
        return tuple(cause for cause in table().causes if cause.id not in out)

    def _left_out(self) -> Iterator[str]:
        rules = table().rules
        yield from rules["arrangements"].get(self.arrangement, ())
        yield from rules["axles"].get("deck" if self.on_deck else self.axle, ())
        other = self.arrangement and self.arrangement not in rules["decks"]["arrangements"]
        if other or (self.axle and self.axle != "deck"):
            yield rules["decks"]["only"]

    def takes(self, check: Check) -> bool:
        """Whether a check can be done at a wheel end like this one at all."""
        rules = table().rules
        if check.id in self.leave_out:
            return False
        if check.id in rules["checks"].get(self.arrangement, ()):
            return False
        if self.on_deck and check.id in rules["checks"]["deck"]:
            return False
        decks = rules["decks"]
        there = {cause.id for cause in self.causes}
        return check.id != decks["look"] or decks["only"] in there


def waits(check: Check, answers: Mapping[str, str], rules: Table) -> bool:
    """Whether a check waits for another one's answer."""
    after: Mapping[str, str] = rules.rules["waits"].get(check.id, {})
    loud = any(answers.get(key, quiet) != quiet for key, quiet in after.items())
    return bool(after) and not loud


def contradicted(answers: Mapping[str, str], rules: Table) -> tuple[tuple[str, ...], ...]:
    """The sets of checks whose answers exclude each other."""
    found = []
    for one in rules.rules["contradictions"]:
        said = [(answers.get(key), allowed) for key, allowed in one.items()]
        if all(answer and (allowed == ["*"] or answer in allowed) for answer, allowed in said):
            found.append(tuple(one))
    return tuple(found)


def no_road_test(answers: Mapping[str, str], rules: Table) -> bool:
    """Whether something was found with which nobody drives or runs it."""
    bad: Mapping[str, list[str]] = rules.rules["no_road_test"]
    return any(answers.get(key) in answered for key, answered in bad.items())


def _check_answer(one: Answer, known: Mapping[str, Check], path: str) -> None:
    if one.check not in known:
        raise BadInput(f"{path}.check", echo(one.check), f"is no check; give {', '.join(known)}")
    answers = (*known[one.check].answers, UNKNOWN)
    if one.answer not in answers:
        need = f"does not answer {one.check}; give {', '.join(answers)}"
        raise BadInput(f"{path}.answer", echo(one.answer), need)
