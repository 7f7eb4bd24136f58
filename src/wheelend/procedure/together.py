"""Several wheel ends in one job: what is next over all of them, and what is better done at once."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from wheelend.procedure.progress import Progress, Row

_AT_ONCE = {
    "warmed": "Warm {names} now too: each takes its time, and the next is ready when this one is in.",
    "cleaned": "Clean {names} now too: the washer is dirty once.",
    "packed": "Pack {names} now too: the gloves are greasy once.",
}
_ALL_FIRST = frozenset({"on_ground", "made_free", "run"})
"""What is done for the vehicle as a whole: every wheel end must be so far."""


@dataclass(frozen=True)
class Beside:
    """Another wheel end of the job: where it stands, and what is due there."""

    name: str
    progress: Progress

    @property
    def due(self) -> Row | None:
        """What is due there."""
        return self.progress.due

    def still_has(self, kind: str) -> bool:
        """Whether a kind of step is still to be done there."""
        return any(not row.settled for row in self.progress.of_kind(kind))


def advice(due: Row | None, others: Sequence[Beside]) -> str:
    """What to do about the others while a step is due here; empty where nothing is better done now.

    What is for the vehicle as a whole waits for them; what takes its time is begun for all.
    """
    if due is None:
        return ""
    kind = due.step.kind
    if kind in _ALL_FIRST:
        behind = [
            one
            for one in others
            if one.due and one.due.step.kind not in (*_ALL_FIRST, "second", "sign")
        ]
        if behind:
            first = behind[0]
            says = first.due.step.says.lower() if first.due else ""
            return f"First {first.name}: {says}. All of them are so far before it stands on its wheels."
        return ""
    waiting = [one.name for one in others if kind in _AT_ONCE and one.still_has(kind)]
    return _AT_ONCE[kind].format(names=_and(waiting)) if waiting else ""


def next_over_all(units: Mapping[int, Progress]) -> int:
    """Which unit to go on with: the one that is least far, the first of those that are alike."""

    def far(progress: Progress) -> int:
        stages = [one.key for one in progress.card.arrangement.stages]
        return stages.index(progress.current_stage)

    return min(units, key=lambda index: (units[index].due is None, far(units[index]), index))


def _and(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
