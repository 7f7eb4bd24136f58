"""The `diagnose` case."""

from wheelend.arrangements.vocabulary import ARRANGEMENTS
from wheelend.diagnose import Answer, Case, Offer, diagnose, table
from wheelend.diagnose.case import AXLES
from wheelend.diagnose.table import UNKNOWN
from wheelend.readers import Json, ListOf, Record, Word


def _case() -> Record:
    checks = tuple(check.id for check in table().checks)
    answers = {answer: None for check in table().checks for answer in check.answers}
    answer = Record({"check": Word(checks), "answer": Word((*answers, UNKNOWN))})
    return Record(
        {"evidence": ListOf(answer, least=0)},
        {
            "arrangement": Word(ARRANGEMENTS),
            "axle": Word(AXLES),
            "leave_out": ListOf(Word(checks), least=0),
        },
    )


def calculate(value: object) -> Json:
    """Read a diagnose case and answer it."""
    said = _case().read(value, "")
    found = diagnose(
        Case(
            tuple(Answer(one["check"], one["answer"]) for one in said["evidence"]),
            said.get("arrangement"),
            said.get("axle"),
            tuple(said.get("leave_out", ())),
        )
    )
    result: Json = {
        "causes": [
            {
                "cause": one.cause.id,
                "share": one.share,
                "because": [
                    {"check": why.check, "answer": why.answer, "times": why.times}
                    for why in one.because
                ],
            }
            for one in found.causes
        ],
        "open": [_offer(one) for one in found.open],
        "enough": found.enough,
        "before_parts": list(found.before_parts),
        "flags": list(found.flags),
    }
    if found.next_check:
        result["next_check"] = _offer(found.next_check)
    if found.also:
        result["also"] = {"cause": found.also.cause, "explains": list(found.also.explains)}
    if found.contradicted:
        result["contradicted"] = [list(one) for one in found.contradicted]
    return result


def _offer(one: Offer) -> Json:
    said: Json = {"check": one.check.id, "minutes": one.minutes, "gain_bits": one.gain_bits}
    return {**said, "caution": one.caution} if one.caution else said


def schema() -> Json:
    """The JSON schema of a diagnose case."""
    return _case().schema()
