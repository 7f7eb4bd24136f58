"""Whatever is typed or sent, how long it takes and how large a web server grows: ./zesty bench bounds.

The promise: an answer within 2 s, and a web server under 300 MB (sheets as PDF are exempt).
"""

import json
import shutil
import sys
import tempfile
import time
import uuid
from collections.abc import Callable
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from bs4 import BeautifulSoup
from tests.launch.conftest import Installation, Visitor

SIGNED, AXLE = "1", "5"
"""Jobs of the demo: one that was signed, one on a through-axle."""

MOST_S, MOST_MB = 2.0, 300


def multipart(name: str, raw: bytes, token: str) -> tuple[bytes, str]:
    """A form with one file."""
    edge = uuid.uuid4().hex
    parts = [
        f'--{edge}\r\nContent-Disposition: form-data; name="csrfmiddlewaretoken"\r\n\r\n{token}\r\n',
        f'--{edge}\r\nContent-Disposition: form-data; name="file"; filename="{name}"\r\n\r\n',
    ]
    body = parts[0].encode() + parts[1].encode() + raw + f"\r\n--{edge}--\r\n".encode()
    return body, f"multipart/form-data; boundary={edge}"


def upload(visitor: Visitor, path: str, raw: bytes) -> tuple[int, float]:
    """Send a file: the status, and how long the answer took; the page that follows is another request."""
    visitor.get(path)
    body, kind = multipart("it.json", raw, visitor.token())
    begun = time.monotonic()
    status = visitor.send(path, body, kind)
    return status, time.monotonic() - begun


def slipped(visitor: Visitor, job: str) -> tuple[int, float]:
    """A trial on a through-axle with packs of 10 mm and a play of 5 mm, a decimal slipped twice."""
    path = f"/jobs/{job}/1/set/"
    visitor.get(path)
    status, longest = 0, 0.0
    for _ in range(60):
        form = BeautifulSoup(visitor.page, "html.parser").select_one("form.ask-form")
        if form is None:
            break
        said = {str(one["name"]): str(one.get("value") or "") for one in form.select("input[name]")}
        said |= {"sure": "on", "token": str(uuid.uuid4())}
        said.pop("csrfmiddlewaretoken")
        step = said["step"]
        if step == "fit_pack":
            said["pack"] = "10, 0.10003, 0.05001"
        elif "value" in said:
            said["value"] = {"in": "0", "out": "5 mm"}.get(said.get("push", ""), "61 N·m")
        elif step == "open":
            said["answer"] = "change"
        begun = time.monotonic()
        status, _page = visitor.post_raw(f"{path}write", **said)
        longest = max(longest, time.monotonic() - begun)
        if step == "read" and said["push"] == "out" and said["place"] == "right":
            break
        if status != 200:
            break
    return status, longest


def exported(visitor: Visitor, job: str) -> dict[str, Any]:
    """A job of the demo as a document of another vehicle."""
    said: dict[str, Any] = json.loads(visitor.get(f"/jobs/{job}/job.json"))
    said["vehicle"]["name"] = f"from elsewhere {uuid.uuid4().hex[:8]}"
    return said


def many_entries(visitor: Visitor, job: str) -> bytes:
    """A job with as many entries as a document may have: one place corrected again and again."""
    said = exported(visitor, job)
    at = next(n for n, one in enumerate(said["entries"]) if one["kind"] == "value")
    last = at
    for number in range(5000 - len(said["entries"])):
        more = {**said["entries"][at], "corrects": last, "reason": f"again {number}"}
        last = len(said["entries"])
        said["entries"].append(more)
    return json.dumps(said).encode()


def tray(count: int) -> bytes:
    """A tray of many thicknesses."""
    shims = [{"nominal": f"{0.01 + number / 1000:.3f} mm", "count": 3} for number in range(count)]
    said = {"format": "zesty-spindle/tray/2", "shims": shims, "instruments": []}
    return json.dumps(said).encode()


def main() -> None:
    """Every attempt on a product of its own."""
    var = Path(tempfile.mkdtemp(prefix="zesty-", dir="/tmp"))
    var.chmod(0o755)
    made = Installation(var)
    worst = 0.0
    try:
        made.start()
        visitor = Visitor(made.port)
        visitor.post("/demo/owner")
        csv = b"nominal,measured,count\n"
        attempts: dict[str, Callable[[], int | tuple[int, float]]] = {
            "5,000 entries in a job": lambda: upload(
                visitor, "/import", many_entries(visitor, SIGNED)
            ),
            "380 thicknesses more": lambda: upload(visitor, "/import", tray(380)),
            "150,000 shims in a document": lambda: upload(visitor, "/import", tray(60_000)),
            "5 MB of [],[],": lambda: upload(
                visitor, "/import", b"[" + b"[]," * 1_600_000 + b"[]]"
            ),
            "5 MB of numbers": lambda: upload(visitor, "/import", b"[" + b"1," * 2_400_000 + b"1]"),
            "5 MB of one text": lambda: upload(visitor, "/import", b'"' + b"x" * 4_900_000 + b'"'),
            "a deep document": lambda: upload(visitor, "/import", b"[" * 2_000_000),
            "5 MB of empty lines": lambda: upload(visitor, "/tray/import", csv + b"\n" * 4_900_000),
            "5,000 lines of CSV": lambda: upload(visitor, "/tray/import", csv + b"0.1,,1\n" * 5000),
            "the tray's page with 390": lambda: visitor.status("/tray/"),
            "the yard": lambda: visitor.status("/"),
            "a set page, planned from 390": lambda: visitor.status(f"/jobs/{AXLE}/1/set/"),
            "a slipped pack": lambda: slipped(visitor, AXLE),
            "the set page after it": lambda: visitor.status(f"/jobs/{AXLE}/1/set/"),
            "search for 60 letters": lambda: visitor.status("/?find=" + "x" * 60),
        }
        for name, act in attempts.items():
            begun = time.monotonic()
            answer = act()
            took = time.monotonic() - begun
            status, took = answer if isinstance(answer, tuple) else (answer, took)
            worst = max(worst, took)
            print(f"{name}: {status}, {took:.2f} s, {largest(made)} MB", flush=True)
        imported = made.ask("SELECT coalesce(max(id), 0) FROM bench_job WHERE imported")
        for stage in ("take_in", "set", "close"):
            begun = time.monotonic()
            status = visitor.status(f"/jobs/{imported}/1/{stage}/")
            worst = max(worst, time.monotonic() - begun)
            print(
                f"5,000 entries, {stage}: {status}, {time.monotonic() - begun:.2f} s, {largest(made)} MB"
            )
        size = largest(made)
    finally:
        made.say("stop")
        made.let_go()
        shutil.rmtree(var, ignore_errors=True)
    print(f"worst {worst:.2f} s of {MOST_S:g}; largest web server {size} of {MOST_MB} MB")


def largest(made: Installation) -> int:
    """How large the largest web server ever was, in MB."""
    peaks = []
    for pid in made.web_servers:
        text = Path(f"/proc/{pid}/status").read_text()
        peaks.append(int(text.partition("VmHWM:")[2].split()[0]) // 1024)
    return max(peaks)


if __name__ == "__main__":
    main()
