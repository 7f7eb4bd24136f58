"""Start, start again, what it says where, and what it does with data that people wrote."""

import json
import re
import socket
import subprocess
import sys
from pathlib import Path
from uuid import uuid4

import pytest

from .conftest import ROOT, Installation, Visitor

TOMORROW = (
    "from django.db.migrations.recorder import MigrationRecorder as R; from django.db import connection; "
    "R(connection).record_applied('bench', '9999_tomorrow')"
)
WORKSHOP = "Citrus growers' co-operative (demo)"


def test_an_acknowledged_reading_and_a_timer_survive_kill_9_of_everything(
    installation: Installation,
) -> None:
    assert "Demo sign-ins" in installation.start()
    again = installation.say("start", "--port", str(installation.port))
    assert (again.returncode, "already runs" in again.stderr) == (0, True)

    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    visitor.writes("20.5")
    wait = {"kind": "cure", "minutes": "30", "words": "sealant of the cap", "token": str(uuid4())}
    visitor.post("/jobs/6/1/lock/timer", **wait)
    installation.kill_everything()

    installation.start()
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    assert "20.5" in visitor.get("/jobs/6/1/lock/")
    assert "then enter the torque there" in visitor.page
    assert "sealant of the cap" in visitor.page
    left = re.search(r'role="timer" data-left="(\d+)"', visitor.page)
    assert left
    assert 0 < int(left[1]) < 1800

    # The launcher alone is killed: its web servers go with it, and stop ends what is left.
    installation.running[-1].kill()
    installation.running[-1].wait()
    assert installation.status_of() == 0
    stopped = installation.say("stop")
    assert (stopped.returncode, stopped.stderr.strip(), stopped.stdout) == (0, "Stopped.", "")
    assert not list(installation.var.glob("**/postmaster.pid"))
    assert installation.say("stop").stderr.strip() == "Zesty Spindle does not run."
    with socket.socket() as probe:
        assert probe.connect_ex(("127.0.0.1", installation.port)) != 0


def test_no_option_of_start_erases_what_a_person_wrote(installation: Installation) -> None:
    """And the only command that does asks by name, backs up first, and can be undone."""
    installation.start()
    untouched = installation.ask("SELECT count(*) FROM bench_entry")
    installation.say("stop")
    # An untouched demo is made anew.
    installation.start("--fresh")
    assert installation.ask("SELECT count(*) FROM bench_entry") == untouched
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    number = installation.ask("SELECT max(id) FROM bench_job WHERE number = 6")
    visitor.writes("20.5", job=int(number))
    installation.say("stop")

    refused = installation.say("start", "--fresh", "--port", str(installation.port))
    assert refused.returncode == 1
    assert "People wrote in the demo, and it stays" in refused.stderr
    assert "1 entries, 0 jobs since" in refused.stderr
    assert "./zesty erase" in refused.stderr
    said = installation.start("--empty")
    assert f"There are data here, and they stay: {WORKSHOP}" in said
    assert installation.ask("SELECT count(*) FROM bench_entry") == str(int(untouched) + 1)
    sheet = Visitor(installation.port)
    sheet.post("/demo/tech")
    first = installation.ask("SELECT min(job_id) FROM records_signoff")
    path = f"/jobs/{first}/sheet.pdf"
    printed = sheet.raw(path)
    assert printed[:4] == b"%PDF"

    wrong = installation.say("erase", typed="Citrus\n")
    assert (wrong.returncode, "is no workshop here" in wrong.stderr) == (1, True)
    gone = installation.say("erase", typed=f"{WORKSHOP}\n")
    assert gone.returncode == 0, gone.stderr
    file = Path(gone.stdout.strip())
    assert file.is_file()
    assert installation.ask(f"SELECT count(*) FROM bench_job WHERE id = {first}") == "0"
    installation.say("stop")

    # What was erased comes back whole: every sheet prints byte for byte.
    back = installation.say("restore", str(file))
    assert back.returncode == 0, back.stderr
    installation.start()
    sheet = Visitor(installation.port)
    sheet.post("/demo/tech")
    assert sheet.raw(path) == printed
    assert installation.ask("SELECT count(*) FROM bench_entry") == str(int(untouched) + 1)


def test_a_backup_and_what_stands_in_the_way_of_one(installation: Installation) -> None:
    installation.start()
    visitor = Visitor(installation.port)
    visitor.post("/demo/tech")
    visitor.writes("20.5")
    file = installation.var / "all.zsb"
    made = installation.say("backup", str(file))
    assert (made.returncode, made.stdout) == (0, f"{file}\n")
    assert file.stat().st_mode & 0o077 == 0
    again = installation.say("backup", str(file))
    assert (again.returncode, "is there already" in again.stderr) == (1, True)
    status = installation.say("status").stdout
    for words in ("answers, process", "since 20", "data: ", "last backup: 20"):
        assert words in status
    running = installation.say("restore", str(file))
    assert (running.returncode, "./zesty stop first" in running.stderr) == (1, True)
    installation.say("stop")
    over = installation.say("restore", str(file))
    assert (over.returncode, "1 entries, 0 jobs since" in over.stderr) == (1, True)
    rubbish = installation.var / "rubbish"
    rubbish.write_text("rubbish")
    no_backup = installation.say("restore", str(rubbish))
    assert (no_backup.returncode, "is no backup of ours" in no_backup.stderr) == (1, True)
    broken = installation.var / "broken.zsb"
    broken.write_bytes(file.read_bytes()[:20_000])
    half = installation.say("restore", str(broken), "--over", typed=f"{WORKSHOP}\n")
    assert half.returncode == 1
    # What could not be read changed nothing.
    assert "20 " not in half.stdout
    installation.start()
    assert installation.ask("SELECT count(*) FROM bench_entry WHERE typed LIKE '20.5%'") == "1"


def test_the_web_server_is_nobody_who_may_change_the_log(installation: Installation) -> None:
    installation.start()
    for pid in installation.web_servers:
        owner = Path(f"/proc/{pid}").stat().st_uid
        assert owner != 0
        words = Path(f"/proc/{pid}/environ").read_bytes()
        assert b"postgres://zesty_app:" in words
        assert b"postgres://zesty:" not in words
    rights = installation.ask(
        "SELECT string_agg(privilege_type, ',') FROM information_schema.table_privileges "
        "WHERE grantee = 'zesty_app' AND table_name = 'bench_entry'"
    )
    assert set(rights.split(",")) == {"INSERT", "SELECT"}
    assert installation.ask("SELECT rolsuper FROM pg_roles WHERE rolname = 'zesty_app'") == "False"
    owned = "SELECT count(*) FROM pg_class WHERE relowner = 'zesty_app'::regrole"
    assert installation.ask(owned) == "0"


def test_others_are_let_in_only_without_the_demo(installation: Installation) -> None:
    said = installation.say("start", "--host", "127.0.0.2", "--port", str(installation.port))
    assert (said.returncode, "served on this machine only" in said.stderr) == (1, True)
    nowhere = installation.say("start", "--host", "203.0.113.9", "--port", str(installation.port))
    assert (nowhere.returncode, nowhere.stderr) == (
        1,
        "203.0.113.9 is no address of this machine.\n",
    )


def test_where_others_reach_it_everything_goes_over_tls(bare: Installation) -> None:
    host = "127.0.0.2"
    bare.start("--empty", "--host", host)
    try:
        plain = bare.asked(host, "/sign-in")
        assert (plain.status, plain.headers["Location"]) == (
            301,
            f"https://{host}:{bare.port}/sign-in",
        )
        # What the proxy on that address says of the scheme counts.
        proxied = bare.asked(host, "/first", {"X-Forwarded-Proto": "https"})
        assert proxied.status == 200
        assert "max-age=" in proxied.headers["Strict-Transport-Security"]
        assert "Secure" in proxied.headers["Set-Cookie"]
        assert (
            bare.asked(
                host, "/first", {"X-Forwarded-Proto": "https", "Host": "evil.example"}
            ).status
            == 400
        )
        assert bare.asked(host, "/alive").status == 200
    finally:
        bare.say("stop")
        bare.let_go()


def test_a_taken_port_is_one_clear_line(bare: Installation) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", bare.port))
        taken.listen()
        said = bare.say("start", "--port", str(bare.port))
    assert said.returncode == 1
    assert said.stderr == (
        f"Port {bare.port} is taken; give another one: ./zesty start --port {bare.port + 1}\n"
    )


def test_words_that_are_not_known_are_one_clear_line(bare: Installation) -> None:
    said = bare.say("start", "--prot", "1")
    assert (said.returncode, said.stderr.count("\n")) == (2, 1)


def test_data_go_to_standard_output_and_nothing_else_does(installation: Installation) -> None:
    dumped = installation.say("manage", "dumpdata", "people.workshop")
    assert json.loads(dumped.stdout)[0]["fields"]["name"] == WORKSHOP
    assert "Starting PostgreSQL" in dumped.stderr
    assert installation.say("status").stdout.startswith("web: does not run\n")


@pytest.mark.parametrize("words", [["backup", "x"], ["restore", "x"], ["erase"]])
def test_a_server_of_yours_is_left_to_its_own_tools(bare: Installation, words: list[str]) -> None:
    bare.env["DATABASE_URL"] = "postgres://somebody@127.0.0.1:1/theirs"
    said = bare.say(*words)
    assert (said.returncode, "own tools" in said.stderr) == (1, True)


def test_the_calc_door_works_before_anything_runs(bare: Installation) -> None:
    case = '{"readings": ["0.1 mm"], "limits": {"low": "0 mm"}, "resolution": "0.01 mm"}'
    file = bare.var / "case.json"
    file.write_text(case)
    assert "procedure" in bare.say("calc", "--list").stdout
    assert '"within"' in bare.say("calc", "verdict", str(file)).stdout


def test_a_schema_of_tomorrow_is_named_and_left_alone(installation: Installation) -> None:
    installation.say("manage", "shell", "-c", TOMORROW)
    said = installation.say("start", "--port", str(installation.port))
    assert said.returncode == 1
    assert "made by a newer version (bench 9999_tomorrow)" in said.stderr


def test_the_launcher_needs_nothing_that_is_not_pythons_own() -> None:
    src = ROOT / "src"
    probe = "import sys; sys.path.insert(0, sys.argv[1]); import launch.main"
    done = subprocess.run([sys.executable, "-I", "-S", "-c", probe, str(src)], check=False)
    assert done.returncode == 0
