"""What was written at the bench, as the core sees it: rows that are added, never changed."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from datetime import date
from functools import cached_property
from typing import Any

from wheelend.shims import Pack
from wheelend.verdict import Gauge
from wheelend.wrench import Wrench

ENTRY_KINDS = (
    "done", "text", "value", "pick", "pack", "in", "out", "bound", "no_play", "felt", "bolt", "moved", "few",
    "found", "noted", "photo",
    "skip", "aside", "again", "choice", "touched", "card", "withdrawn",
)  # fmt: skip
"""What a row says. `aside` sets a series aside, `again` begins one anew, `withdrawn` takes back."""

MARKS = frozenset({"aside", "again"})
NEEDS_REASON = frozenset({"withdrawn", "skip", "aside", "again", "choice", "touched", "card"})
"""An exception is written with its reason."""

PLAIN_KINDS = frozenset({"in", "out"})
FINDINGS = frozenset({"bound", "no_play", "felt"})


@dataclass(frozen=True)
class Instrument:
    """An instrument as it was when something was read with it; the facts were frozen then."""

    name: str
    facts: Mapping[str, Any] = field(default_factory=dict)

    @cached_property
    def gauge(self) -> Gauge:
        """The same as a dial. Without a certificate it counts as one step off, k = 2."""
        step = float(self.facts.get("resolution_mm", 0.01))
        certificate = self.facts.get("calibration_mm")
        return Gauge(step, step if certificate is None else float(certificate))

    @property
    def has_papers(self) -> bool:
        """Whether a dial came with a certificate."""
        return self.facts.get("calibration_mm") is not None

    @property
    def meter(self) -> Gauge:
        """The same as a torque meter or a scale, in N·m or N. Without a certificate it counts as one step off;
        past its check as off by twice as much."""
        step = float(self.facts.get("step", self.facts.get("resolution_mm", 0.01)))
        doubt = float(self.facts.get("doubt", step))
        return Gauge(step, 2 * doubt if self.wrench.calibration_due else doubt)

    @property
    def wrench(self) -> Wrench:
        """The same as a torque wrench, on the day on which it was used."""
        facts = self.facts
        calibrated, used = facts.get("calibrated_on"), facts.get("used_on")
        return Wrench(
            low_N_m=facts.get("low_N_m"),
            high_N_m=facts.get("high_N_m"),
            accuracy=float(facts.get("accuracy", 0.04)),
            multiplier=float(facts.get("multiplier", 1)),
            lengthened=bool(facts.get("lengthened")),
            calibrated_on=date.fromisoformat(calibrated) if calibrated and used else None,
            today=date.fromisoformat(used) if calibrated and used else None,
            cycles=int(facts.get("cycles", 0)),
        )


@dataclass(frozen=True)
class Written:
    """One row of the log. `typed` is what was typed, `value` the number that it means.

    `closing` counts the openings of its clamp that came before it; `round` the repeats in it. A
    second person's check has in `saw` the digest of what it was made on. `elsewhere` says that it
    came in with a document: nobody here vouches for it. `at_s` is when it was written, in seconds of the
    server's clock.
    """

    id: int
    step: str
    kind: str
    clamp: str = ""
    closing: int = 0
    station: str = ""
    place: str = ""
    round: int = 1
    typed: str = ""
    value: float | None = None
    reason: str = ""
    corrects: int | None = None
    by: int | None = None
    by_name: str = ""
    pack: Pack = ()
    names: Mapping[float, str] = field(default_factory=dict)
    instrument: Instrument | None = None
    saw: str = ""
    elsewhere: bool = False
    at_s: float = 0.0


def standing(entries: Iterable[Written]) -> tuple[Written, ...]:
    """The rows that count: those that nothing corrected, and that were not taken back.

    A correction says what was read, not when: it keeps the time of the row that it began with.
    """
    every = tuple(entries)
    corrected = {entry.corrects for entry in every}
    times: dict[int, float] = {}
    for entry in every:
        times[entry.id] = times.get(entry.corrects or 0, entry.at_s)
    return tuple(
        entry if entry.corrects is None else replace(entry, at_s=times[entry.id])
        for entry in every
        if entry.id not in corrected and entry.kind != "withdrawn"
    )


def aspect_of(kind: str) -> str:
    """Which row of a place it is: a place may have one of each, and one root of each.

    In and out are two readings of one place; a mark, a skip and the answer itself stand beside.
    """
    if kind in ("in", "out", "skip"):
        return kind
    return "mark" if kind in MARKS else "answer"


ASPECTS = ("in", "out", "skip", "mark", "answer")
