"""A unit that tests work through step by step, as a person at the bench would: no database."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

from wheelend.card import Card, card_from
from wheelend.methods import (
    Bench,
    Claim,
    Judgement,
    Statement,
    claims_of,
    judge,
    line_at,
    statement_of,
)
from wheelend.procedure.asking import Slot, band
from wheelend.procedure.items import items_of
from wheelend.procedure.log import Instrument, Written
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Progress, Row, progress_of
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE, Dimension, parse
from wheelend.shims import TrayShim

WRENCH = Instrument("half-inch wrench", {"accuracy": 0.04, "low_N_m": 40, "high_N_m": 210})
DIAL = Instrument(
    "dial 0.01 mm", {"resolution_mm": 0.01, "calibration_mm": 0.004, "dial_at": "spindle_axis"}
)
FINE = Instrument(
    "dial 0.002 mm", {"resolution_mm": 0.002, "calibration_mm": 0.002, "dial_at": "spindle_axis"}
)
METER = Instrument("torque meter", {"kind": "torque_meter", "step": 0.01, "doubt": 0.02})
SCALE = Instrument("spring scale", {"kind": "scale", "step": 0.5, "doubt": 0.5})

TRAY = (TrayShim(0.05, 2), TrayShim(0.1, 3), TrayShim(0.2, 2), TrayShim(0.0762, 1))


def setting(**more: Any) -> dict[str, Any]:
    """What a card says of a shimmed pair on a spindle."""
    return {
        "method": "shims", "clamp": "main", "limits": {"low": "0.05 mm", "high": "0.15 mm"},
        "effect": "opens", "torque": "61 N·m", "torque_limits": {"low": "58 N·m", "high": "90 N·m"},
        "torque_per_deg": "1.1 N·m/deg", "source": "sheet",
        "lock": {"kind": "pin", "pitch": "1.5 mm", "slots": 6, "openings": 2}, **more,
    }  # fmt: skip


def document(**more: Any) -> dict[str, Any]:
    """A card document of a shimmed pair, everything on it."""
    return {
        "format": "zesty-spindle/card/2", "name": "hub", "arrangement": "shimmed_pair",
        "sources": [{"key": "sheet", "kind": "hub_maker", "ref": "Sheet 1 (invented)"}],
        "stack": [
            {"part": "cone", "name": "inner cone", "seat": "inner", "width": "19 mm", "bore": "35 mm"},
            {"part": "shim", "name": "shims"},
            {"part": "cone", "name": "outer cone", "seat": "outer", "width": "15 mm", "bore": "25 mm"},
        ],
        "settings": [setting()], "bolt_rings": [{"ring": "wheel", "bolts": 5, "torque": "110 N·m"}],
        "read_at": ["12", "6"], **more,
    }  # fmt: skip


def axle_document(**more: Any) -> dict[str, Any]:
    """A card document of a through-axle pair."""
    return document(
        arrangement="through_axle",
        settings=[
            setting(clamp="pair", torque_limits={"low": "58 N·m"}, lock={}),
            setting(
                clamp="hub", method="fixed_torque", torque="90 N·m",
                torque_limits={"low": "88 N·m", "high": "140 N·m"},
            ),
        ],
        bolt_rings=[
            {"ring": "plate", "bolts": 4, "torque": "45 N·m"},
            {"ring": "wheel", "bolts": 4, "torque": "80 N·m"},
        ],
        **more,
    )  # fmt: skip


@dataclass
class Worked:
    """A unit and its log; every method writes at the step that is due, or at one that is named."""

    card: Card = field(default_factory=lambda: card_from(document()))
    tray: tuple[TrayShim, ...] = TRAY
    log: list[Written] = field(default_factory=list)
    by: int = 1
    dial: Instrument | None = DIAL
    wrench: Instrument | None = WRENCH
    axle: str = ""
    _stood: tuple[Any, Progress] | None = field(default=None, init=False, repr=False)

    @property
    def progress(self) -> Progress:
        """Where it stands; reckoned anew only where the log is another."""
        asked = (id(self.card), tuple(map(id, self.log)))
        if self._stood is None or self._stood[0] != asked:
            self._stood = asked, self._progress()
        return self._stood[1]

    def _progress(self) -> Progress:
        return progress_of(self.card, self.log, traits=(), axle=self.axle)

    @property
    def bench(self) -> Bench:
        """What the method judges."""
        return Bench(self.progress, self.tray)

    @property
    def judgement(self) -> Judgement:
        """What the method makes of it."""
        return judge(self.bench)

    @property
    def claims(self) -> dict[str, Claim]:
        """The claims by key."""
        return {claim.key: claim for claim in claims_of(self.bench, self.judgement)}

    @property
    def statement(self) -> Statement:
        """What could be signed."""
        return statement_of(self.bench, tuple(claims_of(self.bench, self.judgement)))

    @property
    def line(self) -> NextLine:
        """The next line at the step that is due."""
        due = self.progress.due
        assert due is not None
        return line_at(self.bench, self.judgement, due)

    def due(self, step: str = "") -> Row:
        """The row that is due, or the first open one of a step."""
        rows = self.progress.rows
        if not step:
            assert self.progress.due is not None
            return self.progress.due
        mine = [row for row in rows if row.step.id == step]
        return next((row for row in mine if not row.settled), mine[0])

    def write(self, kind: str = "done", /, *, step: str = "", **more: Any) -> Written:
        """One row at the due step."""
        row = self.due(step)
        ends = kind == "done" and row.step.entry != "turns"
        slot = Slot(round=row.at.gone + 1) if ends else row.slot
        said = {
            "clamp": row.at.clamp, "closing": row.at.closing, "station": row.station,
            "place": slot.place, "round": slot.round, "by": self.by, "by_name": f"person {self.by}",
        } | more  # fmt: skip
        entry = Written(len(self.log) + 1, row.step.id, kind, **said)
        self.log.append(entry)
        return entry

    def value(self, typed: str, dimension: Dimension, **more: Any) -> Written:
        """A quantity at the due step."""
        tool = self.wrench if dimension is TORQUE else None
        more.setdefault("instrument", tool)
        return self.write("value", typed=typed, value=float(parse(typed, dimension)), **more)

    def torque(self, typed: str = "61 N·m", **more: Any) -> Written:
        """A torque."""
        return self.value(typed, TORQUE, **more)

    def angle(self, typed: str, **more: Any) -> Written:
        """An angle."""
        return self.value(typed, ANGLE, **more)

    def pack(self, *shims: float, **more: Any) -> Written:
        """A pack at the due station."""
        return self.write("pack", pack=(tuple(shims),), typed=repr(shims), **more)

    def read(self, *values: str, **more: Any) -> None:
        """Dial readings, in the order in which they fall due."""
        for typed in values:
            push = self.due(more.get("step", "")).slot.push
            self.write(
                push, typed=typed, value=float(parse(typed, LENGTH)), instrument=self.dial, **more
            )

    def tick_until(self, step: str) -> None:
        """Answer every simple step up to one."""
        for _ in range(400):
            if self.due().step.id == step:
                return
            self.tick_one(step)
        raise AssertionError(f"no way on from {self.due().step.id} to {step}")

    def tick_one(self, towards: str = "") -> None:
        """The plain answer of the step that is due, on the way to another."""
        due = self.due().step
        if due.kind == "verdict":
            self.write("pick", typed=self._way_to(towards))
        elif due.entry == "pick":
            self.write("pick", typed=due.options[0].key)
        elif due.entry in ("text", "usage"):
            self.write("text" if due.entry == "text" else "value", typed="100 km", value=100.0)
        elif due.entry == "bolts":
            self.write("bolt")
        elif due.kind in ("lock", "made_free", "fasteners", "fastened"):
            self.lock_it()
        elif due.entry in MIDDLING:
            MIDDLING[due.entry](self)
        elif due.kind == "turned_back":
            self.angle("20 deg")
        else:
            self.write()

    def _torque_it(self) -> None:
        wanted = self.due().at.setting.torque
        self.torque(wanted.text if wanted else "50 N·m")

    def _set_up(self) -> None:
        self.write("pick", typed="spindle_axis" if self.dial else "hands", instrument=self.dial)

    def _read_middle(self) -> None:
        """The play in the middle of the card's window, on the dial's step."""
        if self.dial is None:
            self.write("no_play", place="")
            return
        window = self.card.setting.limits
        middle = (window.limits.lowest + window.limits.highest) / 2 if window else 0.1
        step = self.dial.gauge.resolution
        self.read(f"{round(middle / step) * step if self.due().slot.push == 'out' else 0:.3f} mm")

    def _swing_middle(self) -> None:
        limits, wanted = band.limits_of(self.due().at)
        middle = (limits.lowest + limits.highest) / 2 if limits else 1.0
        off = 0.9 if self.due().slot.place == "low" else 1.1
        self.value(
            f"{middle * off:.2f} {'N' if wanted is FORCE else 'N·m'}", wanted, instrument=None
        )

    def _stand_middle(self) -> None:
        window = self.due().at.setting.stand_out
        middle = (window.limits.lowest + window.limits.highest) / 2 if window else 0.1
        self.value(f"{middle:.2f} mm", LENGTH)

    def _turn(self) -> None:
        done = len(self.due().at.entries)
        if done < 4:
            self.write("pick", typed="one" if done % 2 else "other")
        else:
            self.write()

    def _open_last(self) -> None:
        keys = [option.key for option in self.due().step.options]
        self.write("pick", typed="last" if "last" in keys else keys[0])

    def _way_to(self, step: str) -> str:
        """The verdict with the shortest way to a step: what is sound is not taken apart for it."""
        family = self.card.arrangement
        stages = {one.key: one for one in family.stages}
        wanted = next((stages[one.stage] for one in family.steps if one.id == step), None)
        offered = {option.key for option in self.due().step.options}
        through = wanted is not None and "setting" in wanted.verdicts and "setting" in offered
        return "setting" if through else "strip"

    def trial(self, pack: tuple[float, ...], *values: str, torque: str = "61 N·m") -> None:
        """One whole trial: fitted, torqued, read."""
        self.tick_until("fit_pack")
        self.pack(*pack)
        self.torque(torque)
        if self.due().step.id == "dial":
            self.write("pick", typed="spindle_axis", instrument=self.dial)
        self.read(*values)

    def open(self, why: str) -> None:
        """Open the hub: `change` or `last`."""
        self.write("pick", step="open", typed=why)

    def finish(self, pack: tuple[float, ...], *values: str, at_place: str = "83 N·m") -> None:
        """Everything after the last trial, up to the signature."""
        self.open("last")
        self.finish_from_open(pack, *values, at_place=at_place)

    def finish_from_open(
        self, pack: tuple[float, ...], *values: str, at_place: str = "83 N·m", upto: str = "sign"
    ) -> None:
        """Everything after the last opening: pack, seal, refit, torque, lock, read again."""
        self.tick_until("refit")
        self.pack(*pack)
        self.torque("61 N·m")
        self.angle("14 deg")
        self.angle("1 deg")
        if self.due().step.id == "place":
            self.angle("20 deg")
        self.torque(at_place)
        self.lock_it()
        self.read(*values)
        self.tick_until(upto)

    def lock_it(self) -> None:
        """Every item of a list, the lock's for one, by its first answer."""
        step = self.due().step.id
        for item in items_of(self.due().at):
            self.write("noted", place=item.key, typed=item.choices[0].key)
        if self.due().step.id == step:
            self.write()

    def take_back(self, entry: Written, reason: str = "misread") -> None:
        """Take a row back."""
        self.log.append(
            replace(entry, id=len(self.log) + 1, kind="withdrawn", corrects=entry.id, reason=reason)
        )

    def correct(
        self, entry: Written, typed: str, dimension: Dimension = LENGTH, **more: Any
    ) -> None:
        """Put another quantity in a row's place."""
        value = float(parse(typed, dimension))
        said = {"typed": typed, "value": value, "corrects": entry.id, **more}
        self.log.append(replace(entry, id=len(self.log) + 1, **said))


MIDDLING: dict[str, Callable[[Worked], None]] = {
    "torque": Worked._torque_it, "dial": Worked._set_up, "series": Worked._read_middle,
    "band": Worked._swing_middle, "stand_out": Worked._stand_middle, "turns": Worked._turn,
    "opening": Worked._open_last,
    "seat": lambda work: work.angle("1 deg") and None, "place": lambda work: work.angle("1 deg") and None,
}  # fmt: skip
"""How a step is answered on the way to another: by the middle of what the card allows."""


def proven() -> Worked:
    """A whole job that is proven."""
    done = Worked()
    done.trial((0.5, 0.15), "0 mm", "0.18 mm", "0 mm", "0.18 mm")
    done.open("change")
    done.trial((0.5, 0.0762), "0 mm", "0.11 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.0762), "0 mm", "0.10 mm", "0 mm", "0.11 mm")
    return done
