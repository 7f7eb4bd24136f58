"""`python -m wheelend CALCULATION [FILE|-]`: one JSON case in, one JSON result out."""

import json
import math
import sys

from wheelend.door.calculations import SUMMARIES, named
from wheelend.errors import BadInput, echo

BAD_INPUT = 2
_USAGE = "usage: wheelend CALCULATION [FILE|-], wheelend CALCULATION --schema, or wheelend --list"


def main(arguments: list[str] | None = None) -> int:
    """Answer one case; exit code 0, or 2 with one line on standard error."""
    try:
        print(_run(sys.argv[1:] if arguments is None else arguments))
    except BadInput as bad:
        line = " ".join(str(bad).split())
        sys.stderr.write(line.encode("utf-8", "backslashreplace").decode("utf-8") + "\n")
        return BAD_INPUT
    return 0


def _run(words: list[str]) -> str:
    # Read by hand: a parser of options takes longer to start than a case to answer.
    flags = {word for word in words if word.startswith("--")}
    plain = [word for word in words if word not in flags]
    unknown = flags - {"--list", "--schema", "--help"}
    if unknown or len(plain) > 2 or "--help" in flags:
        raise BadInput("", " ".join(sorted(unknown)), _USAGE)
    if "--list" in flags:
        return "\n".join(f"{name}: {summary}" for name, summary in SUMMARIES.items())
    if not plain:
        raise BadInput("", "", f"name a calculation; {_USAGE}")
    calculation = named(plain[0])
    if "--schema" in flags:
        return json.dumps(calculation.schema(), indent=1, ensure_ascii=False)
    case = loads(_text(plain[1] if len(plain) > 1 else "-"))
    try:
        return json.dumps(calculation.calculate(case), ensure_ascii=False)
    except RecursionError:
        raise BadInput("", "", "the case is nested too deeply or lists too much") from None
    except OverflowError:
        raise BadInput("", "the case", "has a number that is too large to reckon with") from None


def _text(file: str) -> str:
    try:
        if file == "-":
            raw = sys.stdin.buffer.read()
        else:
            with open(file, "rb") as opened:  # noqa: PTH123  pathlib takes longer to start than this
                raw = opened.read()
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
