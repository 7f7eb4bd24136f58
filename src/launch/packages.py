"""What has to be on the machine: Debian's packages and the pinned Python ones."""

import ctypes
import hashlib
import importlib.util
import os
import shutil
import subprocess
import sys
from pathlib import Path

from launch.places import PYTHON, ROOT, VAR, VENV, Stop, is_root, say

_PANGO = ("libpango-1.0.so.0", "libpangoft2-1.0.so.0", "libharfbuzz-subset.so.0")
_PANGO_PACKAGES = ["libpango-1.0-0", "libpangoft2-1.0-0", "libharfbuzz-subset0"]
_ROOM_NEEDED_MB = 400


def prepare(*, tests: bool) -> None:
    """Install whatever is missing. Raises Stop with what to do where that is not possible."""
    check_room()
    _debian_packages(_missing_packages(tests=tests))
    python_packages("test" if tests else "app")


def check_room() -> None:
    """Raises Stop when the disk is nearly full."""
    VAR.mkdir(parents=True, exist_ok=True)
    free_mb = shutil.disk_usage(VAR).free // 2**20
    if free_mb < _ROOM_NEEDED_MB:
        raise Stop(
            f"The disk that holds {VAR} has {free_mb} MB free; {_ROOM_NEEDED_MB} MB are needed."
        )


def postgres_bin() -> Path | None:
    """The folder of the newest PostgreSQL server on this machine."""
    found = sorted(
        Path("/usr/lib/postgresql").glob("*/bin/initdb"),
        key=lambda p: float(p.parts[4]),
        reverse=True,
    )
    on_path = shutil.which("initdb")
    if not found and on_path:
        return Path(on_path).resolve().parent
    return found[0].parent if found else None


def chromium() -> str | None:
    """Debian's Chromium, for the browser tests."""
    return shutil.which("chromium") or shutil.which("chromium-browser")


def _missing_packages(*, tests: bool) -> list[str]:
    missing = []
    if "DATABASE_URL" not in os.environ and postgres_bin() is None:
        missing.append("postgresql")
    if not all(_loads(library) for library in _PANGO):
        missing += _PANGO_PACKAGES
    if importlib.util.find_spec("ensurepip") is None and not PYTHON.exists():
        missing.append("python3-venv")
    if tests and chromium() is None:
        missing.append("chromium")
    if tests and not _loads("libatomic.so.1"):
        missing.append("libatomic1")  # Playwright's own runtime wants it
    return missing


def _loads(library: str) -> bool:
    try:
        ctypes.CDLL(library)
    except OSError:
        return False
    return True


def _debian_packages(missing: list[str]) -> None:
    if not missing:
        return
    command = ["apt-get", "install", "-y", "--no-install-recommends", *missing]
    if not is_root() or shutil.which("apt-get") is None:
        raise Stop(
            f"Missing on this machine: {', '.join(missing)}. As root, run: {' '.join(command)}"
        )
    say(f"Installing Debian's {', '.join(missing)} …")
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    _logged(["apt-get", "update"], "apt.log", environment)
    _logged(command, "apt.log", environment)


def python_packages(name: str) -> None:
    """Install one of the pinned lists, where it is not installed yet."""
    wanted = ROOT / "requirements" / f"{name}.txt"
    mark = VENV / f".installed-{name}"
    fingerprint = hashlib.sha256(wanted.read_bytes()).hexdigest()
    if mark.exists() and mark.read_text() == fingerprint and _venv_works():
        return
    if not _venv_works():
        say("Making a Python environment …")
        VENV.parent.mkdir(parents=True, exist_ok=True)
        _logged([sys.executable, "-m", "venv", "--clear", str(VENV)], "pip.log")
    say("Installing the pinned Python packages …")
    pip = [str(PYTHON), "-m", "pip", "install", "--quiet", "--disable-pip-version-check"]
    _logged([*pip, "--require-hashes", "-r", str(wanted)], "pip.log")
    mark.write_text(fingerprint)


def _venv_works() -> bool:
    # A folder that was moved keeps a Python that no longer starts from it.
    probe = [str(PYTHON), "-c", "import pip"]
    return (
        PYTHON.exists() and subprocess.run(probe, capture_output=True, check=False).returncode == 0
    )


def _logged(command: list[str], log: str, environment: dict[str, str] | None = None) -> None:
    path = VAR / log
    with path.open("a") as out:
        done = subprocess.run(command, stdout=out, stderr=out, env=environment, check=False)
    if done.returncode:
        lines = path.read_text(errors="replace").strip().splitlines()
        last = lines[-1] if lines else "no output"
        raise Stop(f"{command[0]} failed: {last} (all of it: {path})")
