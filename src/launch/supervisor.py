"""Keeps the product serving: what ends is begun again, what hangs is replaced.

The launcher itself is the master of the web servers; PostgreSQL is looked at twice a second.
"""

import ctypes
import os
import select
import signal
import socket
import subprocess
import time
from dataclasses import dataclass, field
from urllib.parse import urlsplit

from launch import cluster as clusters
from launch.cluster import Cluster
from launch.places import PYTHON, SRC, Stop, is_root, say, show
from launch.server import DOWN, alive

WEB_USER = "zesty-spindle"
_WEB_SERVERS = 2
_LOOK_EVERY_S = 0.5
_PATIENCE_S = 60
_SILENT_S = 30
"""A web server beats once a second; silent for so long, it hangs."""
_SOON_S = 3
_TOO_OFTEN = 5
_PR_SET_PDEATHSIG = 1


@dataclass
class WebServer:
    """One web server's process, and the pipe that it beats on."""

    process: subprocess.Popen[bytes]
    beats: int
    begun: float = field(default_factory=time.monotonic)
    heard: float = field(default_factory=time.monotonic)

    def hears(self) -> None:
        """Take what it beat."""
        while select.select([self.beats], [], [], 0)[0] and os.read(self.beats, 4096):
            self.heard = time.monotonic()

    def end(self) -> None:
        """End it and bury it."""
        self.process.kill()
        self.process.wait()
        os.close(self.beats)


class Supervisor:
    """The web servers of this run, and the database that they need."""

    def __init__(
        self, listener: socket.socket, env: dict[str, str], cluster: Cluster | None
    ) -> None:
        self.listener, self.env, self.cluster = listener, env, cluster
        self.as_user = _web_user()
        self.servers: list[WebServer] = []
        self.short_lived = 0
        self.missed = 0
        found = urlsplit(env["DATABASE_URL"])
        self.where = (found.hostname or "", found.port or 5432)

    def serve(self, address: str, ready: str) -> None:
        """Serve until told to stop; shows `ready` once pages are answered."""
        for wanted in (signal.SIGTERM, signal.SIGHUP):
            signal.signal(wanted, _interrupt)
        DOWN.unlink(missing_ok=True)
        try:
            self.servers = [self._begin() for _ in range(_WEB_SERVERS)]
            self._wait_until_it_answers(address)
            show(ready)
            while True:
                self.look()
                time.sleep(_LOOK_EVERY_S)
        except KeyboardInterrupt:
            say("\nStopping …")
        finally:
            for one in self.servers:
                one.end()

    def look(self) -> None:
        """One look at everything; what is not well is mended."""
        for index, one in enumerate(self.servers):
            one.hears()
            if one.process.poll() is not None or time.monotonic() - one.heard > _SILENT_S:
                self._replace(index)
        if self.cluster and not self.cluster.runs():
            self._mark(answers=False)
            say("PostgreSQL ended; it is begun again.")
            self.cluster.ensure()
        self._mark(answers=self._database_answers())

    def _begin(self) -> WebServer:
        reading, writing = os.pipe()
        os.set_blocking(reading, False)
        words = [str(PYTHON), "-m", "zesty.serve", str(self.listener.fileno()), str(writing)]
        process = subprocess.Popen(
            [*self.as_user, *words],
            env=self.env,
            cwd=SRC,
            pass_fds=(self.listener.fileno(), writing),
            start_new_session=True,
            # No thread runs here, so the child may safely do one thing before it becomes the server.
            preexec_fn=None if self.as_user else _die_with_us,  # noqa: PLW1509
        )
        os.close(writing)
        return WebServer(process, reading)

    def _replace(self, index: int) -> None:
        old = self.servers[index]
        soon = time.monotonic() - old.begun < _SOON_S
        self.short_lived = self.short_lived + 1 if soon else 0
        if self.short_lived > _TOO_OFTEN:
            raise Stop("The web server does not stay up; what it said stands above.")
        old.end()
        say(f"Web server {old.process.pid} ended or hung; another one is begun.")
        self.servers[index] = self._begin()

    def _database_answers(self) -> bool:
        host, port = ("127.0.0.1", self.cluster.port) if self.cluster else self.where
        # A server that is only reached through a socket file can't be asked this way.
        if not host:
            return True
        self.missed = 0 if clusters.answers(host, port) else self.missed + 1
        return self.missed < 2

    def _mark(self, *, answers: bool) -> None:
        if answers:
            DOWN.unlink(missing_ok=True)
        elif not DOWN.exists():
            DOWN.write_text("PostgreSQL does not answer.\n")
            DOWN.chmod(0o644)

    def _wait_until_it_answers(self, address: str) -> None:
        deadline = time.monotonic() + _PATIENCE_S
        while time.monotonic() < deadline:
            if all(one.process.poll() is not None for one in self.servers):
                break
            if alive(address):
                return
            time.sleep(0.2)
        raise Stop("The web server did not come up; what it said stands above.")


def _web_user() -> list[str]:
    """The words that make a process a user who owns nothing; none where we are no root ourselves."""
    if not is_root():
        return []
    if subprocess.run(["id", WEB_USER], capture_output=True, check=False).returncode:
        made = ["useradd", "--system", "--no-create-home", "--shell", "/usr/sbin/nologin", WEB_USER]
        if subprocess.run(made, capture_output=True, check=False).returncode:
            raise Stop(f"The user {WEB_USER}, whom the web server runs as, could not be made.")
    switch = ["setpriv", f"--reuid={WEB_USER}", f"--regid={WEB_USER}", "--clear-groups",
              "--pdeathsig", "KILL"]  # fmt: skip
    looks = ["test", "-r", str(SRC / "zesty" / "serve.py")]
    if subprocess.run([*switch, *looks], capture_output=True, check=False).returncode:
        # The product lies where only root looks, say in /root: reading is all that is let through.
        switch += ["--inh-caps=-all,+dac_read_search", "--ambient-caps=+dac_read_search"]
    else:
        switch += ["--inh-caps=-all"]
    return [*switch, "--"]


def _die_with_us() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def _interrupt(*_: object) -> None:
    raise KeyboardInterrupt
