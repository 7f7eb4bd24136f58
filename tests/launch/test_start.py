"""The launcher on a data folder of its own: start, start again, kill -9 of everything, stop."""

import os
import re
import shutil
import signal
import socket
import subprocess
import tempfile
import urllib.parse
import urllib.request
import uuid
from collections.abc import Iterator
from http.cookiejar import CookieJar
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Installation:
    """One data folder, and the launcher run on it."""

    def __init__(self, var: Path) -> None:
        self.var, self.port = var, free_port()
        self.env = {**os.environ, "ZESTY_VAR": str(var)}
        for name in ("DATABASE_URL", "ZESTY_SECRET_KEY"):
            self.env.pop(name, None)
        self.running: list[subprocess.Popen[str]] = []

    def say(self, *words: str) -> subprocess.CompletedProcess[str]:
        """Run a command to its end."""
        return subprocess.run(
            [str(ROOT / "zesty"), *words], env=self.env, capture_output=True, text=True, timeout=120,
            check=False,
        )  # fmt: skip

    def start(self) -> str:
        """Start it and return what it said up to its address."""
        started = subprocess.Popen(
            [str(ROOT / "zesty"), "start", "--port", str(self.port)],
            env=self.env, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
        )  # fmt: skip
        self.running.append(started)
        assert started.stdout
        said = ""
        for line in started.stdout:
            said += line
            if " is at http" in line:
                return said
        raise AssertionError(said)

    def kill_everything(self) -> None:
        """kill -9: launcher, web server, PostgreSQL and every child of theirs."""
        launcher = int((self.var / "start.running").read_text().split()[0])
        postmaster = int(next(self.var.glob("**/postmaster.pid")).read_text().split()[0])
        for pid in (*family(launcher), *family(postmaster)):
            os.kill(pid, signal.SIGKILL)
        self.running[-1].wait()


def family(pid: int) -> list[int]:
    """A process and all that came from it."""
    children = Path(f"/proc/{pid}/task/{pid}/children").read_text().split()
    return [pid, *(one for child in children for one in family(int(child)))]


class Visitor:
    """A browser without pictures."""

    def __init__(self, port: int) -> None:
        self.base = f"http://127.0.0.1:{port}"
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.page = self.get("/sign-in")

    def get(self, path: str) -> str:
        """A page's text."""
        self.page = self.opener.open(self.base + path, timeout=30).read().decode()
        return self.page

    def post(self, path: str, **data: str) -> str:
        """Send a form from the page that is open."""
        found = TOKEN.search(self.page)
        assert found
        body = urllib.parse.urlencode({**data, "csrfmiddlewaretoken": found[1]}).encode()
        self.page = self.opener.open(self.base + path, body, timeout=30).read().decode()
        return self.page


@pytest.fixture
def installation() -> Iterator[Installation]:
    var = Path(tempfile.mkdtemp(prefix="zesty-", dir="/tmp"))
    var.chmod(0o755)
    made = Installation(var)
    yield made
    made.say("stop")
    for process in made.running:
        process.kill()
        process.wait()
        if process.stdout:
            process.stdout.close()
    shutil.rmtree(var, ignore_errors=True)


def test_an_acknowledged_reading_survives_kill_9_of_everything(installation: Installation) -> None:
    assert "Demo sign-ins" in installation.start()
    again = installation.say("start", "--port", str(installation.port))
    assert (again.returncode, "already runs" in again.stdout) == (0, True)

    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    visitor.get("/jobs/6/1/lock/")
    visitor.post(
        "/jobs/6/1/lock/write", step="place", station="main", value="20.5", token=str(uuid.uuid4())
    )
    assert "20.5" in visitor.page
    installation.kill_everything()

    installation.start()
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    assert "20.5" in visitor.get("/jobs/6/1/lock/")
    assert "then enter the torque there" in visitor.page

    # The launcher alone is killed: its web server goes with it, and the next start just works.
    installation.running[-1].kill()
    installation.running[-1].wait()
    installation.start()
    assert "20.5" in visitor.get("/jobs/6/1/lock/")
    stopped = installation.say("stop")
    assert (stopped.returncode, stopped.stdout.strip()) == (0, "Stopped.")
    assert installation.say("stop").stdout.strip() == "Zesty Spindle does not run."
    with socket.socket() as probe:
        assert probe.connect_ex(("127.0.0.1", installation.port)) != 0


def test_a_taken_port_is_one_clear_line(installation: Installation) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", installation.port))
        taken.listen()
        said = installation.say("start", "--port", str(installation.port))
    assert said.returncode == 1
    assert said.stderr == (
        f"Port {installation.port} is taken; "
        f"give another one: ./zesty start --port {installation.port + 1}\n"
    )


def test_words_that_are_not_known_are_one_clear_line(installation: Installation) -> None:
    said = installation.say("start", "--prot", "1")
    assert (said.returncode, said.stderr.count("\n")) == (2, 1)


def test_the_calc_door_works_before_anything_runs(installation: Installation) -> None:
    case = '{"readings": ["0.1 mm"], "limits": {"low": "0 mm"}, "resolution": "0.01 mm"}'
    file = installation.var / "case.json"
    file.write_text(case)
    assert "procedure" in installation.say("calc", "--list").stdout
    assert '"within"' in installation.say("calc", "verdict", str(file)).stdout
