"""The JSON door: exit codes, one line for what is wrong, the field by its path."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wheelend import cli
from wheelend.door.calculations import SUMMARIES, named
from wheelend.errors import BadInput

LAUNCHER = Path(__file__).resolve().parents[2] / "zesty"
SRC = Path(cli.__file__).resolve().parents[1]
VERDICT = {"readings": ["0.1 mm"], "limits": {"low": "0 mm"}, "resolution": "0.01 mm"}
SHIMS: dict[str, Any] = {
    "effect": "opens", "sides": 1, "trials": [{"pack": ["0.5 mm"], "result": {"play": "0 mm"}}],
    "tray": [], "limits": {"low": "0.1 mm", "high": "0.2 mm"}, "aim": "middle", "resolution": "0.01 mm",
}  # fmt: skip
ENDPLAY = {"pairs": [{"in": "0 mm", "out": "1 mm"}], "resolution": "0.01 mm"}


def ask(
    name: str, case: Any, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> tuple[int, str, str]:
    file = tmp_path / "case.json"
    file.write_text(case if isinstance(case, str) else json.dumps(case), encoding="utf-8")
    code = cli.main([name, str(file)])
    out, err = capsys.readouterr()
    return code, out, err


@pytest.mark.parametrize(
    ("name", "case", "path"),
    [
        ("verdict", {**VERDICT, "limits": {"low": "0.2 kg"}}, "limits.low: "),
        ("verdict", {**VERDICT, "limits": {"low": "5 N·m"}}, "limits.low: "),
        ("verdict", {**VERDICT, "limits": {}}, "limits: "),
        ("verdict", {**VERDICT, "resolution": "0 mm"}, "resolution: "),
        ("verdict", {**VERDICT, "resolution": "0.000001 mm"}, "resolution: "),
        ("verdict", {**VERDICT, "readings": []}, "readings: "),
        ("verdict", {**VERDICT, "readings": ["0.1 mm", 3]}, "readings[1]: "),
        ("verdict", {**VERDICT, "colour": 1}, "colour: "),
        ("verdict", {**VERDICT, "band": ["0 mm", "1 mm"]}, "readings: "),
        ("verdict", {"limits": {"low": "0 mm"}, "resolution": "1 mm"}, "readings: "),
        ("verdict", {**VERDICT, "differences": 1}, "differences: "),
        ("verdict", {"band": ["2 mm", "1 mm"], "limits": {"low": "0 mm"}, "resolution": "1 mm"}, "band: "),
        ("verdict", {"band": ["2 mm"], "limits": {"low": "0 mm"}, "resolution": "1 mm"}, "band: "),
        ("verdict", [], ""), ("verdict", "", ""), ("verdict", "{", ""), ("verdict", "NaN", ""),
        ("verdict", '{"readings": ["1 mm"], "readings": ["1 mm"]}', "readings: "),
        ("verdict", "[" * 100_000, ""), ("verdict", '{"readings": 1e999}', ""),
        ("end-play", {**ENDPLAY, "pairs": [{"in": "0 mm", "out": "1 mm", "clock": "13"}]}, "pairs[0].clock: "),
        ("end-play", {**ENDPLAY, "pairs": [{"in": "0 mm"}]}, "pairs[0].out: "),
        ("end-play", {**ENDPLAY, "runout": "-1 mm"}, "runout: "),
        ("shim-plan", {**SHIMS, "sides": True}, "sides: "),
        ("shim-plan", {**SHIMS, "sides": 3}, "sides: "),
        ("shim-plan", {**SHIMS, "sides": 2}, "trials[0].pack: "),
        ("shim-plan", {**SHIMS, "limits": {"low": "0.1 mm"}}, "limits.high: "),
        ("shim-plan", {**SHIMS, "tray": [{"thickness": "1 mm", "count": 1.5}]}, "tray[0].count: "),
        ("shim-plan", {**SHIMS, "tray": [{"thickness": "200 mm", "count": 1}]}, "tray[0].thickness: "),
        ("shim-plan", {**SHIMS, "aim": "sideways"}, "aim: "),
        ("shim-plan", {**SHIMS, "trials": [{"pack": [], "result": "tight"}]}, "trials[0].result: "),
        ("shim-plan", {**SHIMS, "trials": [{"pack": [], "result": {"play": "x"}}]}, "trials[0].result.play: "),
        ("shim-plan", {**SHIMS, "limits": {"low": "0.1 mm", "high": "0.1 mm"}}, "search_step: "),
    ],
)  # fmt: skip
def test_bad_input_is_one_line_with_the_path(
    name: str, case: Any, path: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    code, out, err = ask(name, case, tmp_path, capsys)
    assert (code, out) == (2, "")
    assert err.startswith(path), err
    assert err.count("\n") == 1


@pytest.mark.parametrize(
    "arguments", [[], ["nonsense"], ["verdict", "/no/such/file"], ["verdict", "/"], ["--x"]]
)
def test_bad_calls_are_one_line(arguments: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    assert cli.main(arguments) == 2
    out, err = capsys.readouterr()
    assert (out, err.count("\n")) == ("", 1)


def test_not_utf_8_is_one_line(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "case.json"
    file.write_bytes(b"\xff\xfe\x00")
    assert cli.main(["verdict", str(file)]) == 2
    assert "UTF-8" in capsys.readouterr().err


def test_the_list_and_the_schemas(capsys: pytest.CaptureFixture[str]) -> None:
    assert cli.main(["--list"]) == 0
    assert len(capsys.readouterr().out.splitlines()) == len(SUMMARIES)
    for name in SUMMARIES:
        assert cli.main([name, "--schema"]) == 0
        schema = json.loads(capsys.readouterr().out)
        assert schema["additionalProperties"] is False
        assert schema["required"]


@pytest.mark.parametrize(
    ("name", "case"), [("shim-plan", SHIMS), ("procedure", {"arrangement": "preset"})]
)
def test_the_launchers_door_says_what_the_core_says(name: str, case: dict[str, Any]) -> None:
    done = subprocess.run(
        [sys.executable, str(LAUNCHER), "calc", name], input=json.dumps(case), capture_output=True,
        text=True, check=True,
    )  # fmt: skip
    assert json.loads(done.stdout) == json.loads(json.dumps(named(name).calculate(case)))


def test_an_answer_that_cannot_be_written_is_one_line() -> None:
    with Path("/dev/full").open("w") as full:
        done = subprocess.run(
            [sys.executable, str(LAUNCHER), "calc", "--list"], stdout=full, stderr=subprocess.PIPE,
            text=True, check=False,
        )  # fmt: skip
    assert done.returncode == 1
    assert done.stderr == "The answer can't be written: No space left on device.\n"


def test_as_a_program_with_standard_input() -> None:
    done = subprocess.run(
        [sys.executable, "-m", "wheelend", "verdict"], input=json.dumps(VERDICT), text=True,
        capture_output=True, env={"PYTHONPATH": str(SRC)}, check=False,
    )  # fmt: skip
    assert done.returncode == 0
    assert json.loads(done.stdout)["verdict"] == "within"
    odd = '{"\\ud800\\n": 1}'
    done = subprocess.run(
        [sys.executable, "-m", "wheelend", "verdict", "-"], input=odd, text=True,
        capture_output=True, env={"PYTHONPATH": str(SRC), "LANG": "C"}, check=False,
    )  # fmt: skip
    assert (done.returncode, done.stdout, done.stderr.count("\n")) == (2, "", 1)
    assert "Traceback" not in done.stderr


json_values = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8)
    | st.sampled_from(["0.1 mm", "bound", "middle", "opens", "12"]),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(
        st.sampled_from([*SHIMS, *ENDPLAY, *VERDICT, "in", "out", "low", "x"]), inner, max_size=4),
    max_leaves=12,
)  # fmt: skip


@settings(max_examples=200, deadline=None)
@given(st.sampled_from(sorted(SUMMARIES)), json_values)
def test_whatever_comes_is_answered_or_refused(name: str, value: Any) -> None:
    try:
        answer = named(name).calculate(value)
    except BadInput as bad:
        assert str(bad)
    else:
        json.dumps(answer, allow_nan=False)
