"""Methods of setting: each turns the entries of a unit into a judgement.

One folder a method, under the name that it has among `METHODS` of the trade's words.
"""

from collections.abc import Callable
from dataclasses import replace
from importlib import import_module
from typing import Any, Literal

from wheelend.methods import by_hand, recheck
from wheelend.methods.claiming import common_claims, unsettled
from wheelend.methods.judgement import Account, Bench, Claim, Judgement, Measured, Remedy
from wheelend.procedure.nextline import NextLine, line_of
from wheelend.procedure.progress import Row

Statement = Literal["proven", "set", "by_hand", "unsourced", "not_set"]

__all__ = [
    "Account",
    "Bench",
    "Claim",
    "Judgement",
    "Measured",
    "Statement",
    "account_at",
    "blocking",
    "claims_of",
    "judge",
    "line_at",
    "offered_at",
    "statement_of",
]


def judge(bench: Bench) -> Judgement:
    """Judge a unit by the method that its card names; one that stayed closed, by what was found."""
    if bench.progress.purpose == "recheck":
        return recheck.judge(bench)
    if bench.progress.verdict == "nothing_wrong":
        return by_hand.judge(bench)
    judges: Callable[[Bench], Judgement] = _method(bench.progress.card.setting.method).judge
    return judges(bench)


def _method(name: str) -> Any:
    return import_module(f"wheelend.methods.{name}")


def _others(bench: Bench) -> tuple[Any, ...]:
    """The methods by which a card sets its other clamps."""
    leading = bench.progress.card.setting
    settings = bench.progress.card.settings
    names = dict.fromkeys(one.method for one in settings if one.clamp != leading.clamp)
    return tuple(_method(name) for name in names)


def _further(bench: Bench) -> tuple[Claim, ...]:
    """What is claimed of other clamps by methods of their own."""
    found = (getattr(one, "further", None) for one in _others(bench))
    return tuple(claim for further in found if further for claim in further(bench))


def _by_others(bench: Bench, name: str, row: Row) -> Any:
    """What the first method of another clamp answers at a step that has something to say there."""
    asked = (getattr(one, name, None) for one in _others(bench))
    return next((found for ask in asked if ask and (found := ask(bench, row))), None)


def line_at(bench: Bench, judgement: Judgement, row: Row) -> NextLine:
    """What to do at a step: by the leading method, that of its clamp, or as the step itself has it."""
    found: NextLine | None = judgement.line(row) or _by_others(bench, "line_of", row)
    return found or line_of(row)


def offered_at(bench: Bench, judgement: Judgement, row: Row) -> Remedy | None:
    """What is opened where a step says that it is outside: by the leading method, or that of its clamp."""
    found: Remedy | None = judgement.remedy(row) or _by_others(bench, "remedy_of", row)
    return found


def account_at(bench: Bench, judgement: Judgement, row: Row) -> Account | None:
    """What differs at a step and wants to be accounted for: by the leading method, or that of another clamp."""
    found: Account | None = judgement.account(row) or _by_others(bench, "account_of", row)
    return found


def claims_of(bench: Bench, judgement: Judgement) -> tuple[Claim, ...]:
    """Every claim about a unit: those of its method first."""
    source, *rest = common_claims(bench)
    foreign = {row.id for row in bench.progress.standing if row.elsewhere}
    claims = unsettled((source, *judgement.claims, *_further(bench), *rest))
    return tuple(_vouched(claim, foreign) for claim in claims)


def _vouched(claim: Claim, foreign: set[int]) -> Claim:
    """What rests on rows from elsewhere is not proven here, whatever they say."""
    if not claim.proven or foreign.isdisjoint(claim.rests_on):
        return claim
    return replace(claim, proven=False, fact=f"{claim.fact}; written elsewhere")


def statement_of(bench: Bench, claims: tuple[Claim, ...]) -> Statement:
    """What the sheet may say over all."""
    if any(claim.blocks for claim in claims):
        return "not_set"
    if bench.progress.card.unsourced:
        return "unsourced"
    if all(claim.proven for claim in claims):
        return "proven"
    by_hand_only = any(claim.fact.startswith("judged by hand") for claim in claims)
    return "by_hand" if by_hand_only else "set"


def blocking(claims: tuple[Claim, ...]) -> tuple[Claim, ...]:
    """What must be written before it can be signed as anything but not set."""
    return tuple(claim for claim in claims if claim.blocks)
