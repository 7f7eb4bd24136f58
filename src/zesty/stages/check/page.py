"""Check: hands on the wheel, the causes as they weigh now, and what would tell most per minute."""

from dataclasses import dataclass

from wheelend.diagnose import Diagnosis, Offer, Ranked, Reason, table
from wheelend.diagnose.table import Check
from wheelend.diagnose.telling import tells_apart
from wheelend.procedure.asking.checks import (
    begun,
    diagnosed,
    due_place,
    gauged_at,
    readings_of,
    slot_of,
    words,
)
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.wording import both
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile, free_ends
from zesty.drawings.hands import Dial, Weighed, hands

_CAUSES, _CHECKS = 5, 4
_REASONS = 2


@dataclass(frozen=True)
class CheckRow:
    """One check that may be done: how long it takes, and which causes it parts."""

    id: str
    says: str
    minutes: int
    parts: tuple[str, str] | None
    due: bool


def scene(file: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The wheel and the causes while it is looked at; the section once there is a verdict."""
    rows = [row for row in unit.progress.in_stage(stage) if row.step.entry == "checks"]
    if not rows:
        drawing, narrow = drawn(section_view(unit, play=False))
        return Scene(drawing, narrow)
    row, due = rows[0], unit.progress.due_in(stage) if file.job.is_open else None
    found = diagnosed(row.at)
    half = begun(row.at)
    check = _asked(found, place or (half.id if half else ""))
    causes = tuple(_cause(one) for one in found.causes[:_CAUSES])
    panels = _panels(found, check, causes)
    if due is None or due.step.id != row.step.id:
        line = _verdict_line(unit, found) if due and due.step.kind == "verdict" else None
        panels = (*panels, *_other_end(file, unit))
        return Scene(hands("", "", causes), hands("", ""), panels, line=line)
    shown = (check.id if check else "", _where(check))
    dial = _dial(row, check)
    more = {
        "check": check, "slot": slot_of(row.at, check.id) if check else None, "found": found,
        "answers": _answers(check), "begun": bool(row.at.entries),
        "enough": found.enough and not place and not half, **_gauge(row, check),
    }  # fmt: skip
    line = _line(found, check, row, enough=more["enough"])
    wide, narrow = hands(*shown, causes, dial=dial), hands(*shown, dial=dial)
    return Scene(wide, narrow, panels, line=line, more=more)


def _dial(row: Row, check: Check | None) -> Dial | None:
    """The hub's face while its runout is read."""
    if check is None or check.gauge != "swing":
        return None
    read = {
        place: one.typed.removesuffix(" mm") for place, one in readings_of(row.at, check).items()
    }
    return Dial(due_place(row.at, check), read)


def _gauge(row: Row, check: Check | None) -> dict[str, str]:
    """The place of a measured check that is due; or its figure, where the card has no limit for it."""
    if check is None or not check.gauge:
        return {}
    found = gauged_at(row.at, check)
    figure = f"{found.figure}. {found.why or 'The card has no limit for it.'}" if found else ""
    due = due_place(row.at, check)
    return {"due": due and f"{check.says}, {check.places[due]}", "figure": figure}


def _other_end(file: JobFile, unit: UnitFile) -> tuple[Panel, ...]:
    """The other ends of the axle that nobody works on, offered with one press."""
    ends = free_ends(file, unit) if file.job.is_open else []
    return (Panel("stages/check/other_end.html", {"ends": ends}),) if ends else ()


def _asked(found: Diagnosis, place: str) -> Check | None:
    """The check that was asked for, or the one that tells most per minute."""
    known = {check.id: check for check in table().checks}
    if place in known:
        return known[place]
    return found.next_check.check if found.next_check else None


def _answers(check: Check | None) -> tuple[tuple[str, str], ...]:
    return tuple((answer, words(answer)) for answer in check.answers) if check else ()


_WHERES = {
    "asked": "asked of the driver",
    "road": "on the road, or run",
    "raised": "raised, wheel on",
    "wheel_off": "wheel off, hub bare",
    "hub_off": "hub off",
    "deck": "deck raised, blades still",
}


def _where(check: Check | None) -> str:
    return _WHERES[check.where] if check else ""


def _line(found: Diagnosis, check: Check | None, row: Row, *, enough: bool) -> NextLine:
    likeliest = f"{found.first.cause.short}, {round(100 * found.first.share)} %"
    if "contradiction" in found.flags:
        pairs = [_and(one) for one in found.contradicted]
        why = f"These contradict each other: {'; '.join(pairs)}. Look again at one of them."
        return NextLine("check", check.asks if check else "Look again.", "", "", why)
    if enough:
        why = "Enough to go by, unless something else should be looked at first."
        return NextLine("checked", "Likeliest:", likeliest, ". On to the verdict.", why)
    if check is None:
        return NextLine("checked", "Nothing more to look at:", "say what it is", ".", row.step.why)
    why = f"Now likeliest: {likeliest}."
    if found.next_check and found.next_check.check.id == check.id:
        why += f" This tells most for its {check.minutes} min."
    return NextLine("check", check.asks, "", "", why)


def _and(checks: tuple[str, ...]) -> str:
    return " and ".join(table().check(one).says.lower() for one in checks)


def _verdict_line(unit: UnitFile, found: Diagnosis) -> NextLine:
    first = found.first
    why = ""
    if first.cause.id == "nothing_wrong" and unit.card.hands:
        felt = both(unit.card.hands.smallest_felt_mm, lead=unit.lead)
        why = f"Hands feel {felt} of play and more here."
    elif found.before_parts:
        why = f"Before parts are ordered: {_and(found.before_parts)}."
    if found.also:
        name = next(one for one in found.causes if one.cause.id == found.also.cause)
        why += f" Left over, and likely: {name.cause.short}."
    key = f"{first.cause.short}, {round(100 * first.share)} %"
    return NextLine(
        "verdict", "Likeliest:", key, ". What is it, and what has to be done?", why.strip()
    )


def _panels(
    found: Diagnosis, check: Check | None, causes: tuple[Weighed, ...]
) -> tuple[Panel, ...]:
    checks = tuple(_check(one, found, check) for one in found.open[:_CHECKS])
    parked = "no_road_test" in found.flags
    return (
        Panel("stages/check/causes.html", {"causes": causes, "parked": parked}),
        Panel("stages/check/checks.html", {"checks": checks}),
    )


def _cause(one: Ranked) -> Weighed:
    """A cause with what speaks for it; where nothing does, with what speaks against it."""
    speaks = [why for why in one.because if why.times > 1]
    said = [_reason(why) for why in speaks[:_REASONS]]
    if not said and one.because:
        said = [f"against it: {_reason(one.because[0])}"]
    return Weighed(one.cause.short, one.share, "; ".join(said))


def _reason(why: Reason) -> str:
    return f"{table().check(why.check).says.lower()}: {words(why.answer)}"


def _check(offer: Offer, found: Diagnosis, check: Check | None) -> CheckRow:
    apart = tells_apart(offer.check, found.causes)
    names = (apart[0].short, apart[1].short) if apart else None
    return CheckRow(
        offer.check.id, offer.check.says, offer.minutes, names,
        check is not None and check.id == offer.check.id,
    )  # fmt: skip
