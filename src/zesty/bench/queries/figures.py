"""The trials of a shimmed unit: as rows, and against the line that they must lie on."""

from dataclasses import dataclass

from wheelend import wording
from wheelend.methods.shims import Assessment
from wheelend.methods.shims.acting import next_act
from wheelend.methods.shims.trials import FittedTrial
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.slips import Question
from wheelend.quantity import LENGTH, parse
from wheelend.shims import total_mm
from zesty.bench.models import Entry
from zesty.bench.queries.jobfile import UnitFile
from zesty.drawings.chart import TrialChart, TrialPoint
from zesty.drawings.decades import decades


@dataclass(frozen=True)
class Struck:
    """A row that was put in another's place, and the one that it struck."""

    was: Entry
    now: Entry

    @property
    def words(self) -> str:
        """What became of it, and why."""
        became = "taken back" if self.now.kind == "withdrawn" else f"became {self.now}"
        return f"{became}: {self.now.reason}"


@dataclass(frozen=True)
class TrialRow:
    """One trial in the list of all."""

    trial: FittedTrial
    pack: str
    total: str
    found: str
    notes: tuple[str, ...]
    rows: tuple[Entry, ...]
    struck: tuple[Struck, ...]
    mark: Entry | None


def trial_rows(unit: UnitFile, found: Assessment) -> list[TrialRow]:
    """Every trial, oldest first, those set aside too."""
    return [_trial(unit, found, trial) for trial in found.trials]


def _trial(unit: UnitFile, found: Assessment, trial: FittedTrial) -> TrialRow:
    by_id = {entry.pk: entry for entry in unit.entries}
    play = found.play_of(trial)
    words = "not read"
    if trial.series.finding:
        words = trial.series.finding.kind.replace("_", " ")
    elif play:
        step = trial.gauge.resolution
        words = f"{wording.both(play.play_mm, step, unit.lead)} ± {wording.length(play.U_mm, step, unit.lead)}"
    apart = found.disagreement()
    notes = [
        note
        for note, there in (
            ("read locked", trial.locked),
            ("rough: not at the card’s torque", bool(trial.off_torque)),
            ("rough: a few bolts", trial.series.rough),
            ("does not add up", bool(apart and trial.number in (apart.earlier, apart.later))),
        )
        if there
    ]
    notes += [
        f"{place_words(one)} read again: its first does not count" for one in _outvoted(trial)
    ]
    mark = by_id.get(trial.series.aside.id) if trial.series.aside else None
    struck = tuple(
        Struck(by_id[row.corrects_id], row)
        for row in unit.entries
        if row.corrects_id and row.closing == trial.series.closing and row.round == trial.series.round
        and row.aspect in ("in", "out")
    )  # fmt: skip
    return TrialRow(
        trial=trial,
        pack=wording.sides(trial.pack, unit.names),
        total=total_words(trial.total_mm, unit.lead),
        found=words,
        notes=tuple(notes),
        rows=tuple(by_id[row.id] for row in trial.series.rows),
        struck=struck,
        mark=mark,
    )


def _outvoted(trial: FittedTrial) -> list[str]:
    """The places whose first reading was outvoted by the second."""
    return list(dict.fromkeys(base_of(one) for one in trial.series.weighed.outvoted))


def total_words(pack_mm: float, lead: wording.Lead) -> str:
    """A pack's thickness in both units."""
    first, second = f"{wording.thickness(pack_mm)} mm", wording.thou(pack_mm, 0.00254)
    if lead == "inch":
        first, second = second, first
    return f"{first} ({second})"


def trial_chart(found: Assessment) -> TrialChart:
    """All trials that told something, and the pack that comes next."""
    apart = found.disagreement()
    odd = {apart.earlier, apart.later} if apart else set()
    points = tuple(
        TrialPoint(number, found.trial(number).total_mm,
                   found.plays[number].play_mm if number in found.plays else None, number in odd)
        for number in found.counted
    )  # fmt: skip
    choice = next_act(found).choice if found.last and found.last.series.complete else None
    return TrialChart(
        limits=found.limits,
        step_mm=found.last.gauge.resolution if found.last else 0.01,
        points=points,
        c_mm=found.evidence.c_mm if found.evidence else None,
        sign=found.sign,
        next_pack_mm=total_mm(choice.pack) if choice else None,
    )


def where_it_stands(question: Question) -> str:
    """Each meaning of a doubted number beside what the card asks for; empty where that has no scale."""
    window, dimension = question.window, question.dimension
    if window is None or dimension is None:
        return ""
    said = (*question.options, question.typed)
    meanings = [(float(parse(words, dimension)), words) for words in said]
    if min(window[0], *(value for value, _ in meanings)) <= 0:
        return ""
    title = "Where they would stand: " + ", ".join(said)
    return decades(meanings, *window, "mm" if dimension is LENGTH else "N·m", title)
