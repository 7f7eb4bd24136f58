"""The launcher's commands."""

import argparse
import os
import subprocess
import sys
from pathlib import Path

from launch import data, packages, run, server
from launch.cluster import Cluster
from launch.places import PYTHON, ROOT, SRC, Stop, say


def main(arguments: list[str]) -> int:
    """Run one command; problems come out as one line and exit code 1."""
    options, rest = _parser().parse_known_args(arguments)
    if rest and options.command not in _PASS_ON:
        say(f"Not understood: {' '.join(rest)}. ./zesty --help shows what is.")
        return 2
    try:
        return int(options.run(options, rest))
    except Stop as problem:
        say(str(problem))
        return 1
    except BrokenPipeError:
        # Whoever read along, such as `head`, has read enough.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
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
    start.add_argument(
        "--host", default=server.LOOPBACK[0], help="an address that others reach it at"
    )
    start.add_argument(
        "--fresh", action="store_true", help="make the demo anew, where it is untouched"
    )
    start.add_argument("--empty", action="store_true", help="start without the demo")
    start.set_defaults(run=run.start)
    made = commands.add_parser("backup", help="all data into one file")
    made.add_argument("file", type=Path)
    made.set_defaults(run=_backup)
    back = commands.add_parser("restore", help="bring a backup back")
    back.add_argument("file", type=Path)
    back.add_argument("--over", action="store_true", help="in the place of what people wrote here")
    back.set_defaults(run=_restore)
    plain = {
        "stop": (run.stop, "stop whatever runs of the product"),
        "status": (run.status, "what runs, where, since when, data, last backup"),
        "erase": (_erase, "take a workshop away; asks for its name, backs up first"),
        "check": (_check, "run every linter and test"),
        "shots": (_shots, "remake docs/screenshots from the demo"),
        "bench": (_bench, "a benchmark by name; prints times and their ratio"),
        "schemas": (_schemas, "remake docs/formats from the declarations; --check only looks"),
        "manage": (_manage, "Django's commands"),
    }
    for name, (act, text) in plain.items():
        commands.add_parser(name, help=text, add_help=name not in _PASS_ON).set_defaults(run=act)
    return parser


def _backup(options: argparse.Namespace, _: list[str]) -> int:
    data.prepare_for_data()
    with server.database() as base:
        data.backup(_own(base), options.file.absolute())
    return 0


def _restore(options: argparse.Namespace, _: list[str]) -> int:
    data.prepare_for_data()
    lock = server.claim()
    if lock is None:
        raise Stop("Zesty Spindle runs; ./zesty stop first.")
    with lock, server.database() as base:
        data.restore(_own(base), options.file.absolute(), over=options.over)
    return 0


def _erase(_: argparse.Namespace, __: list[str]) -> int:
    data.prepare_for_data()
    with server.database() as base:
        data.erase(_own(base))
    return 0


def _own(base: server.Database) -> Cluster:
    if base.cluster is None:
        raise Stop("This needs a database that ./zesty start made.")
    return base.cluster


def _check(_: argparse.Namespace, rest: list[str]) -> int:
    packages.prepare(tests=True)
    with server.database() as base:
        failed = [name for name, command in _LINTERS if _run(name, command, base.env)]
        tests = rest or ["-n", "2", "--dist", "worksteal"]
        if _run("pytest", [str(PYTHON), "-m", "pytest", *tests], base.env) or failed:
            say(f"Failed: {', '.join(failed) or 'tests'}.")
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
    with server.database() as base:
        return server.manage(rest, base.env)


def _schemas(_: argparse.Namespace, rest: list[str]) -> int:
    return _manage(_, ["schemas", *rest])


def _bench(_: argparse.Namespace, rest: list[str]) -> int:
    names = sorted(file.stem for file in (ROOT / "benchmarks").glob("*.py"))
    if not rest or rest[0] not in names:
        raise Stop(f"Name a benchmark: ./zesty bench {' | '.join(names)}")
    packages.prepare(tests=True)
    packages.python_packages("bench")
    with server.database() as base:
        env = {**base.env, "PYTHONPATH": str(SRC)}
        return _run(f"bench {rest[0]}", [str(PYTHON), f"benchmarks/{rest[0]}.py", *rest[1:]], env)


def _shots(_: argparse.Namespace, __: list[str]) -> int:
    packages.prepare(tests=True)
    with server.database() as base:
        command = _tool("pytest", "tests/browser/shots.py", "-q", "-p", "no:cacheprovider")
        return _run("screenshots", command, base.env)
