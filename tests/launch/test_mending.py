"""It mends itself: what is killed is back, what hangs is said, what is half-sent holds nobody up."""

import os
import signal
import socket

from .conftest import Installation, Visitor, family

HALVES = (
    b"",
    b"GET /sig",
    b"GET /sign-in HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Half: ",
    b"POST /sign-in HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/x-www-form-urlencoded\r\n"
    b"Content-Length: 90000\r\n\r\nusername=half",
)
HELD = 200


def test_what_is_killed_comes_back_by_itself(installation: Installation) -> None:
    installation.start()
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    visitor.writes("20.5")
    before = installation.web_servers
    os.kill(before[0], signal.SIGKILL)
    installation.wait_for(200)
    for pid in installation.web_servers:
        os.kill(pid, signal.SIGKILL)
    installation.wait_for(200)
    assert set(installation.web_servers).isdisjoint(before)

    postmaster = installation.postmaster
    os.kill(postmaster, signal.SIGKILL)
    installation.wait_for(200, "/sign-in")
    assert installation.postmaster != postmaster
    assert "20.5" in visitor.get("/jobs/6/1/lock/")


def test_a_stopped_database_is_said_and_keeps_what_was_typed(installation: Installation) -> None:
    installation.start()
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    visitor.get("/jobs/6/1/lock/")
    stopped = family(installation.postmaster)
    for pid in stopped:
        os.kill(pid, signal.SIGSTOP)
    try:
        installation.wait_for(503, "/alive")
        status, page = visitor.post_raw("/jobs/6/1/lock/write", step="place", value="17.25")
        assert status == 503
        assert "The database does not answer" in page
        assert "<strong>17.25</strong>" in page
        assert 'name="value" value="17.25"' in page
    finally:
        for pid in stopped:
            os.kill(pid, signal.SIGCONT)
    installation.wait_for(200, "/alive")
    assert "17.25" not in visitor.get("/jobs/6/1/lock/")
    visitor.writes("17.25")


def test_a_start_beside_a_half_dead_one_takes_over(installation: Installation) -> None:
    installation.start()
    launcher, servers = installation.launcher, installation.web_servers
    os.kill(launcher, signal.SIGSTOP)
    for pid in servers:
        os.kill(pid, signal.SIGKILL)
    said = installation.start()
    assert "does not answer" in said
    assert "taking over" in said
    installation.wait_for(200)
    assert installation.launcher != launcher

    # PostgreSQL hangs, and the launcher is gone: the next start begins it anew.
    os.kill(installation.postmaster, signal.SIGSTOP)
    os.kill(installation.launcher, signal.SIGKILL)
    installation.running[-1].wait()
    assert "PostgreSQL runs but does not answer" in installation.start()
    installation.wait_for(200)


def test_two_hundred_half_sent_requests_hold_nobody_up(installation: Installation) -> None:
    installation.start()
    held = []
    for number in range(HELD):
        one = socket.create_connection(("127.0.0.1", installation.port), timeout=10)
        one.sendall(HALVES[number % len(HALVES)])
        held.append(one)
    try:
        for _ in range(5):
            assert installation.status_of("/sign-in") == 200
            assert installation.status_of("/alive") == 200
    finally:
        for one in held:
            one.close()
