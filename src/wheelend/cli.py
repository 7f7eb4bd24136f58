"""`python -m wheelend CALCULATION [FILE|-]`: one JSON case in, one JSON result out."""

import argparse
import json
import math
import sys
from pathlib import Path
from typing import Any

from wheelend.door.calculations import CALCULATIONS, named
from wheelend.errors import BadInput, echo

BAD_INPUT = 2


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> Any:
        raise BadInput("", "", f"{message}; usage: wheelend CALCULATION [FILE|-], or --list")


def main(arguments: list[str] | None = None) -> int:
    """Answer one case; exit code 0, or 2 with one line on standard error."""
    try:
        print(_run(_parser().parse_args(arguments)))
    except BadInput as bad:
        line = " ".join(str(bad).split())
        sys.stderr.write(line.encode("utf-8", "backslashreplace").decode("utf-8") + "\n")
        return BAD_INPUT
    return 0


def _parser() -> _Parser:
    parser = _Parser(prog="wheelend", description=__doc__)
    parser.add_argument("calculation", nargs="?")
    parser.add_argument("file", nargs="?", default="-")
    parser.add_argument("--list", action="store_true", help="the calculations, a line each")
    parser.add_argument("--schema", action="store_true", help="the JSON schema of the case")
    return parser


def _run(options: argparse.Namespace) -> str:
    if options.list:
        return "\n".join(f"{name}: {c.summary}" for name, c in CALCULATIONS.items())
    if options.calculation is None:
        raise BadInput("", "", "name a calculation, or give --list")
    calculation = named(options.calculation)
    if options.schema:
        return json.dumps(calculation.schema(), indent=1, ensure_ascii=False)
    case = loads(_text(options.file))
    try:
        return json.dumps(calculation.calculate(case), ensure_ascii=False)
    except RecursionError:
        raise BadInput("", "", "the case is nested too deeply or lists too much") from None


def _text(file: str) -> str:
    try:
        raw = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
        return raw.decode("utf-8-sig")
    except OSError as error:
        raise BadInput("", echo(file), f"cannot be read: {error.strerror}") from None
    except UnicodeDecodeError:
        raise BadInput("", echo(file), "is not UTF-8 text") from None
    except ValueError:
        raise BadInput("", echo(file), "is not a file name") from None


def loads(text: str) -> object:
    """JSON text as plain values. Raises BadInput for NaN, infinities and a key given twice."""
    try:
        value: object = json.loads(
            text,
            object_pairs_hook=_object,
            parse_constant=_not_finite,
            parse_float=_finite,
        )
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise BadInput("", "the case", f"is not JSON: {error.msg} at {where}") from None
    except RecursionError:
        raise BadInput("", "the case", "is nested too deeply") from None
    except BadInput:
        raise
    except ValueError:
        raise BadInput("", "the case", "has a number with too many digits") from None
    return value


def _object(pairs: list[tuple[str, object]]) -> dict[str, object]:
    seen: dict[str, object] = {}
    for name, value in pairs:
        if name in seen:
            raise BadInput(name, "", "is given twice; give it once")
        seen[name] = value
    return seen


def _not_finite(name: str) -> float:
    raise BadInput("", name, "is not a number; give a finite one")


def _finite(text: str) -> float:
    number = float(text)
    if not math.isfinite(number):
        raise BadInput("", text, "is too large a number")
    return number
