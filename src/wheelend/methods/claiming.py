"""What may be claimed whatever the method: from the steps by their kind, each with its entries.

A claim is a small rule. Nothing is claimed that was only true in a closing that has ended: the
rows of a step hold what counts in the closing that lasts.
"""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace

from wheelend.methods.judgement import Bench, Claim, Measured
from wheelend.procedure.asking.bolts import ringed
from wheelend.procedure.asking.torque import Reach, reach_of
from wheelend.procedure.items import items_of
from wheelend.procedure.items.fasteners import untold
from wheelend.procedure.items.frame import latest
from wheelend.procedure.items.locks import lock_words
from wheelend.procedure.items.pressing import home, rings
from wheelend.procedure.locking import window_words, wrong_words
from wheelend.procedure.progress import Row
from wheelend.wording import figure

_ELSEWHERE = frozenset({
    "usage", "complaint", "safe", "identified", "pack", "torque", "dial", "reading", "opening", "seating",
    "place", "lock_torque", "lock", "locked_reading", "bolts", "seated", "second", "sign", "made_free",
    "fastened", "drag", "drag_in_hub", "drag_in_fork", "stand_out", "plate_home", "gap", "turned_after",
    "backlash_after", "recheck_dial", "recheck_read", "recheck_wheel", "lash_free", "turned_back",
    "turned_ways", "fit_drag", "seal_drag", "grease_drag",
})  # fmt: skip
"""Kinds that have a claim of their own, or that say nothing about the setting."""


def common_claims(bench: Bench) -> tuple[Claim, ...]:
    """Every claim that holds for any method, in the order in which they are printed."""
    return tuple(claim for rule in _RULES for claim in rule(bench))


def _ids(rows: Iterable[Row]) -> tuple[int, ...]:
    return tuple(entry.id for row in rows for entry in row.at.entries)


def _at(row: Row) -> str:
    return f", {row.station}" if row.station not in ("", "main") else ""


def _source(bench: Bench) -> Iterator[Claim]:
    card = bench.progress.card
    rivals = card.rival_sources
    if rivals:
        names = " and ".join(source.ref or source.key for source in rivals)
        fact = f"{names} differ, and none was chosen"
        yield Claim("source", "Setting has a source", False, fact)
        return
    source = card.source(card.setting)
    kind = source.kind.replace("_", " ")
    fact = f"{kind}: {source.ref}" if source.ref else kind
    yield Claim("source", "Setting has a source", not card.unsourced, fact)


def _safe(bench: Bench) -> Iterator[Claim]:
    rows = bench.progress.of_kind("safe") + bench.progress.of_kind("identified")
    left = [row.step.says.lower() for row in rows if row.state != "done"]
    fact = f"not written: {', '.join(left)}" if left else "each point ticked at take in"
    yield Claim("safe", "Vehicle made safe, axle known", not left, fact, _ids(rows))


def _torque(bench: Bench) -> Iterator[Claim]:
    rows = bench.progress.of_kind("lock_torque")
    others = [r for r in bench.progress.of_kind("torque") if r.step.phase != "trial"]
    if rows:
        others = [row for row in others if row.step.figure not in ("", "torque")]
    for row in (*rows, *others):
        if not row.step.figure or row.at.setting.torque is None:
            continue  # No torque of the card's: written down, judged by nobody.
        name = f"Nut at its torque{_at(row)}"
        if row.step.figure != "torque":
            name = f"{row.step.says} at its torque"
        if not row.at.entries:
            yield Claim("torque", name, False, "not written", blocks=True)
            continue
        entry = row.at.entries[-1]
        reach = reach_of(entry, row.at.setting)
        torqued = entry.typed
        if entry.value is not None:
            torqued = figure(entry.typed, entry.value, "torque", bench.lead)
        tool = f" with {entry.instrument.name}" if entry.instrument else ""
        fact = f"{torqued}{tool}; the card allows {window_words(reach, row)}{wrong_words(reach)}"
        proven = reach.word == "reached" and reach.sure
        yield Claim(
            "torque", name, proven, fact, (entry.id,), blocks=reach.word in ("below", "above"),
            measured=_measured(entry.value, reach),
        )  # fmt: skip


def _measured(value: float | None, reach: Reach) -> Measured | None:
    if value is None or reach.window is None:
        return None
    return Measured(value, reach.doubt, reach.window.low, reach.window.high)


def _seating(bench: Bench) -> Iterator[Claim]:
    for row in bench.progress.of_kind("seating"):
        if row.step.phase == "trial":
            continue  # It seated what was set then; its method says what that carries.
        moves = ", ".join(entry.typed for entry in row.at.entries)
        done = row.state == "done"
        fact = f"moved {moves}" if moves else "not repeated until still"
        if moves and not done:
            fact += ": still moving"
        yield Claim(
            "seated", f"Seated until still{_at(row)}", done, fact, _ids([row]), blocks=not done
        )


def _lock(bench: Bench) -> Iterator[Claim]:
    for row in bench.progress.of_kind("lock"):
        done = row.state == "done"
        kind = row.at.setting.lock.kind or "no lock named on the card"
        items = items_of(row.at) if row.step.entry == "list" else ()
        unsaid = [one.words for one in items if one.key not in latest(row.at.entries)]
        fact = f"{kind}: {lock_words(row.at)}" if lock_words(row.at) else kind
        if done and unsaid:
            fact += f"; ticked, not said how: {', '.join(unsaid)}"
        if not done:
            fact = f"{kind}: not done"
        name = f"Nut is locked{_at(row)}"
        yield Claim("lock", name, done and not unsaid, fact, _ids([row]), blocks=not done)


def _bolts(bench: Bench) -> Iterator[Claim]:
    for row in bench.progress.of_kind("bolts"):
        found = ringed(row.at)
        if row.step.phase == "trial" or found is None:
            continue
        ring = bench.progress.card.arrangement.ring(row.step.ring).name
        down = found.lap == 0 and not found.few
        laps = len({entry.place.partition(".")[0] for entry in found.done})
        fact = f"{found.ring.bolts} × {found.ring.torque}, {laps} rounds, none moves"
        if not down:
            fact = "a few, snug" if found.few else f"{len(found.done)} drawn down so far"
        yield Claim("bolts", f"{ring.capitalize()} crosswise{_at(row)}", down, fact, _ids([row]))


def _fasteners(bench: Bench) -> Iterator[Claim]:
    """Each fastener that was undone, told how it was closed; nothing where this job asks for no list."""
    listed = any(row.state != "past" for row in bench.progress.of_kind("fasteners"))
    for row in bench.progress.of_kind("fastened"):
        items = items_of(row.at)
        said = latest(row.at.entries)
        left = [one.words for one in items if one.key not in said]
        unsaid = not items and untold(row.at)
        if unsaid and not listed:
            continue
        fact = f"{len(items)} undone, each closed" if items else "none was undone"
        if left or unsaid:
            fact = f"open: {', '.join(left)}" if left else "nobody said which were undone"
        rests_on = (*(one.id for one in row.at.others("fasteners")), *_ids([row]))
        yield Claim("fasteners", "Every fastener closed", not (left or unsaid), fact, rests_on)


def _freed(bench: Bench) -> Iterator[Claim]:
    """What made it safe is off again, and what holds it was tried."""
    for row in bench.progress.of_kind("made_free"):
        items = items_of(row.at) if row.step.entry == "list" else ()
        if row.state == "past" or not items:
            continue
        said = latest(row.at.entries)
        left = [one.words.lower() for one in items if one.key not in said or one.held]
        fact = f"not tried: {', '.join(left)}" if left else f"{len(items)} off again, each tried"
        yield Claim("free", "Safe to move: off again and tried", not left, fact, _ids([row]))


def _home(bench: Bench) -> Iterator[Claim]:
    """Rings that were pressed here: a blade tried behind each, all round."""
    for row in bench.progress.of_kind("cup_home"):
        if not rings(row.at) or row.state == "past":
            continue
        found = home(row.at)
        fact = found.doubt or "a thin blade tried behind each, all round: it enters nowhere"
        yield Claim(
            "home", f"Rings on their shoulders{_at(row)}", found.proven, fact, _ids([row]),
            blocks=bool(found.enters),
        )  # fmt: skip


def unsettled(claims: Iterable[Claim]) -> tuple[Claim, ...]:
    """What was set over rings not proven home is lowered: it opens when they settle."""
    said = tuple(claims)
    doubt = next((one.fact for one in said if one.key == "home" and not one.proven), "")
    if not doubt:
        return said
    words = f"; {doubt}: what was set may open when it settles"
    return tuple(
        replace(one, proven=False, fact=one.fact + words) if one.key in _ON_RINGS else one
        for one in said
    )


_ON_RINGS = ("end_play", "setting")
"""Claims that rest on where the rings stand."""


def _others(bench: Bench) -> Iterator[Claim]:
    rows = [row for row in bench.progress.rows if row.step.kind not in _ELSEWHERE]
    left = [row for row in rows if row.state not in ("done", "past")]
    said = [
        f"{row.step.says.lower()}{_at(row)} ({row.skipped.reason if row.skipped else 'open'})"
        for row in left
    ]
    fact = f"left out: {'; '.join(said)}" if said else f"{len(rows)} ticked"
    yield Claim("steps", "Every step done", not left, fact, _ids(rows))


def _second(bench: Bench) -> Iterator[Claim]:
    for row in bench.progress.of_kind("second"):
        entry = row.at.entries[-1] if row.at.entries and row.state == "done" else None
        ways = {option.key: option.text for option in row.step.options}
        fact = "nobody has checked since the last entry"
        if entry:
            fact = f"{entry.by_name}: {ways[entry.typed].lower()}"
        yield Claim("second", "Second person", entry is not None, fact, _ids([row]))


_RULES: tuple[Callable[[Bench], Iterator[Claim]], ...] = (
    _source, _safe, _home, _torque, _seating, _lock, _bolts, _fasteners, _freed, _others, _second,
)  # fmt: skip
