"""Parts with a limited life: how far each has run, on whatever it was fitted, and what is due."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput

EventKind = Literal["fitted", "off", "checked"]


@dataclass(frozen=True)
class Event:
    """What happened to a part, and the counter of the vehicle that it was on then."""

    kind: EventKind
    counter: float


@dataclass(frozen=True)
class Life:
    """How far a part has run in all, and since its last crack check; in the unit of its limit.

    `left` and `check_left` are below 0 where a limit is passed, None where there is none.
    """

    used: float
    since_check: float
    left: float | None
    check_left: float | None
    is_fitted: bool

    @property
    def is_past(self) -> bool:
        """Whether its life is over: it is not fitted again."""
        return self.left is not None and self.left <= 0

    @property
    def check_is_due(self) -> bool:
        """Whether it must be looked at for cracks before it runs on."""
        return self.check_left is not None and self.check_left <= 0


def life(
    events: Sequence[Event],
    *,
    limit: float | None = None,
    check_every: float | None = None,
    counter: float | None = None,
) -> Life:
    """How far a part has run: what lies between each fitting and its removal, summed over all vehicles.

    `events` oldest first, `counter` the present one of the vehicle that it is on. Raises BadInput where
    a part is fitted twice, taken off where it is not on, or a counter runs backwards. Source: arithmetic.

    >>> life([Event("fitted", 10), Event("off", 22), Event("fitted", 300)], limit=40, counter=318).used
    30.0
    """
    used = at_check = 0.0
    since: float | None = None
    for index, event in enumerate(events):
        if event.kind == "fitted" and since is not None:
            raise BadInput(f"events[{index}]", "fitted", "is on already; take it off first")
        if event.kind == "off" and since is None:
            raise BadInput(f"events[{index}]", "off", "is not on anything")
        if since is not None:
            used += _run(since, event.counter, f"events[{index}].counter")
            since = event.counter
        if event.kind == "fitted":
            since = event.counter
        elif event.kind == "off":
            since = None
        else:
            at_check = used
    if since is not None and counter is not None:
        used += _run(since, counter, "counter")
    since_check = used - at_check
    return Life(
        used=used,
        since_check=since_check,
        left=None if limit is None else limit - used,
        check_left=None if check_every is None else check_every - since_check,
        is_fitted=since is not None,
    )


def _run(start: float, end: float, path: str) -> float:
    if end < start:
        raise BadInput(path, f"{end:g}", f"is less than the {start:g} at which it began")
    return float(end - start)
