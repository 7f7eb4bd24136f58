"""How long the JSON door takes beside an empty Python: ./zesty bench calc

Each round runs them all, one after the other; printed are the medians and their ratio.
"""

import os
import resource
import statistics
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
CASES = {
    "feel": '{"radius": "330 mm", "spread": "60 mm", "contact_angle": "14 deg"}',
    "verdict": '{"readings": ["0.1 mm"], "limits": {"low": "0.05 mm"}, "resolution": "0.01 mm"}',
    "bolt-sequence": '{"bolts": 5, "torque": "110 N·m", "stages": [0.5, 1]}',
    "shim-plan": '{"effect": "opens", "sides": 1, "aim": "middle", "resolution": "0.01 mm", '
    '"trials": [{"pack": ["0.5 mm"], "result": {"play": "0.03 mm"}}], '
    '"tray": [{"thickness": "0.1 mm", "count": 3}], "limits": {"low": "0.08 mm", "high": "0.18 mm"}}',
    "procedure": '{"arrangement": "shimmed_pair"}',
    "diagnose": '{"arrangement": "shimmed_pair", "evidence": []}',
}
ROUNDS = 40
AS_USUAL = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
"""Python keeps the bytecode of what it loaded, where nobody told it not to."""


def seconds(command: list[str], case: str = "") -> float:
    """The time that a command takes of a processor."""
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    given = case.encode()
    subprocess.run(command, input=given, stdout=subprocess.DEVNULL, check=True, env=AS_USUAL)  # noqa: S603
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime


def main() -> None:
    python = "/usr/bin/python3" if Path("/usr/bin/python3").exists() else sys.executable
    commands = {"python -c pass": ([python, "-c", "pass"], "")}
    for name, case in CASES.items():
        commands[name] = ([python, str(ROOT / "zesty"), "calc", name], case)
    times: dict[str, list[float]] = {name: [] for name in commands}
    for _ in range(ROUNDS):
        for name, (command, case) in commands.items():
            times[name].append(seconds(command, case))
    bare = statistics.median(times["python -c pass"])
    for name, found in times.items():
        took = statistics.median(found)
        print(f"{name}: {1000 * took:.0f} ms, {took / bare:.1f} times")


if __name__ == "__main__":
    main()
