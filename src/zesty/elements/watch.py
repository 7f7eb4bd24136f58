"""Watches the requests of this process: none waits for a database that does not answer, none for ever.

The launcher hears a beat every second; it replaces a process that falls silent.
"""

import faulthandler
import os
import socket
import sys
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass

from django.conf import settings
from django.db import connections
from django.db.backends.base.base import BaseDatabaseWrapper
from django.http import HttpRequest, HttpResponse

TOO_LONG_S = 60
"""No request takes so long, a large import and the printing of a sheet included."""
_LOOK_EVERY_S = 0.25


@dataclass(frozen=True)
class Running:
    """A request on its way, and the connection of its thread."""

    since: float
    database: BaseDatabaseWrapper


_running: dict[int, Running] = {}


def database_is_down() -> bool:
    """Whether the launcher found PostgreSQL silent."""
    return os.path.exists(settings.DATABASE_DOWN)  # noqa: PTH110  (asked by every request)


class WatchMiddleware:
    """Keeps note of the requests that are on their way."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        thread = threading.get_ident()
        _running[thread] = Running(time.monotonic(), connections["default"])
        try:
            return self.get_response(request)
        finally:
            _running.pop(thread, None)


def begin(beats: int) -> None:
    """Watch from a thread of its own; `beats` is the pipe to the launcher."""
    os.set_blocking(beats, False)
    threading.Thread(target=_watch, args=[beats], daemon=True, name="watch").start()


def _watch(beats: int) -> None:
    while True:
        try:
            os.write(beats, b".")
        except BlockingIOError:
            pass
        except BrokenPipeError:
            os._exit(0)
        look()
        time.sleep(_LOOK_EVERY_S)


def look() -> None:
    """Let go of a silent database; end this process where a request passed its time."""
    now = time.monotonic()
    running = list(_running.values())
    if any(now - one.since > TOO_LONG_S for one in running):
        sys.stderr.write(f"A request ran for more than {TOO_LONG_S} s: this web server ends.\n")
        faulthandler.dump_traceback()
        os._exit(70)
    if running and database_is_down():
        for one in running:
            let_go(one.database)


def let_go(database: BaseDatabaseWrapper) -> None:
    """Cut a connection off, so that whoever waits on it gets an error and can answer."""
    held = database.connection
    if held is None or held.closed:
        return
    try:
        with socket.socket(fileno=os.dup(held.pgconn.socket)) as line:
            line.shutdown(socket.SHUT_RDWR)
    except OSError:
        pass
