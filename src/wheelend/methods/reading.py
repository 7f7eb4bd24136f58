"""End play as a dial read it, or hands felt it, in one closing: for methods that set without trials."""

from dataclasses import dataclass

from wheelend.compare import Known
from wheelend.endplay import EndPlay, end_play
from wheelend.methods.judgement import Bench, Claim, Measured
from wheelend.procedure.asking.readings import ReadingsAsked, Series, series_of
from wheelend.procedure.log import MARKS, Written
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Progress, Row
from wheelend.verdict import Limits
from wheelend.wording import both, count, length

WORDS = {
    "within": "inside", "below": "too tight", "above": "too loose", "undecided": "too close to call",
}  # fmt: skip


@dataclass(frozen=True)
class Read:
    """One series, and the play that it gives; None where nothing was read whole, or hands judged it."""

    series: Series
    play: EndPlay | None

    @property
    def known(self) -> Known | None:
        """The play with its doubt, mm."""
        return Known(self.play.play_mm, self.play.U_mm) if self.play else None

    @property
    def word(self) -> str:
        """The verdict; empty where there is none."""
        return self.play.verdict.word if self.play and self.play.verdict else ""

    @property
    def inside(self) -> bool:
        """Whether it was read whole, its places agree, and all of it is inside."""
        clean = not (self.series.weighed.apart or self.series.weighed.moved)
        return self.word == "within" and self.series.complete and clean

    @property
    def ids(self) -> tuple[int, ...]:
        """The rows that it rests on."""
        return tuple(row.id for row in self.series.rows)


def read_in(progress: Progress, kind: str, closing: int) -> Read | None:
    """The latest series of a kind of step in a closing of the setting clamp; None where none was begun."""
    clamp = progress.card.arrangement.setting_clamp.key
    rows = tuple(
        row
        for row in progress.entries_of(kind)
        if row.clamp == clamp and row.closing == closing and row.kind != "skip"
    )
    if kind == "locked_reading":
        rows = tuple(row for row in rows if progress.counts(row))
    aside = {row.round for row in rows if row.kind == "aside"}
    rounds = {row.round for row in rows if row.kind not in MARKS} - aside
    if not rounds:
        return None
    series = series_of(closing, max(rounds), rows, (), progress.card.places, _repeats(progress))
    return Read(series, _play(series, _limits(progress), _repeats(progress)))


def read_at(progress: Progress, row: Row) -> Read | None:
    """What a step's series says as it stands; None where none was begun."""
    series = ReadingsAsked().series(row.at)
    if not series.rows:
        return None
    return Read(series, _play(series, _limits(progress), _repeats(progress)))


def _repeats(progress: Progress) -> float:
    known = progress.card.setting.repeatability
    return known.value if known else 0.003


def _limits(progress: Progress) -> Limits | None:
    window = progress.card.setting.limits
    return window.limits if window else None


def _play(series: Series, limits: Limits | None, repeats: float) -> EndPlay | None:
    pairs = [series.pairs[place] for place in series.weighed.counted]
    if series.finding or not pairs or not series.complete:
        return None
    return end_play(
        pairs, series.gauge, limits=limits, turned=series.turned, repeatability_mm=repeats
    )


def moved_to_place(progress: Progress) -> tuple[Written, ...]:
    """The turns to a lock place since it was set, the latest first; none while it stands where it was set."""
    found = []
    for opening in reversed(progress.openings):
        if opening.typed != "last":
            break
        found.append(opening)
    return tuple(found) if progress.phase == "final" else ()


def set_closing(progress: Progress) -> int:
    """The closing in which it was set: the one before the nut went to its place, or the one that lasts."""
    moved = moved_to_place(progress)
    return moved[-1].closing if moved else progress.setting_closing


def rows_in(progress: Progress, kind: str, closing: int) -> tuple[Written, ...]:
    """The answers that stand at a kind of step in a closing of the setting clamp, of the last round."""
    clamp = progress.card.arrangement.setting_clamp.key
    return tuple(
        row
        for row in progress.entries_of(kind)
        if row.clamp == clamp and row.closing == closing and row.kind != "skip"
    )


def play_words(bench: Bench, read: Read) -> str:
    """A play with its doubt, in both units."""
    if read.play is None:
        return "not read"
    step = read.series.gauge.resolution
    return (
        f"{both(read.play.play_mm, step, bench.lead)} ± {length(read.play.U_mm, step, bench.lead)}"
    )


def felt_words(bench: Bench) -> str:
    """What hands feel here."""
    hands = bench.progress.card.hands
    if hands is None:
        return "the card does not say what hands feel here"
    return f"hands feel {both(hands.smallest_felt_mm, lead=bench.lead)} of play and more here"


def play_claim(bench: Bench, read: Read | None, name: str, *, missing: str) -> Claim:
    """End play inside, as it was read at its place; blocked where it is outside."""
    if read is None or not read.series.complete:
        return Claim("end_play", name, False, missing, blocks=True)
    if read.series.by_hand:
        found = read.series.finding
        said = found.kind.replace("_", " ") if found else "felt"
        fact = f"judged by hand: {said}; {felt_words(bench)}"
        return Claim("end_play", name, False, fact, read.ids, blocks=said == "bound")
    if read.play is None:
        said = read.series.finding.kind.replace("_", " ") if read.series.finding else "not read"
        return Claim("end_play", name, False, said, read.ids, blocks=True)
    window = bench.progress.card.setting.limits
    if window is None:
        fact = f"{play_words(bench, read)}; the card names no play"
        return Claim("end_play", name, False, fact, read.ids)
    tool = read.series.instrument
    gauge = tool.name if tool else "by hand"
    if tool and not tool.has_papers:
        gauge += ", without a certificate: counted as ± one step"
    fact = f"{play_words(bench, read)}, {WORDS[read.word]}; limits {window}; {gauge}"
    limits = window.limits
    return Claim(
        "end_play", name, read.inside, fact, read.ids, blocks=read.word in ("below", "above"),
        measured=Measured(read.play.play_mm, read.play.U_mm, limits.low, limits.high),
    )  # fmt: skip


def reading_line(bench: Bench, row: Row, says: str = "") -> NextLine | None:
    """What to read next, or that hands judge; None where the series is whole."""
    dials = [*bench.progress.of_kind("dial"), *bench.progress.of_kind("recheck_dial")]
    dial = dials[0] if dials else None
    set_up = dial.at.entries[-1] if dial and dial.at.entries else None
    if set_up and set_up.instrument is None:
        why = f"{felt_words(bench)}: less passes unfelt, so what is set so is not proven."
        why = why[0].upper() + why[1:]
        return NextLine(
            "feel", "Hold at 12 and 6,", "push and pull", ", then say what you feel.", why
        )
    slot = row.slot
    if not slot.push:
        return None
    push = "Push in at" if slot.push == "in" else "Pull out at"
    done = sum(len(line.rows) for line in row.asked.lines(row.at))
    left = max(2 * len(bench.progress.card.places) - done, 1)
    why = f"{count(left, 'reading')} to go. Turn only the hub; the dial’s base stays.{says}"
    return NextLine("read", push, slot.words.partition(",")[0], ", hold, read.", why)
