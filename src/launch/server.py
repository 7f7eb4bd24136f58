"""What a run of the product is known by: its lock, its note, its address; and Django's surroundings."""

import fcntl
import json
import os
import secrets
import signal
import socket
import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from http.client import HTTPConnection, HTTPException
from pathlib import Path
from typing import IO

from launch.cluster import APP, OWNER, Cluster
from launch.places import PYTHON, ROOT, SRC, VAR, Stop, say

LOOPBACK = ("127.0.0.1", "localhost", "::1")
"""What `--host` may be and stay on this machine; the first is the usual one."""

DOWN = VAR / "database.down"
"""Stands while PostgreSQL does not answer: the web server looks at it before it connects."""

_LET_GO_S = 4
_PORTS = 65536


def environment(database_url: str, *, own: bool = False) -> dict[str, str]:
    """What Django's processes need to know. `own`: the database is one that we made ourselves."""
    # They are begun again and again, so their bytecode is kept, whatever this shell says.
    ours = {name: one for name, one in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return {
        **ours,
        "DATABASE_URL": database_url,
        "PYTHONPATH": str(SRC),
        "DJANGO_SETTINGS_MODULE": "zesty.settings",
        "ZESTY_VAR": str(VAR),
        "ZESTY_SECRET_KEY": _secret_key(),
        "ZESTY_OWN_DATABASE": "yes" if own else "",
    }


def _secret_key() -> str:
    file = VAR / "secret.key"
    if not file.exists():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(50))
    return file.read_text()


@dataclass(frozen=True)
class Database:
    """Where the data are: a server that was named to us, or a cluster of our own."""

    cluster: Cluster | None

    @property
    def env(self) -> dict[str, str]:
        """Django's surroundings as the owner of the tables."""
        return self._env(OWNER)

    @property
    def web_env(self) -> dict[str, str]:
        """The web server's: it may not change what was written."""
        return self._env(APP)

    def _env(self, role: str) -> dict[str, str]:
        if self.cluster is None:
            return environment(os.environ["DATABASE_URL"])
        return environment(self.cluster.url(role), own=True)


@contextmanager
def database() -> Iterator[Database]:
    """The database for as long as it is needed; a cluster that ran before keeps running."""
    if os.environ.get("DATABASE_URL"):
        yield Database(None)
        return
    cluster = Cluster()
    started = cluster.ensure()
    try:
        yield Database(cluster)
    finally:
        if started:
            cluster.stop()


def manage(arguments: list[str], env: dict[str, str]) -> int:
    """Run one of Django's commands."""
    command = [str(PYTHON), "-m", "django", *arguments]
    return subprocess.run(command, env=env, cwd=ROOT, check=False).returncode


def asked(arguments: list[str], env: dict[str, str]) -> str:
    """What one of Django's commands answers. Raises Stop with its last word where it fails."""
    command = [str(PYTHON), "-m", "django", *arguments]
    done = subprocess.run(command, env=env, cwd=ROOT, capture_output=True, text=True, check=False)
    lines = done.stderr.strip().splitlines()
    if done.returncode:
        last = lines[-1] if lines else "failed without a word"
        raise Stop(last.removeprefix("CommandError: "))
    for line in lines:
        say(line)
    return done.stdout.strip()


def claim() -> IO[str] | None:
    """Hold the one place for a running server; None when another start holds it."""
    VAR.mkdir(parents=True, exist_ok=True)
    lock = (VAR / "start.lock").open("a+")
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        lock.close()
        return None
    return lock


@dataclass(frozen=True)
class Running:
    """The run that serves now: its launcher, its address, since when."""

    pid: int
    address: str
    since: str

    def answers(self) -> bool:
        """Whether its pages are served."""
        return alive(self.address)


def alive(address: str) -> bool:
    """Whether a web server says that it serves."""
    asked = HTTPConnection(address.removeprefix("http://").rstrip("/"), timeout=3)
    try:
        asked.request("GET", "/alive")
        return asked.getresponse().status == 200
    except (OSError, HTTPException):
        return False
    finally:
        asked.close()


def running() -> Running | None:
    """The start that left word of itself, where its process is still there."""
    try:
        found = Running(**json.loads((VAR / "start.running").read_text()))
        command = Path(f"/proc/{found.pid}/cmdline").read_bytes()
    except (OSError, ValueError, TypeError):
        return None
    return found if b"zesty" in command and b"start" in command else None


@contextmanager
def noted(address: str) -> Iterator[None]:
    """Leave word of this start for other commands while it lasts."""
    file = VAR / "start.running"
    now = datetime.now(UTC).isoformat(timespec="seconds")
    file.write_text(json.dumps(asdict(Running(os.getpid(), address, now))))
    try:
        yield
    finally:
        file.unlink(missing_ok=True)


def end(now: Running, *, patience_s: float) -> None:
    """Ask the launcher of a run to stop; one that does not is ended by force."""
    os.kill(now.pid, signal.SIGTERM)
    deadline = time.monotonic() + patience_s
    while time.monotonic() < deadline:
        lock = claim()
        if lock is not None:
            lock.close()
            return
        time.sleep(0.1)
    os.kill(now.pid, signal.SIGKILL)


def listen(host: str, port: int) -> socket.socket:
    """The socket that all web servers share. Raises Stop with what would do instead."""
    if not 0 < port < _PORTS:
        raise Stop(f"{port} is not a port; give one from 1 to {_PORTS - 1}.")
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    made = socket.socket(family)
    made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    # A server that is just ending gets a moment to let go.
    deadline = time.monotonic() + _LET_GO_S
    while True:
        try:
            made.bind((host, port))
            made.listen(1024)
        except PermissionError:
            raise Stop(f"Port {port} is kept for root; give a higher one, such as 8000.") from None
        except OSError as error:
            if error.errno not in _TAKEN:
                raise Stop(f"{host} is no address of this machine.") from None
            if time.monotonic() > deadline:
                raise Stop(
                    f"Port {port} is taken; give another one: ./zesty start --port {port + 1}"
                ) from None
            time.sleep(0.2)
        else:
            return made


_TAKEN = {98}  # EADDRINUSE
