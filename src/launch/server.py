"""The web server, and the run that owns it."""

import ctypes
import fcntl
import os
import secrets
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from launch.cluster import Cluster
from launch.places import PYTHON, ROOT, SRC, VAR, Stop, say

_PATIENCE_S = 60
_LET_GO_S = 4
_PORTS = 65536
_PR_SET_PDEATHSIG = 1


def environment(database_url: str) -> dict[str, str]:
    """What Django's processes need to know."""
    return {
        **os.environ,
        "DATABASE_URL": database_url,
        "PYTHONPATH": str(SRC),
        "DJANGO_SETTINGS_MODULE": "zesty.settings",
        "ZESTY_VAR": str(VAR),
        "ZESTY_SECRET_KEY": _secret_key(),
    }


def _secret_key() -> str:
    file = VAR / "secret.key"
    if not file.exists():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(50))
    return file.read_text()


@contextmanager
def database() -> Iterator[str]:
    """The database's address for as long as it is needed; a cluster that ran before keeps running."""
    given = os.environ.get("DATABASE_URL")
    if given:
        yield given
        return
    cluster = Cluster()
    started = cluster.ensure()
    try:
        yield cluster.url
    finally:
        if started:
            cluster.stop()


def manage(arguments: list[str], env: dict[str, str]) -> int:
    """Run one of Django's commands."""
    command = [str(PYTHON), "-m", "django", *arguments]
    return subprocess.run(command, env=env, cwd=ROOT, check=False).returncode


def claim() -> IO[str] | None:
    """Hold the one place for a running server; None when another start holds it."""
    VAR.mkdir(parents=True, exist_ok=True)
    lock = (VAR / "start.lock").open("a+")
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return None
    return lock


def running() -> tuple[int, str] | None:
    """Process number and address of the start that runs now."""
    file = VAR / "start.running"
    if not file.exists():
        return None
    pid, _, address = file.read_text().partition(" ")
    return int(pid), address


def note_running(address: str) -> Path:
    """Leave word of this start for the next one."""
    file = VAR / "start.running"
    file.write_text(f"{os.getpid()} {address}")
    return file


def check_port(port: int) -> None:
    """Raises Stop when the port is taken; a server that is just ending gets a moment to let go."""
    if not 0 < port < _PORTS:
        raise Stop(f"{port} is not a port; give one from 1 to {_PORTS - 1}.")
    deadline = time.monotonic() + _LET_GO_S
    while not _is_free(port):
        if time.monotonic() > deadline:
            raise Stop(f"Port {port} is taken; give another one: ./zesty start --port {port + 1}")
        time.sleep(0.2)


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except PermissionError:
            raise Stop(f"Port {port} is kept for root; give a higher one, such as 8000.") from None
        except OSError:
            return False
    return True


def serve(port: int, env: dict[str, str], ready: str) -> int:
    """Serve until told to stop; prints `ready` once pages are answered."""
    bind = f"127.0.0.1:{port}"
    command = [str(PYTHON), "-m", "gunicorn", "zesty.wsgi", "--bind", bind, "--workers", "2",
               "--threads", "4", "--timeout", "60", "--log-level", "warning"]  # fmt: skip
    # No thread runs here, so the child may safely do one thing before it becomes the server.
    web = subprocess.Popen(
        command,
        env=env,
        cwd=SRC,
        start_new_session=True,
        preexec_fn=_die_with_us,  # noqa: PLW1509
    )
    for wanted in (signal.SIGTERM, signal.SIGHUP):
        signal.signal(wanted, _interrupt)
    try:
        _wait_until_it_answers(port, web)
        say(ready)
        web.wait()
        raise Stop(f"The web server ended by itself with code {web.returncode}.")
    except KeyboardInterrupt:
        say("\nStopping …")
        return 0
    finally:
        web.terminate()
        web.wait()


def _die_with_us() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)


def _interrupt(*_: object) -> None:
    raise KeyboardInterrupt


def _wait_until_it_answers(port: int, web: subprocess.Popen[bytes]) -> None:
    deadline = time.monotonic() + _PATIENCE_S
    while time.monotonic() < deadline and web.poll() is None:
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/alive", timeout=5)
        except (urllib.error.URLError, OSError):
            time.sleep(0.2)
        else:
            return
    raise Stop("The web server did not come up; what it said stands above.")
