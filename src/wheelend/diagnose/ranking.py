"""The causes by their share, what speaks for each, and the check that tells most per minute."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from wheelend.diagnose.case import Case, contradicted, no_road_test, waits
from wheelend.diagnose.table import Cause, Check, Table, table

ENOUGH = 0.8
"""The share from which on the first cause is acted upon."""

_LEAST_BITS = 0.01
_LEFT_OVER = 5
_RESTING = "nothing_wrong"
_DECK_CAUTION = "blades still, spark lead or battery off."


@dataclass(frozen=True)
class Reason:
    """One answer and what it says of a cause: above 1 it speaks for it, below 1 against."""

    check: str
    answer: str
    times: float


@dataclass(frozen=True)
class Ranked:
    """One cause with its share of all, from 0 to 1, and the answers that made it, strongest first."""

    cause: Cause
    share: float
    because: tuple[Reason, ...]


@dataclass(frozen=True)
class Offer:
    """One check that may be done next: what it would tell, in bits, and its caution."""

    check: Check
    gain_bits: float
    caution: str

    @property
    def minutes(self) -> int:
        """How long it takes."""
        return self.check.minutes


@dataclass(frozen=True)
class Also:
    """A second thing that is likely wrong: what the first cause leaves unexplained."""

    cause: str
    explains: tuple[str, ...]


@dataclass(frozen=True)
class Diagnosis:
    """The ranking, what to do next, and what speaks against the evidence itself."""

    causes: tuple[Ranked, ...]
    open: tuple[Offer, ...]
    enough: bool
    before_parts: tuple[str, ...]
    also: Also | None
    flags: tuple[str, ...]
    contradicted: tuple[tuple[str, ...], ...]

    @property
    def first(self) -> Ranked:
        """The likeliest cause."""
        return self.causes[0]

    @property
    def next_check(self) -> Offer | None:
        """The check that tells most per minute."""
        return self.open[0] if self.open else None


def diagnose(case: Case, numbers: Table | None = None) -> Diagnosis:
    """Rank the causes of a case and say which check to do next.

    share = prior · product of the chances of the answers, over the sum of that for all causes not left
    out; gain = H − Σ P(a)·H(with a), in bits. Multiplied in the order of the table, so evidence in
    another order gives the same. Source: Bayes' rule with answers independent given the cause;
    Shannon (1948).

    >>> from wheelend.diagnose import Answer, Case, diagnose
    >>> diagnose(Case((Answer("nut_found", "slack"),))).first.cause.id
    'nut_slack'
    """
    numbers = numbers or table()
    answers = case.answers
    causes = case.causes
    shares = _shares(causes, answers, case.arrangement, numbers)
    clashes = contradicted(answers, numbers)
    parked = no_road_test(answers, numbers)
    offers = _offers(case, answers, shares, numbers, parked=parked)
    order = sorted(range(len(causes)), key=lambda index: -shares[index])
    ranked = tuple(
        Ranked(causes[i], shares[i], _because(causes[i], causes, answers, case, numbers))
        for i in order
    )
    first = ranked[0].cause.id
    flags = {"contradiction": bool(clashes), "no_road_test": parked}
    return Diagnosis(
        causes=ranked,
        open=offers,
        enough=not clashes and (ranked[0].share >= ENOUGH or not offers),
        before_parts=_before_parts(first, answers, numbers),
        also=_also(first, causes, answers, case, numbers),
        flags=tuple(flag for flag, there in flags.items() if there),
        contradicted=clashes,
    )


def _shares(
    causes: Sequence[Cause], answers: Mapping[str, str], arrangement: str | None, numbers: Table
) -> list[float]:
    weights = [cause.weight(arrangement) for cause in causes]
    for key, answer in answers.items():
        check = numbers.check(key)
        weights = [w * check.chance(c.id, answer) for w, c in zip(weights, causes, strict=True)]
        # Scaled at each step, or a long list of answers would end below what a float can hold.
        whole = sum(weights)
        weights = [weight / whole for weight in weights]
    whole = sum(weights)
    return [weight / whole for weight in weights]


def _bits(shares: Sequence[float]) -> float:
    return -sum(share * math.log2(share) for share in shares if share > 0)


def _offers(
    case: Case, answers: Mapping[str, str], shares: Sequence[float], numbers: Table, *, parked: bool
) -> tuple[Offer, ...]:
    ids = [cause.id for cause in case.causes]
    offers = []
    for check in numbers.checks:
        held = waits(check, answers, numbers) or (parked and check.where == "road")
        if check.id in answers or held or not case.takes(check):
            continue
        gain = _gain(check, ids, shares)
        if gain >= _LEAST_BITS:
            offers.append(Offer(check, gain, _caution(check, case)))
    return tuple(sorted(offers, key=lambda one: -one.gain_bits / one.minutes))


def _gain(check: Check, causes: Sequence[str], shares: Sequence[float]) -> float:
    """How much an answer would tell on average: the fall of the entropy, in bits."""
    left = 0.0
    for index in range(len(check.answers)):
        with_it = [s * check.chances[c][index] for s, c in zip(shares, causes, strict=True)]
        chance = sum(with_it)
        left += chance * _bits([one / chance for one in with_it])
    return _bits(shares) - left


def _caution(check: Check, case: Case) -> str:
    if not case.on_deck or check.where == "deck":
        return check.caution
    own = check.caution.rstrip(".")
    said = f"{own}; {_DECK_CAUTION}" if own else _DECK_CAUTION
    return said[0].upper() + said[1:]


def _because(
    cause: Cause, causes: Sequence[Cause], answers: Mapping[str, str], case: Case, numbers: Table
) -> tuple[Reason, ...]:
    weights = [one.weight(case.arrangement) for one in causes]
    whole = sum(weights)
    found = []
    for key, answer in answers.items():
        check = numbers.check(key)
        mean = sum(w * check.chance(c.id, answer) for w, c in zip(weights, causes, strict=True))
        found.append(Reason(key, answer, check.chance(cause.id, answer) * whole / mean))
    return tuple(sorted(found, key=lambda reason: -abs(math.log(reason.times))))


def _before_parts(first: str, answers: Mapping[str, str], numbers: Table) -> tuple[str, ...]:
    """What to rule out before parts are ordered: a slack nut feels like a bearing, a bent hub spoils one."""
    rule = numbers.rules["before_parts"]
    if first not in rule["causes"]:
        return ()
    return tuple(check for check in rule["checks"] if check not in answers)


def _also(
    first: str, causes: Sequence[Cause], answers: Mapping[str, str], case: Case, numbers: Table
) -> Also | None:
    """A second cause, where answers are left over that some cause makes far likelier than the first does."""

    def tells(cause: str, key: str) -> bool:
        check, answer = numbers.check(key), answers[key]
        known = max(check.chance(first, answer), check.chance(_RESTING, answer))
        return check.chance(cause, answer) >= _LEFT_OVER * known

    left = [key for key in answers if any(tells(cause.id, key) for cause in causes)]
    others = [cause for cause in causes if cause.id not in (first, _RESTING)]
    if not left or not others:
        return None

    def weight(cause: Cause) -> float:
        chances = (numbers.check(key).chance(cause.id, answers[key]) for key in left)
        return cause.weight(case.arrangement) * math.prod(chances)

    best = max(others, key=weight)
    return Also(best.id, tuple(key for key in left if tells(best.id, key)))
