"""Every example case of the contract, through the door as a program would use it."""

import json
import math
from pathlib import Path
from typing import Any

import pytest

from wheelend import cli

CASES = sorted((Path(__file__).parent / "cases").glob("*.json"))


def same(got: Any, wanted: Any) -> bool:
    if isinstance(wanted, float | int) and not isinstance(wanted, bool):
        return math.isclose(got, wanted, rel_tol=1e-6, abs_tol=1e-12)
    if isinstance(wanted, dict):
        return all(same(got[name], value) for name, value in wanted.items())
    if isinstance(wanted, list):
        return len(got) == len(wanted) and all(map(same, got, wanted))
    return got == wanted


@pytest.mark.parametrize("path", CASES, ids=lambda path: path.stem)
def test_case(path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    example = json.loads(path.read_text())
    file = tmp_path / "case.json"
    file.write_text(example["raw"] if "raw" in example else json.dumps(example["case"]))
    code = cli.main([example["calculation"], str(file)])
    out, err = capsys.readouterr()
    if "error" in example["expect"]:
        assert (code, out) == (2, "")
        assert example["expect"]["error"] in err
        assert err.count("\n") == 1
        return
    assert code == 0, err
    result = json.loads(out)
    for key, wanted in example["expect"].items():
        assert same(result[key], wanted), f"{key}: {result[key]} is not {wanted}"


def test_there_are_cases() -> None:
    assert len(CASES) >= 15
