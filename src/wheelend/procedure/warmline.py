"""What to do next while a hub is warm: what to read, to what to warm it, and how long the gap lasts."""

from wheelend.procedure.asking.frame import At
from wheelend.procedure.asking.warmth import CURE, Warmed, WarmthAsked, warmed, warms
from wheelend.procedure.nextline import NextLine


def clock(seconds: float) -> str:
    """Minutes and seconds, as on a clock that counts down; hours where there are some."""
    minutes, rest = divmod(max(0, int(seconds)), 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours}:{minutes:02d}:{rest:02d}" if hours else f"{minutes}:{rest:02d}"


def warm_line(at: At, now_s: float) -> NextLine:
    """The next line of a step that is done warm; `now_s` is the server's clock."""
    found = warmed(at)
    place = WarmthAsked().slot(at).place
    if at.entries and at.entries[-1].typed == "gripped":
        return _line("It gripped:", "stop", ".", CURE)
    if found.is_over:
        over = f"{found.hub[-1].typed} is hotter than the card allows:"
        why = "Look for a soft seat or burnt grease before the ring goes in."
        return _line(over, "let it cool", ".", why)
    if place in ("air", "ring"):
        what = "the air round it" if place == "air" else "the chilled ring"
        return _line(f"Read the temperature of {what}.", "", "", at.step.why)
    return _hub_line(at, found, now_s)


def _hub_line(at: At, found: Warmed, now_s: float) -> NextLine:
    what = "ring" if warms(at) == "on_shaft" else "housing"
    if found.until is None:
        why = "The card lacks a size: how warm it must be can’t be reckoned."
        return _line(f"Read the {what} at its bore.", "", "", why)
    left = found.left_s(now_s)
    if left is None:
        return _readings_line(found, what)
    if left <= 0:
        why = "A ring that is started now grips half way."
        return _line("Too cold by now:", "warm it again", ".", why)
    why = "Frost wiped off, a film of oil, straight in; held down until it is quiet."
    return _line("Drop it in", "now", ": the clock says how long it lasts.", why)


def _readings_line(found: Warmed, what: str) -> NextLine:
    need = f"{found.until or 0:.0f} °C or more"
    limit = f" Never above {found.limit:.0f} °C, by the card." if found.limit is not None else ""
    if not found.hub:
        why = f"Read it at its bore as it leaves the heat.{limit}"
        return _line(f"Warm the {what} to", need, ".", why)
    if found.why:
        return _line(f"Read the {what} again: it must have", need, ".", found.why)
    why = f"Two readings, a minute apart, make the curve; then the clock runs.{limit}"
    return _line(f"Read the {what} again: it must have", need, ".", why)


def _line(before: str, key: str, after: str, why: str) -> NextLine:
    return NextLine("warm", before, key, after, why)
