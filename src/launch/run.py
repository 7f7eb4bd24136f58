"""Starting, stopping, and how it is."""

import argparse
import os
import socket
import time
from contextlib import closing
from typing import IO

from launch import data, packages, server
from launch.cluster import APP, Cluster
from launch.places import VAR, Stop, say, show
from launch.supervisor import Supervisor

_DEMO_ROLES = "tech, lead, desk, learner, owner, and neighbour in a second workshop"
_STOP_S = 30
_MEND_S = 6


def start(options: argparse.Namespace, _: list[str]) -> int:
    """Serve until told to stop."""
    lock = server.claim() or _beside_another()
    if lock is None:
        return 1 if options.fresh or options.empty else 0
    with lock:
        packages.prepare(tests=False)
        with closing(server.listen(options.host, options.port)) as listener:
            return _serve(options, listener)


def _serve(options: argparse.Namespace, listener: socket.socket) -> int:
    host = f"[{options.host}]" if ":" in options.host else options.host
    address = f"http://{host}:{options.port}/"
    _repair_what_hangs()
    with server.database() as base:
        demo = _prepare_data(options, base)
        env = _surroundings(base, options.host)
        with server.noted(address):
            Supervisor(listener, env, base.cluster).serve(address, _ready(address, demo=demo))
    return 0


def _surroundings(base: server.Database, host: str) -> dict[str, str]:
    """The web server's surroundings; where others reach it, it trusts a proxy on that address."""
    if host in server.LOOPBACK:
        return base.web_env
    if base.cluster and base.cluster.sql("SELECT 1 FROM people_workshop WHERE is_demo LIMIT 1"):
        raise Stop(
            "The demo is here, and its sign-ins need no password: it is served on this machine only. "
            "./zesty erase takes the demo away; or give other data a folder: ZESTY_VAR=FOLDER."
        )
    return {**base.web_env, "ZESTY_HOSTS": host, "ZESTY_PROXY": host}


def _repair_what_hangs() -> None:
    """A PostgreSQL of ours that runs and says nothing is ended; it starts anew and recovers."""
    if os.environ.get("DATABASE_URL"):
        return
    cluster = Cluster()
    if cluster.runs() and not cluster.answers() and not cluster.answers():
        say("PostgreSQL runs but does not answer; it is begun again.")
        cluster.kill()


def _beside_another() -> IO[str] | None:
    """Another start holds the place: leave it where it serves, take over where it does not."""
    now = server.running()
    deadline = time.monotonic() + _MEND_S
    while time.monotonic() < deadline:
        if now and now.answers():
            say(
                f"Zesty Spindle already runs at {now.address} (process {now.pid}). ./zesty stop ends it."
            )
            return None
        if lock := server.claim():
            return lock
        time.sleep(1)
        now = server.running()
    if now is None:
        say("Zesty Spindle is still starting. ./zesty stop ends it.")
        return None
    say(f"Zesty Spindle (process {now.pid}) does not answer at {now.address}: taking over.")
    server.end(now, patience_s=2)
    for _attempt in range(20):
        if lock := server.claim():
            return lock
        time.sleep(0.2)
    raise Stop(f"Process {now.pid} does not let go of {VAR}.")


def _prepare_data(options: argparse.Namespace, base: server.Database) -> bool:
    """Bring the tables up to date, and the demo where it belongs. Whether the demo stands."""
    words = [f"--{name}" for name in ("empty", "fresh") if getattr(options, name)]
    if options.host not in server.LOOPBACK:
        words.append("--empty")  # where others come in, no sign-in goes without a password
    if base.cluster is None:
        say("DATABASE_URL is set: no demo is loaded there.")
    else:
        words += ["--app-role", APP]
    shops = [
        line.partition(" ") for line in server.asked(["prepare", *words], base.env).splitlines()
    ]
    if options.empty and shops:
        say(f"There are data here, and they stay: {', '.join(name for *_, name in shops)}.")
    return any(kind == "demo" for kind, *_ in shops)


def _ready(address: str, *, demo: bool) -> str:
    """What the person reads last: the address."""
    lines = ["Ctrl-C, or ./zesty stop from elsewhere, stops it."]
    if demo:
        lines.insert(0, f"Demo sign-ins, one click each: {_DEMO_ROLES}. All of it is invented.")
    return "\n".join([*lines, f"Zesty Spindle is at {address}"])


def stop(_: argparse.Namespace, __: list[str]) -> int:
    """Stop whatever is there of the product, PostgreSQL too."""
    lock = server.claim()
    if lock is None:
        now = server.running()
        if now is None:
            raise Stop("Zesty Spindle is still starting; try again in a moment.")
        server.end(now, patience_s=_STOP_S)
    # After a kill -9 of the launcher the web servers went with it; PostgreSQL is left.
    left = None if os.environ.get("DATABASE_URL") or packages.postgres_bin() is None else Cluster()
    if left and left.runs():
        left.stop()
        if left.runs():
            left.kill()
        lock = None
    say("Zesty Spindle does not run." if lock else "Stopped.")
    return 0


def status(_: argparse.Namespace, __: list[str]) -> int:
    """What runs, where, since when; the data and their last backup."""
    now = server.running()
    if now:
        answers = "answers" if now.answers() else "does not answer"
        show(f"web: {now.address}, {answers}, process {now.pid}, since {now.since}")
    else:
        show("web: does not run")
    if os.environ.get("DATABASE_URL"):
        show("data: on the server that DATABASE_URL names")
        return 0
    cluster = Cluster()
    if cluster.runs():
        answers = "answers" if cluster.answers() else "does not answer"
        show(f"PostgreSQL: 127.0.0.1:{cluster.port}, {answers}, process {cluster.pid()}")
        if answers == "answers":
            show(f"data: {data.size(cluster)}")
    else:
        show("PostgreSQL: does not run")
    show(f"folder: {cluster.data}")
    show(f"last backup: {data.last_backup()}")
    return 0
