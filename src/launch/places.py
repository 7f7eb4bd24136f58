"""Where the launcher keeps things, and how it speaks."""

import os
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
SRC = ROOT / "src"
VAR = Path(os.environ.get("ZESTY_VAR") or ROOT / "var").resolve()
"""Data, logs and secrets of this installation; ZESTY_VAR puts them elsewhere."""
VENV = ROOT / "var" / "venv"
PYTHON = VENV / "bin" / "python"


class Stop(Exception):
    """Something the launcher cannot get past; its text is one line for the person who started it."""


def show(line: str) -> None:
    """What a command was asked for: on standard output, and nothing else is."""
    print(line, flush=True)


def say(line: str) -> None:
    """Tell the person what is going on, or what went wrong."""
    print(line, file=sys.stderr, flush=True)


def is_root() -> bool:
    """Whether Debian's packages can be installed from here."""
    return os.geteuid() == 0
