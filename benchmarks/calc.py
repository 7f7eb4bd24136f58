"""How long the JSON door takes beside an empty Python: ./zesty bench calc

Each pair runs in the same minute; printed are both times and their ratio.
"""

import statistics
import subprocess
import sys
import time
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
}
ROUNDS = 15


def seconds(command: list[str], case: str = "") -> float:
    """The median time of a command."""
    times = []
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        subprocess.run(command, input=case.encode(), stdout=subprocess.DEVNULL, check=True)  # noqa: S603
        times.append(time.perf_counter() - begun)
    return statistics.median(times)


def main() -> None:
    python = "/usr/bin/python3" if Path("/usr/bin/python3").exists() else sys.executable
    bare = seconds([python, "-c", "pass"])
    print(f"python -c pass: {1000 * bare:.0f} ms")
    for name, case in CASES.items():
        took = seconds([python, str(ROOT / "zesty"), "calc", name], case)
        print(f"{name}: {1000 * took:.0f} ms, {took / bare:.1f} times")


if __name__ == "__main__":
    main()
