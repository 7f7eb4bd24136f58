"""The data files of the core, parsed.

To parse one takes longer than most calculations. What was parsed is kept beside the bytecode and by the same
rule: it holds while the file has the same time and size.
"""

import marshal
import os
import sys
from typing import Any


def data_file(*names: str) -> dict[str, Any]:
    """A TOML file of the core by its path from here, without its ending. Raises OSError where there is none."""
    path = os.path.join(os.path.dirname(__file__), *names) + ".toml"
    found = os.stat(path)
    stamp = (found.st_mtime_ns, found.st_size)
    kept = _beside(path)
    data = _kept(kept, stamp)
    if data is None:
        data = _parsed(path)
        if not sys.dont_write_bytecode:
            _keep(kept, stamp, data)
    return data


def _parsed(path: str) -> dict[str, Any]:
    import tomllib  # Loaded only where something was not kept.

    with open(path, "rb") as file:
        return tomllib.load(file)


def _beside(path: str) -> str:
    folder, name = os.path.split(path)
    return os.path.join(folder, "__pycache__", f"{name}.{sys.implementation.cache_tag}")


def _kept(path: str, stamp: tuple[int, int]) -> dict[str, Any] | None:
    try:
        with open(path, "rb") as file:
            then, data = marshal.load(file)
    except (OSError, EOFError, ValueError, TypeError):
        return None
    return data if then == stamp else None


def _keep(path: str, stamp: tuple[int, int], data: dict[str, Any]) -> None:
    """Keep it where that can be done: whole, or not at all."""
    half = f"{path}.{os.getpid()}"
    try:
        whole = marshal.dumps((stamp, data))
        os.makedirs(os.path.dirname(path), exist_ok=True)
        with open(half, "wb") as file:
            file.write(whole)
        os.replace(half, path)
    except (OSError, ValueError):
        return
