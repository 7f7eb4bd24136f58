"""A data file is parsed once, and again when it changed."""

import os
import sys
import tomllib
from pathlib import Path

import pytest

from wheelend import datafiles
from wheelend.datafiles import data_file


@pytest.fixture
def parsed(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The files that were parsed, in a Python that keeps bytecode."""
    seen: list[str] = []
    real = datafiles._parsed

    def counting(path: str) -> dict[str, object]:
        seen.append(path)
        return real(path)

    monkeypatch.setattr(datafiles, "_parsed", counting)
    monkeypatch.setattr(sys, "dont_write_bytecode", False)
    return seen


def written(folder: Path, text: str, at: int = 1) -> str:
    file = folder / "nuts.toml"
    file.write_text(text, "utf-8")
    os.utime(file, ns=(at, at))
    return str(file.with_suffix(""))


def kept(folder: Path) -> list[Path]:
    return list((folder / "__pycache__").iterdir())


def test_it_is_parsed_once(tmp_path: Path, parsed: list[str]) -> None:
    name = written(tmp_path, 'thread = "M20"\nsteps = [{ id = "lock", after = [] }]\nshare = 0.5')
    first = data_file(name)
    assert first == {"thread": "M20", "steps": [{"id": "lock", "after": []}], "share": 0.5}
    assert data_file(name) == first
    assert len(parsed) == len(kept(tmp_path)) == 1


@pytest.mark.parametrize(("text", "at"), [('thread = "M22"', 2), ('thread = "M200"', 1)])
def test_it_is_parsed_again_when_it_changed(
    tmp_path: Path, parsed: list[str], text: str, at: int
) -> None:
    data_file(written(tmp_path, 'thread = "M20"'))
    assert data_file(written(tmp_path, text, at)) == tomllib.loads(text)
    assert len(parsed) == 2


@pytest.mark.parametrize("left", [b"", b"\xff\x00rubbish", b"i\x01\x00\x00\x00", b"("])
def test_what_a_crash_left_is_parsed_again(tmp_path: Path, parsed: list[str], left: bytes) -> None:
    name = written(tmp_path, 'thread = "M20"')
    data_file(name)
    (one,) = kept(tmp_path)
    one.write_bytes(left)
    assert data_file(name) == data_file(name) == {"thread": "M20"}
    assert len(parsed) == 2


def test_nothing_is_kept_where_it_can_not_be(
    tmp_path: Path, parsed: list[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "__pycache__").write_text("no folder")
    name = written(tmp_path, 'thread = "M20"')
    assert data_file(name) == data_file(name) == {"thread": "M20"}
    other = tmp_path / "other"
    other.mkdir()
    assert data_file(written(other, "on = 2026-01-01"))["on"].year == 2026
    monkeypatch.setattr(sys, "dont_write_bytecode", True)
    data_file(written(other, "share = 1"))
    assert not list(other.rglob("*.toml.*"))
    assert len(parsed) == 4


def test_a_file_that_is_not_there_says_so() -> None:
    with pytest.raises(FileNotFoundError):
        data_file("arrangements", "tricycle")
