"""Writes readings as fast as they are acknowledged while what the product runs is killed, in turn.

./zesty bench endurance [ROUNDS]; 50 rounds take some ten minutes. Nothing acknowledged may be lost, no
page may break; how soon it answers again is what is measured.
"""

import os
import re
import shutil
import signal
import statistics
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from http.client import HTTPException
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.launch.conftest import Installation, Visitor, family

ROUNDS = 50
WRITES_BETWEEN_S = 2.0
UNDER_WAY_S = 0.3
PATIENCE_S = 90
ENTRY = re.compile(r"panel=correct&(?:amp;)?entry=(\d+)[^>]*>[^<]*°")
PAGES = [f"/jobs/{job}/1/{stage}/" for job in (2, 3, 5, 6) for stage in ("set", "lock", "close")]


class Writer(threading.Thread):
    """Corrects one place again and again, each time with a number of its own."""

    def __init__(self, made: Installation) -> None:
        super().__init__(daemon=True)
        self.made = made
        self.acknowledged: list[str] = []
        self.last_at = time.monotonic()
        self.over = False

    def run(self) -> None:
        number = 0
        while not self.over:
            try:
                visitor = Visitor(self.made.port)
                visitor.post("/demo/tech")
                visitor.get("/jobs/6/1/lock/")
                while not self.over:
                    number += 1
                    self._write(visitor, f"{number / 10_000:.4f}")
            except (OSError, HTTPException, AssertionError):
                time.sleep(0.05)

    def _write(self, visitor: Visitor, value: str) -> None:
        entry = max(map(int, ENTRY.findall(visitor.page)), default=None)
        if entry:
            path = f"/jobs/6/1/lock/entries/{entry}/correct"
            visitor.post(path, value=f"{value} deg", reason="endurance", token=token())
        else:
            visitor.writes(value)
        assert value.rstrip("0") in visitor.page
        self.acknowledged.append(value)
        self.last_at = time.monotonic()


def token() -> str:
    """A token for one form."""
    return f"{int.from_bytes(os.urandom(16)):032x}"


def a_web_server(made: Installation) -> None:
    os.kill(made.web_servers[0], signal.SIGKILL)


def every_web_server(made: Installation) -> None:
    for pid in made.web_servers:
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)


def postgresql(made: Installation) -> None:
    os.kill(made.postmaster, signal.SIGKILL)


def a_backend(made: Installation) -> None:
    with suppress(ProcessLookupError):
        os.kill(family(made.postmaster)[-1], signal.SIGKILL)


def everything(made: Installation) -> None:
    """The launcher too: only a person starts it again."""
    made.kill_everything()
    made.start()


DEATHS: tuple[Callable[[Installation], None], ...] = (
    a_web_server, every_web_server, postgresql, a_backend, everything,
)  # fmt: skip


def again(writer: Writer, begun: float) -> float:
    """Seconds from a death until a reading is acknowledged again."""
    now = time.monotonic()
    while writer.last_at <= now:
        if time.monotonic() - now > PATIENCE_S:
            raise SystemExit(f"Nothing was acknowledged for {PATIENCE_S} s.")
        time.sleep(0.02)
    return writer.last_at - begun


def broken(made: Installation) -> int:
    """How many pages do not open."""
    visitor = Visitor(made.port)
    visitor.post("/demo/tech")
    return sum("be judged as it stands" in visitor.get(path) for path in PAGES)


def main(rounds: int) -> None:
    """Start a product of its own, kill it round by round, and look at what is left."""
    var = Path(tempfile.mkdtemp(prefix="zesty-", dir="/tmp"))
    var.chmod(0o755)
    made = Installation(var)
    times: dict[str, list[float]] = {}
    faults = 0
    try:
        made.start()
        writer = Writer(made)
        writer.start()
        for number in range(rounds):
            time.sleep(WRITES_BETWEEN_S)
            death = DEATHS[number % len(DEATHS)]
            begun = time.monotonic()
            death(made)
            if death is everything:
                begun = time.monotonic()
            # What was on its way when it died may still be acknowledged: that is no recovery.
            time.sleep(UNDER_WAY_S)
            times.setdefault(death.__name__, []).append(again(writer, begun))
            faults += broken(made)
        writer.over = True
        writer.join()
        kept = made.ask("SELECT string_agg(typed, ' ') FROM bench_entry WHERE step = 'place'")
        lost = [one for one in writer.acknowledged if f"{one} deg" not in kept]
    finally:
        made.say("stop")
        made.let_go()
        shutil.rmtree(var, ignore_errors=True)
    every = [one for some in times.values() for one in some]
    print(
        f"{rounds} rounds: {len(writer.acknowledged)} acknowledged, {len(lost)} lost, {faults} broken pages"
    )
    print(
        f"answered again after {statistics.median(every):.2f} s (median), {max(every):.2f} s (worst)"
    )
    for name, some in times.items():
        print(
            f"  {name.replace('_', ' ')}: {statistics.median(some):.2f} s, worst {max(some):.2f} s"
        )
    if lost or faults:
        raise SystemExit(1)


if __name__ == "__main__":
    main(int(sys.argv[1]) if sys.argv[1:] else ROUNDS)
