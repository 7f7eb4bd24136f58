"""The launcher's commands."""

import argparse
import os
import signal
import subprocess
import time

from launch import packages, server
from launch.places import PYTHON, ROOT, SRC, Stop, complain, say

_DEMO_ROLES = "tech, lead, desk, learner, owner, and neighbour in a second workshop"


def main(arguments: list[str]) -> int:
    """Run one command; problems come out as one line and exit code 1."""
    options, rest = _parser().parse_known_args(arguments)
    if rest and options.command not in _PASS_ON:
        complain(f"Not understood: {' '.join(rest)}. ./zesty --help shows what is.")
        return 2
    try:
        return int(options.run(options, rest))
    except Stop as problem:
        complain(str(problem))
        return 1
    except KeyboardInterrupt:
        return 130


_PASS_ON = {"bench", "manage", "check", "schemas"}


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="./zesty",
        description="Zesty Spindle",
        epilog="calc NAME [FILE|-]: the computing core's JSON door; calc --list names the calculations.",
    )
    commands = parser.add_subparsers(dest="command", required=True)
    start = commands.add_parser("start", help="start the product; installs what is missing")
    start.add_argument("--port", type=int, default=8000)
    start.add_argument("--fresh", action="store_true", help="forget everything, load the demo anew")
    start.add_argument("--empty", action="store_true", help="start without the demo")
    start.set_defaults(run=_start)
    plain = {
        "stop": (_stop, "stop the product that runs now"),
        "check": (_check, "run every linter and test"),
        "shots": (_shots, "remake docs/screenshots from the demo"),
        "bench": (_bench, "a benchmark by name; prints times and their ratio"),
        "schemas": (_schemas, "remake docs/formats from the declarations; --check only looks"),
        "manage": (_manage, "Django's commands"),
    }
    for name, (run, text) in plain.items():
        commands.add_parser(name, help=text, add_help=name not in _PASS_ON).set_defaults(run=run)
    return parser


def _start(options: argparse.Namespace, _: list[str]) -> int:
    lock = server.claim()
    if lock is None:
        return _already_running(options)
    with lock:
        packages.prepare(tests=False)
        server.check_port(options.port)
        with server.database() as url:
            env = server.environment(url)
            demo = _prepare_data(options, env)
            address = f"http://127.0.0.1:{options.port}/"
            note = server.note_running(address)
            try:
                return server.serve(options.port, env, _ready(address, demo=demo))
            finally:
                note.unlink(missing_ok=True)


def _already_running(options: argparse.Namespace) -> int:
    now = server.running()
    where = f" at {now[1]} (process {now[0]})" if now else "; it is still starting"
    say(f"Zesty Spindle already runs{where}. ./zesty stop ends it.")
    return 1 if options.fresh or options.empty else 0


def _prepare_data(options: argparse.Namespace, env: dict[str, str]) -> bool:
    steps = [["migrate", "--verbosity", "0"], ["collectstatic", "--noinput", "--verbosity", "0"]]
    if options.fresh or options.empty:
        steps.insert(1, ["flush", "--noinput", "--verbosity", "0"])
    for step in steps:
        if server.manage(step, env):
            raise Stop(f"Django's {step[0]} failed; what it said stands above.")
    return not options.empty and server.manage(["load_demo"], env) == 0


def _ready(address: str, *, demo: bool) -> str:
    """What the person reads last: the address."""
    lines = ["Ctrl-C, or ./zesty stop from elsewhere, stops it."]
    if demo:
        lines.insert(0, f"Demo sign-ins, one click each: {_DEMO_ROLES}. All of it is invented.")
    return "\n".join([*lines, f"Zesty Spindle is at {address}"])


def _stop(_: argparse.Namespace, __: list[str]) -> int:
    lock = server.claim()
    now = server.running()
    if lock is not None or now is None:
        say("Zesty Spindle does not run.")
        return 0
    os.kill(now[0], signal.SIGTERM)
    for _attempt in range(150):
        if server.claim() is not None:
            say("Stopped.")
            return 0
        time.sleep(0.2)
    raise Stop(f"Process {now[0]} does not stop.")


def _check(_: argparse.Namespace, rest: list[str]) -> int:
    packages.prepare(tests=True)
    with server.database() as url:
        env = server.environment(url)
        failed = [name for name, command in _LINTERS if _run(name, command, env)]
        tests = rest or ["-n", "2"]
        if _run("pytest", [str(PYTHON), "-m", "pytest", *tests], env) or failed:
            complain(f"Failed: {', '.join(failed) or 'tests'}.")
            return 1
    return 0


def _run(name: str, command: list[str], env: dict[str, str]) -> int:
    say(f"— {name}")
    return subprocess.run(command, env=env, cwd=ROOT, check=False).returncode


def _tool(*words: str) -> list[str]:
    return [str(PYTHON), "-m", *words]


_LINTERS = [
    ("ruff", _tool("ruff", "check", ".")),
    ("ruff format", _tool("ruff", "format", "--check", ".")),
    ("mypy", _tool("mypy", "src/wheelend", "src/launch")),
    ("djlint", [str(PYTHON.parent / "djlint"), "src/zesty", "--lint", "--quiet"]),
    ("import-linter", [str(PYTHON.parent / "lint-imports"), "--no-logo"]),
    ("migrations", _tool("django", "makemigrations", "--check", "--dry-run")),
]


def _manage(_: argparse.Namespace, rest: list[str]) -> int:
    packages.prepare(tests=False)
    with server.database() as url:
        return server.manage(rest, server.environment(url))


def _schemas(_: argparse.Namespace, rest: list[str]) -> int:
    return _manage(_, ["schemas", *rest])


def _bench(_: argparse.Namespace, rest: list[str]) -> int:
    names = sorted(file.stem for file in (ROOT / "benchmarks").glob("*.py"))
    if len(rest) != 1 or rest[0] not in names:
        raise Stop(f"Name a benchmark: ./zesty bench {' | '.join(names)}")
    packages.prepare(tests=True)
    packages.python_packages("bench")
    with server.database() as url:
        env = {**server.environment(url), "PYTHONPATH": str(SRC)}
        return _run(f"bench {rest[0]}", [str(PYTHON), f"benchmarks/{rest[0]}.py"], env)


def _shots(_: argparse.Namespace, __: list[str]) -> int:
    packages.prepare(tests=True)
    with server.database() as url:
        command = _tool("pytest", "tests/browser/shots.py", "-q", "-p", "no:cacheprovider")
        return _run("screenshots", command, server.environment(url))
