"""The log of a virtual job: rows as a person at the bench writes them, and what the product makes of them."""

from dataclasses import dataclass, field, replace
from typing import Any

from wheelend.card import Card
from wheelend.methods.judgement import Bench, Dial
from wheelend.methods.shims import Assessment, claims
from wheelend.methods.shims.trials import repeatability_of
from wheelend.procedure import slips
from wheelend.procedure.asking.readings import Series
from wheelend.procedure.log import Instrument, Written
from wheelend.procedure.progress import Progress
from wheelend.procedure.steps import steps_of
from wheelend.quantity import LENGTH, parse
from wheelend.shims import Pack, TrayShim
from wheelend.verdict import SEATING_AGAIN_MM

_TOOL = {"accuracy": 0.04, "low_N_m": 20.0, "high_N_m": 200.0}
WRENCH = Instrument("wrench A", _TOOL)
OTHER_WRENCH = Instrument("wrench B", _TOOL)


@dataclass
class Book:
    """A unit's log, written step by step without looking whether it is due: the follower knows."""

    card: Card
    dial: Instrument
    dials: tuple[Dial, ...] = ()
    log: list[Written] = field(default_factory=list)
    closing: int = 0
    round: int = 1

    def __post_init__(self) -> None:
        family = self.card.arrangement
        self.steps = steps_of(family, card=self.card, traits=())
        self.clamp = family.setting_clamp
        self._ids: dict[tuple[str, str], str] = {
            (step.kind, step.phase): step.id for step in self.steps
        }

    def _write(self, kind: str, step: str, **more: Any) -> Written:
        said: dict[str, Any] = {"clamp": self.clamp.key, "closing": self.closing, "by": 1} | more
        row = Written(len(self.log) + 1, step, kind, **said)
        self.log.append(row)
        return row

    def _id(self, kind: str, phase: str) -> str:
        return self._ids.get((kind, phase)) or self._ids.get((kind, "")) or ""

    def close(self, pack: Pack, *, final: bool = False, wrench: Instrument = WRENCH) -> None:
        """Fit a pack and torque it."""
        phase = "final" if final else "trial"
        self.round = 1
        for station, side in zip(self.clamp.stations, pack, strict=True):
            self._write("pack", self._id("pack", phase), station=station, pack=(side,))
        if step := self._id("torque", phase):
            station = self.clamp.stations[0] if len(self.clamp.stations) == 1 else ""
            self._write(
                "value", step, station=station, typed="61 N·m", value=61.0, instrument=wrench
            )
        if final and (step := self._id("lock_torque", "final")):
            self._write("value", step, station=self.clamp.stations[0], typed="75 N·m", value=75.0,
                        instrument=wrench)  # fmt: skip

    def open(self, *, last: bool = False) -> None:
        """Open it."""
        self._write("pick", self._id("opening", "trial"), typed="last" if last else "change")
        self.closing += 1

    def set_dial(self, dial: Instrument) -> None:
        """Take another dial: it begins another series."""
        self.dial = dial
        self._write("pick", self._id("dial", ""), typed="spindle_axis", instrument=dial)
        if any(row.closing == self.closing and row.kind == "out" for row in self.log):
            self.round += 1

    def read(self, push: str, place: str, typed: str, *, locked: bool = False) -> None:
        """One reading."""
        step = self._reading_step(locked=locked)
        value = float(parse(typed, LENGTH))
        self._write(
            push,
            step,
            place=place,
            round=self.round,
            typed=typed,
            value=value,
            instrument=self.dial,
        )

    def bound(self) -> None:
        """It binds."""
        self._write(
            "bound", self._reading_step(locked=False), round=self.round, instrument=self.dial
        )

    def once_more(self, place: str, *, locked: bool = False) -> None:
        """A place is read again because of what was read before."""
        step = self._reading_step(locked=locked)
        self._write("again", step, place=place, round=self.round, reason="asked for")

    def set_aside(self, found: Assessment, number: int) -> None:
        """Set a trial aside."""
        series = found.trial(number).series
        self._write(
            "aside", series.step, closing=series.closing, round=series.round, reason="said so"
        )
        if series.closing == self.closing and series.round == self.round:
            self.round += 1

    def _reading_step(self, *, locked: bool) -> str:
        return self._id("locked_reading", "final") if locked else self._id("reading", "trial")

    def bench(self, tray: tuple[TrayShim, ...]) -> Bench:
        """What the product judges."""
        progress = Progress(self.card, self.steps, tuple(self.log))
        return Bench(progress, tray, find_dials=lambda: self.dials)

    def assess(self, tray: tuple[TrayShim, ...]) -> Assessment:
        """What the product makes of it."""
        return Assessment(self.bench(tray))

    def question(
        self, found: Assessment | None, push: str, place: str, typed: str
    ) -> slips.Question | None:
        """What the product asks before a reading is written."""
        now = found.now.series if found and found.now else None
        if now is None or now.closing != self.closing or now.round != self.round:
            known = repeatability_of(self.card) or SEATING_AGAIN_MM
            now = Series(
                self.closing,
                self.round,
                {},
                None,
                None,
                self.card.places,
                (),
                repeatability_mm=known,
            )
        expected = found.expected if found else None
        return slips.of_reading(typed, now, place, push, self.card.setting, self.dial, expected)

    def proven(self, found: Assessment) -> bool:
        """Whether end play and adding up would both be signed as proven."""
        said = {claim.key: claim for claim in claims(found)}
        return said["end_play"].proven and said["adds_up"].proven


def instrument(step_mm: float, *, on_face: bool = False, papers: bool = True) -> Instrument:
    """A dial as the log freezes it, with a certificate of 0.4 of its step."""
    facts = {
        "kind": "dial",
        "resolution_mm": step_mm,
        "dial_at": "hub_face" if on_face else "spindle_axis",
    }
    return Instrument(
        f"dial {step_mm:g} mm", facts | ({"calibration_mm": 0.4 * step_mm} if papers else {})
    )


def with_places(card: Card, places: tuple[str, ...]) -> Card:
    """The card, read at other places."""
    return replace(card, read_at=places)
