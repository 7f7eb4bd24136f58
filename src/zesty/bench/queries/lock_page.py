"""The torque and lock stage."""

from dataclasses import dataclass, replace
from datetime import date
from fractions import Fraction

from wheelend.bolts import Pass
from wheelend.locknut import LockPlan, Position
from wheelend.procedure.locking import WRENCH_FLAGS, Locking, LockTry, lock_line, why_not
from wheelend.procedure.nextline import NextLine
from wheelend.quantity import ANGLE, parse
from wheelend.wording import Lead, both, length, torque
from wheelend.wrench import wrench_setting
from zesty.bench.models import LockRecord, SeatMove
from zesty.bench.queries.jobfile import JobFile
from zesty.bench.queries.set_page import fitted_packs, section_view
from zesty.bench.queries.stages import Head, head
from zesty.cards.queries import bolt_laps, lock_card
from zesty.drawings.boltcircle import bolt_circle
from zesty.drawings.clock import ClockPlace, nut_clock
from zesty.drawings.section import section
from zesty.stores.models import Wrench
from zesty.stores.queries import core_wrench


@dataclass(frozen=True)
class PlaceRow:
    """One lock place: the turn to it, what it would set, why it is not allowed."""

    angle: str
    torque: str
    why_not: str
    chosen: bool


@dataclass(frozen=True)
class WrenchRow:
    """One wrench: what to set it to here, and what is wrong with it."""

    name: str
    setting: str
    wrong: str


@dataclass(frozen=True)
class BoltLap:
    """One pass of the wheel bolts: its torque, the circle, and the bolt that is next."""

    number: int
    torque: str
    drawing: str
    due: int


@dataclass(frozen=True)
class LockPage:
    """Everything that the torque and lock stage shows."""

    head: Head
    line: NextLine
    doubt: str
    records: tuple[LockRecord, ...]
    moves: tuple[SeatMove, ...]
    reckons: bool
    step: str
    places: tuple[PlaceRow, ...]
    wrenches: tuple[WrenchRow, ...]
    lap: BoltLap | None
    laps_done: str
    locked_packs: tuple[str, str]
    bolts_words: str
    drawings: dict[str, str]


def lock_page(file: JobFile, wrenches: list[Wrench], today: date) -> LockPage:
    """The torque and lock stage of a job as it stands."""
    found = file.assess()
    locking = locking_of(file)
    plan = locking.plan()
    view = replace(section_view(file, found), lit="nut", play="")
    drawings = {
        "section": section(view),
        "section_narrow": section(view, width=358, narrow=True),
    }
    if plan:
        drawings["clock"] = nut_clock(_clock_places(plan))
    laps = bolt_laps(file.job.card_version)
    doubt = ""
    if not found.is_set and not (file.lock and file.lock.done):
        doubt = "The setting is not inside yet; what you write counts, and the sheet will say so."
        if found.play and found.setting.now:
            step = found.setting.now.gauge.resolution
            play = both(found.play.play_mm, step, file.lead)
            doubt += f" Play was {play} ± {length(found.play.U_mm, step, file.lead)}."
    per_turn = locking.card.per_turn
    return LockPage(
        head=head(file, "lock", found),
        line=lock_line(locking),
        doubt=doubt,
        records=file.lock_records,
        moves=file.seat_moves,
        reckons=locking.card.reckons,
        step=f"{360 / per_turn:g} deg between places" if per_turn else "",
        places=tuple(_places(plan, file.lead)) if plan else (),
        wrenches=tuple(
            _wrench(one, locking.card.nut_torque_N_m, today, file.lead) for one in wrenches
        ),
        lap=_lap(file, laps),
        laps_done=f"{len(file.bolt_ticks)} of {sum(len(one.order) for one in laps)}"
        if laps
        else "",
        locked_packs=fitted_packs(file),
        bolts_words="Plate bolts" if found.setting.card.sides == 2 else "Wheel bolts",
        drawings=drawings,
    )


def locking_of(file: JobFile) -> Locking:
    """The lock stage as the core sees it."""
    tried = file.lock_tries[-1] if file.lock_tries else None
    return Locking(
        card=lock_card(file.job.card_version, file.chosen),
        moves_deg=tuple(float(move.deg) for move in file.seat_moves),
        tried=LockTry(parse(tried.to_next, ANGLE), Fraction(tried.torque_N_m)) if tried else None,
        locked=bool(file.lock and file.lock.done),
        read_after=file.read_after_lock,
        lead=file.lead,
    )


def _clock_places(plan: LockPlan) -> tuple[ClockPlace, ...]:
    return tuple(
        ClockPlace(place.angle_deg, place.why_not is None, index == plan.chosen)
        for index, place in enumerate(plan.positions)
    )


def _places(plan: LockPlan, lead: Lead) -> list[PlaceRow]:
    """The places that lie ahead first, near ones before far ones."""
    ordered = sorted(
        enumerate(plan.positions), key=lambda one: (one[1].angle_deg < 0, abs(one[1].angle_deg))
    )
    return [
        PlaceRow(_turn(place), torque(place.torque_N_m, lead) if place.torque_N_m else "", why_not(place),
                 index == plan.chosen)
        for index, place in ordered
    ]  # fmt: skip


def _turn(place: Position) -> str:
    if place.angle_deg == 0:
        return "in line now"
    return f"{abs(place.angle_deg):.0f} deg {'on' if place.angle_deg > 0 else 'back'}"


def _wrench(wrench: Wrench, target_N_m: float, today: date, lead: Lead) -> WrenchRow:
    found = wrench_setting(target_N_m, core_wrench(wrench, today))
    span = f"{found.achieved_low_N_m:.0f} to {found.achieved_high_N_m:.0f} N·m"
    reached = f"{torque(found.setting_N_m, lead)}, reaches {span}"
    return WrenchRow(wrench.name, reached, "; ".join(WRENCH_FLAGS[flag] for flag in found.flags))


def _lap(file: JobFile, laps: tuple[Pass, ...]) -> BoltLap | None:
    """The pass that is being done, or None when all are, or there are none."""
    for number, one in enumerate(laps, 1):
        done = {tick.bolt for tick in file.bolt_ticks if tick.lap == number}
        if len(done) < len(one.order):
            due = next(bolt for bolt in one.order if bolt not in done)
            circle = bolt_circle(len(one.order), one.order, done)
            return BoltLap(number, torque(one.torque_N_m, file.lead), circle, due)
    return None
