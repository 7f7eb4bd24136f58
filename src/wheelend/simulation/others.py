"""Those without the product: hand arithmetic, and shim by shim."""

from collections.abc import Callable
from dataclasses import dataclass
from random import Random
from statistics import fmean

from wheelend.quantity import LENGTH, parse
from wheelend.shims import Pack, total_mm
from wheelend.shims.problem import millimetres
from wheelend.simulation.dial import DialStand
from wheelend.simulation.follower import MOST_TRIALS, Outcome
from wheelend.simulation.hand import slipped
from wheelend.simulation.truth import WheelEnd
from wheelend.verdict import Limits

Choose = Callable[["Alone", float | None], Pack | None]
"""The next pack for the play that was found, None where it binds; None where there is none."""

_SMALLEST = 0.05
_WIDE = 0.25


@dataclass
class Alone:
    """A technician with a dial and a head: reads every place, believes the mean."""

    rng: Random
    end: WheelEnd
    stand: DialStand
    limits: Limits
    places: tuple[str, ...]
    slip_at: int = -1

    def work(self, pack: Pack, choose: Choose) -> Outcome:
        """Work from a first pack until the mean is inside."""
        out = Outcome()
        while out.trials < MOST_TRIALS:
            self.end.fit(pack)
            out.trials += 1
            play = self._read()
            if play is not None and self.limits.inside(play):
                out.accepted = True
                out.wrong = not self.limits.inside(self.end.play_mm)
                return out
            found = choose(self, play)
            if found is None:
                break
            pack = found
        out.dead_end = True
        return out

    def _read(self) -> float | None:
        if self.end.play_mm < 0:
            return None
        return fmean(self._play(place) for place in self.places)

    def _play(self, place: str) -> float:
        play = max(self.end.play_mm + self.rng.gauss(0, self.end.seat_mm), 0.0)
        typed = [
            self.stand.typed(self.stand.pushed_in(place)),
            self.stand.typed(self.stand.pulled_out(place, play)),
        ]
        if 0 <= self.slip_at < len(typed):
            at = self.slip_at
            typed[at] = slipped(self.rng, typed[at], typed[1 - at])
        self.slip_at -= len(typed)
        first, second = (float(parse(one, LENGTH)) for one in typed)
        return abs(second - first)


def by_arithmetic(worker: Alone, play: float | None) -> Pack | None:
    """Play wanted minus play found: the one shim more, less or exchanged that comes nearest."""
    end, limits = worker.end, worker.limits
    aim = (limits.lowest + limits.highest) / 2
    change = end.opens * (_WIDE if play is None else aim - play)
    wanted = total_mm(end.listed) + change
    return min(_one_away(end), key=lambda pack: abs(total_mm(pack) - wanted), default=None)


def shim_by_shim(worker: Alone, play: float | None) -> Pack | None:
    """One small step the right way, and try again."""
    more = play is None or play < worker.limits.lowest
    way = worker.end.opens * (1 if more else -1)
    here = total_mm(worker.end.listed)
    packs = [p for p in _one_away(worker.end) if (total_mm(p) - here) * way > 0.01]
    wanted = here + way * _SMALLEST
    return min(packs, key=lambda pack: abs(total_mm(pack) - wanted), default=None)


def _one_away(end: WheelEnd) -> list[Pack]:
    """Every pack that is one shim more, one less, or one exchanged, on the side that has fewest."""
    side = min(range(len(end.listed)), key=lambda at: total_mm((end.listed[at],)))
    here = end.listed[side]
    loose = [millimetres(thick) for thick, shims in end.tray.loose.items() if shims]
    left = [here[:at] + here[at + 1 :] for at in range(len(here))]
    changed = [*left, *((*here, one) for one in loose)]
    changed += [(*rest, one) for rest in left for one in loose]
    return [(*end.listed[:side], one, *end.listed[side + 1 :]) for one in changed]
