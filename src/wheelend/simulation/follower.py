"""Someone who does literally what the product says next, and how far that gets them."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from random import Random

from wheelend.card import Card
from wheelend.methods.shims.acting import Act, next_act
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.causes import Cause
from wheelend.procedure.asking.apart import base_of
from wheelend.shims import Pack
from wheelend.simulation.book import OTHER_WRENCH, WRENCH, Book
from wheelend.simulation.dial import DialStand
from wheelend.simulation.hand import slipped
from wheelend.simulation.truth import WheelEnd
from wheelend.verdict import Limits

MOST_TRIALS, MOST_ACTS = 10, 40
"""Who is not done by then has been led round in a circle."""

_ALARMS = frozenset({"ends", "set_aside", "clean", "measure", "read_anew", "mistyped", "no_shims"})


@dataclass
class Outcome:
    """How a job went. `wrong` and `proven_wrong`: accepted, or signed as proven, outside the limits.

    `alarms` counts what was stopped or asked about, `named` is the first cause that was named for a
    fault, `second` the next one. `least` is what someone who knows the truth of each trial needs.
    `told_gauge` or `told_parts`: it ended with the one thing to get.
    """

    accepted: bool = False
    wrong: bool = False
    proven: bool = False
    proven_wrong: bool = False
    trials: int = 0
    least: int = 0
    acts: int = 0
    alarms: int = 0
    named: str = ""
    second: str = ""
    told_gauge: bool = False
    told_parts: bool = False
    dead_end: bool = False
    said: list[str] = field(default_factory=list)


@dataclass
class Follower:
    """A technician who does what the next act says. `stands` are the dials at hand, by step."""

    rng: Random
    end: WheelEnd
    card: Card
    book: Book
    stand: DialStand
    stands: dict[str, DialStand]
    slip_at: int = -1
    on_face: bool = False
    out: Outcome = field(default_factory=Outcome)
    found: Assessment | None = None
    read_so_far: int = 0

    @property
    def limits(self) -> Limits:
        """What the card allows."""
        window = self.card.setting.limits
        assert window is not None  # noqa: S101  every card of the simulation has limits
        return window.limits

    def work(self, pack: Pack) -> Outcome:
        """Work from a first pack to an end."""
        self.trial(pack)
        while self.out.acts < MOST_ACTS and self.out.trials <= MOST_TRIALS:
            act = next_act(self._found())
            self.out.acts += 1
            self.out.said.append(act.kind)
            self._notice(act)
            if not self._do(act):
                return self.out
        self.out.dead_end = True
        return self.out

    def _found(self) -> Assessment:
        assert self.found is not None  # noqa: S101  set by the first trial
        return self.found

    def trial(self, pack: Pack) -> None:
        """Fit, torque, read."""
        listed = self.end.fit(pack)
        self.out.trials += 1
        fault = self.end.fault
        low = fault.kind == "torque" and fault.trial == self.end.trial and fault.other_wrench
        self.book.close(listed, wrench=OTHER_WRENCH if low else WRENCH)
        if self.out.trials == 1:
            self.book.set_dial(self.book.dial)
        self.found = self.book.assess(self.end.tray.listed)
        self.series()

    def series(self, *, locked: bool = False) -> None:
        """Read what is asked for, until nothing more is."""
        if self.end.play_mm < 0:
            self.book.bound()
            self.found = self.book.assess(self.end.tray.listed)
            return
        for place in self.card.places:
            self.read_place(place, locked=locked)
        while True:
            self.found = self.book.assess(self.end.tray.listed)
            now = self.found.now
            asked = now.series.next_place if now else None
            if asked is None:
                self._name(self.found.place_causes)
                return
            self.out.alarms += len(self.card.places) > 1
            self.read_place(asked[0], locked=locked)

    def read_place(self, place: str, *, locked: bool = False) -> None:
        """Push in and pull out at a place, and write both down; a question is answered by looking."""
        where = base_of(place)
        play = max(self.end.play_mm + self.rng.gauss(0, self.end.seat_mm), 0.0)
        pushed_in = self.stand.pushed_in(where)
        turned = self._mishap(where)
        shown = [pushed_in, self.stand.pulled_out(where, play, turned)]
        typed = [self.stand.typed(one) for one in shown]
        for which, push in enumerate(("in", "out")):
            self.read_so_far += 1
            written = typed[which]
            if self.read_so_far - 1 == self.slip_at:
                written = slipped(self.rng, typed[which], typed[1 - which])
            asked = self.book.question(self.found, push, place, written)
            if asked:
                self._asked(asked.options, written, typed[which])
                written = typed[which]
            self.book.read(push, place, written, locked=locked)
            self.found = self.book.assess(self.end.tray.listed) if which else self.found

    def _mishap(self, place: str) -> float:
        """Between push and pull at one place: the stand slips, or the hub is turned by so many deg."""
        fault = self.end.fault
        here = place == self.card.places[-1] and fault.trial == self.end.trial and not fault.over
        if not here or fault.kind not in ("moved", "runout"):
            return 0.0
        fault.over = True
        if fault.kind == "runout":
            return self.rng.choice((-1, 1)) * self.rng.uniform(60, 180)
        self.stand = replace(self.stand, moved_mm=fault.sign * fault.size_mm)
        return 0.0

    def _asked(self, options: tuple[str, ...], written: str, truth: str) -> None:
        """A question before it was written: it names a slip; false where there was none."""
        if written == truth:
            self.out.alarms += 1
        elif not self.out.named:
            self.out.named = "slip"
            self.out.second = "" if truth in options else "slip"

    def _name(self, causes: tuple[Cause, ...]) -> None:
        if causes and not self.out.named:
            self.out.named = causes[0].key
            self.out.second = causes[1].key if len(causes) > 1 else ""

    def _notice(self, act: Act) -> None:
        found = self._found()
        if act.kind in _ALARMS or (act.kind == "read_again" and found.disagreement()):
            self.out.alarms += 1
        if act.cause and act.kind in ("set_aside", "clean", "measure", "read_anew"):
            self._name(found.causes())

    def _do(self, act: Act) -> bool:
        """Do it; False where the job has come to its end."""
        return _DEEDS[act.kind](self, act)

    def accept(self, _: Act) -> bool:
        """It is set: close it for the last time, and read it locked."""
        self.out.accepted = True
        self.out.wrong = not self.limits.inside(self.end.play_mm)
        return self._lock()

    def _lock(self) -> bool:
        pack = self.end.listed
        self.book.open(last=True)
        self.end.fit(pack)
        self.book.close(pack, final=True)
        self.series(locked=True)
        self.out.proven = self.book.proven(self._found())
        self.out.proven_wrong = self.out.proven and not self.limits.inside(self.end.play_mm)
        return False

    def swap(self, act: Act) -> bool:
        """Another pack."""
        choice = act.choice
        assert choice is not None  # noqa: S101  the act carries the pack
        self.book.open()
        self.trial(choice.pack)
        return True

    def read_again(self, act: Act) -> bool:
        """One place once more; for the sake of earlier trials it is seated again first."""
        if self._found().disagreement():
            self.end.fault.seat_again(self.rng)
            self.book.once_more(act.place)
        else:
            self.book.once_more(act.place)
        self.read_place(act.place)
        self.found = self.book.assess(self.end.tray.listed)
        return True

    def read_anew(self, act: Act) -> bool:
        """Set the series aside, seat again, read every place."""
        number = act.trial or self._found().last.number  # type: ignore[union-attr]
        self.book.set_aside(self._found(), number)
        self.end.fault.seat_again(self.rng)
        self.series()
        return True

    def set_aside(self, act: Act) -> bool:
        """An earlier trial does not count; where causes were looked for, the true one is found."""
        if act.cause and self._resolve():
            return True
        self.book.set_aside(self._found(), act.trial)
        self.found = self.book.assess(self.end.tray.listed)
        return True

    def inspect(self, _: Act) -> bool:
        """Open it, look for causes one after the other, refit the same pack."""
        if not self._resolve():
            self._reopen()
        return True

    def _resolve(self) -> bool:
        """Check the causes in their order until one is found; what it takes to be rid of it."""
        found, fault = self._found(), self.end.fault
        apart = found.disagreement()
        if apart is None or fault.kind == "none":
            return False
        now = self.end.trial == fault.trial
        if not now:
            self.book.set_aside(found, apart.earlier)
            self.found = self.book.assess(self.end.tray.listed)
            return True
        if fault.kind in ("miscounted", "mixed_units"):
            self.end.measured()
        self.book.set_aside(found, apart.later)
        self._reopen()
        return True

    def _reopen(self) -> None:
        self.end.fault.over = True
        self.book.open()
        self.trial(self.end.really_in)

    def finer(self, act: Act) -> bool:
        """Another dial where the shop has it; else it is told which to get."""
        if act.dial is None or act.dial.name not in self.stands:
            self.out.told_gauge = True
            return False
        self.stand = self.stands[act.dial.name]
        tool = replace(self.book.dial, name=act.dial.name, facts={
            **self.book.dial.facts, "resolution_mm": act.dial.gauge.resolution,
            "calibration_mm": act.dial.gauge.calibration,
        })  # fmt: skip
        self.book.set_dial(tool)
        self.series()
        return True

    def buy(self, act: Act) -> bool:
        """Get one shim of the size, and enter it in the tray."""
        self.end.tray.put(round(act.sizes[0], 4))
        self.found = self.book.assess(self.end.tray.listed)
        return True

    def give_up(self, _: Act) -> bool:
        """The parts do not make the setting."""
        self.out.told_parts = True
        return False


_DEEDS: dict[str, Callable[[Follower, Act], bool]] = {
    "go_on": Follower.accept, "swap": Follower.swap, "open": Follower.swap,
    "read_again": Follower.read_again, "read_anew": Follower.read_anew, "ends": Follower.read_anew,
    "try_again": Follower.read_anew,
    "set_aside": Follower.set_aside, "clean": Follower.inspect, "measure": Follower.inspect,
    "finer_dial": Follower.finer, "buy": Follower.buy, "no_shims": Follower.give_up,
    "measure_shims": Follower.give_up, "mistyped": Follower.give_up,
}  # fmt: skip
