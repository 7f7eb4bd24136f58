"""The `end-play` case."""

from wheelend.door.verdict import gauge_of, limits_from, limits_of
from wheelend.endplay import EndPlay, Pair, end_play
from wheelend.errors import BadInput
from wheelend.quantity import LENGTH
from wheelend.readers import Flag, Json, ListOf, Quantity, Record, Text
from wheelend.verdict import SEATING_AGAIN_MM

_CASE = Record(
    {
        "pairs": ListOf(
            Record(
                {"in": Quantity(LENGTH), "out": Quantity(LENGTH)},
                {"clock": Text('a clock position, "1" to "12" or "4:30"')},
            )
        ),
        "resolution": Quantity(LENGTH, above=0),
    },
    {
        "calibration": Quantity(LENGTH, least=0),
        "limits": limits_of(LENGTH),
        "runout": Quantity(LENGTH, least=0),
        "turned": Flag(),
        "repeatability": Quantity(LENGTH, least=0),
    },
)


def calculate(value: object) -> Json:
    """Read an end-play case and answer it."""
    case = _CASE.read(value, "")
    found = end_play(
        [_pair(pair, f"pairs[{index}]") for index, pair in enumerate(case["pairs"])],
        gauge_of(case),
        limits=limits_from(case) if "limits" in case else None,
        runout_mm=case.get("runout"),
        turned=case.get("turned", False),
        repeatability_mm=case.get("repeatability", SEATING_AGAIN_MM),
    )
    return _answer(found)


def _pair(pair: dict[str, object], path: str) -> Pair:
    try:
        return Pair(pair["in"], pair["out"], pair.get("clock"))  # type: ignore[arg-type]
    except BadInput as bad:
        raise bad.under(path) from None


def _answer(found: EndPlay) -> Json:
    answer: Json = {
        "play_mm": found.play_mm,
        "plays_mm": list(found.plays_mm),
        "spread_mm": found.spread_mm,
        "U_mm": found.U_mm,
        "flags": list(found.flags),
    }
    if found.runout_mm is not None:
        answer["runout_mm"] = found.runout_mm
    if found.verdict:
        answer["verdict"] = found.verdict.word
        answer["margin_mm"] = found.verdict.margin
        if found.verdict.because:
            answer["because"] = found.verdict.because
    return answer


def schema() -> Json:
    """The JSON schema of an end-play case."""
    return _CASE.schema()
