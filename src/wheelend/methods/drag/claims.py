"""What may be claimed of a setting by drag: on the bench, in the hub, in the fork; or of a pull."""

from collections.abc import Iterable, Iterator
from dataclasses import replace

from wheelend.compare import Compared
from wheelend.methods.drag.assessing import Assessment
from wheelend.methods.judgement import Claim, Measured
from wheelend.methods.swings import (
    WORDS,
    judged_limits,
    read_with,
    swing_claim,
    swing_words,
    window_words,
)
from wheelend.procedure.adding import Added, added_words
from wheelend.procedure.asking.band import by_thumb
from wheelend.procedure.asking.measured import verdict as measured_verdict
from wheelend.wording import SHIM_STEP_MM, both


def claims(found: Assessment) -> tuple[Claim, ...]:
    """Every claim of the setting, in the order in which they are printed."""
    return tuple(_claims(found))


def _claims(found: Assessment) -> Iterator[Claim]:
    hub, pull = found.row("drag_in_hub"), found.row("drag")
    if hub is not None:
        yield _in_hub(found)
        yield from _expected(found)
        yield _on_bench(found)
        yield from _fork(found)
    elif pull is not None:
        yield swing_claim(pull, "setting", f"{pull.step.says} inside")


def _in_hub(found: Assessment) -> Claim:
    row = found.row("drag_in_hub")
    name = "Drag inside, in the hub"
    assert row is not None  # noqa: S101  only asked where the step is
    thumb = by_thumb(row.at)
    swing = found.in_hub
    if thumb or swing is None:
        return swing_claim(row, "setting", name, missing="not measured in the hub")
    limits = judged_limits(row, swing)
    ids = tuple(one.id for one in swing.rows)
    if limits is None:
        return Claim("setting", name, False, f"{swing_words(swing)}; the card names no drag", ids)
    word = swing.verdict(limits).word
    fact = (
        f"{swing_words(swing)}, {WORDS[word]}; the card allows {window_words(limits, swing.unit)}"
    )
    fact += read_with(swing)
    if row.state == "past":
        fact += "; read before the bench axle went out, and carried"
    still = row.state in ("done", "past", "due")
    return Claim(
        "setting", name, word == "within" and still and not swing.wrong, fact, ids,
        blocks=word in ("below", "above"),
        measured=Measured(swing.middle, swing.U, limits.low, limits.high),
    )  # fmt: skip


def _expected(found: Assessment) -> Iterator[Claim]:
    """The rise from bench to hub is what the fit was expected to add."""
    said = found.compared
    told = () if found.rise else found.fit_adds
    if said is None or found.in_hub is None or not (found.rise or told):
        return  # One trial tells no line: what the fit adds is not known, and nothing is claimed of it.
    ids = (*(r.id for r in found.trials[-1].swing.rows), *(r.id for r in found.in_hub.rows))
    fact = f"{said.difference:+.2f} ± {said.U:.2f} N·m from bench to hub".replace("-", "−")
    if found.rise:
        fact += f"; the fit was expected to add {found.rise[0]:.2f} to {found.rise[1]:.2f}"
    else:
        fact += f"; {added_words(told)}"
    yield Claim(
        "fit_effect", "The fit explains the rise", explained(said, told), fact, (*ids, *_ids(told))
    )


def explained(said: Compared, by: Iterable[Added]) -> bool:
    """Whether what lies between two readings is explained by what carries: nothing that was to add is
    missing, and no figure is only somebody's word."""
    if said.verdict == "unexplained" or said.flags:
        return False
    return said.verdict == "agrees" or all(one.carries for one in by)


def _ids(by: Iterable[Added]) -> tuple[int, ...]:
    return tuple(row.id for one in by for row in one.rows)


def _on_bench(found: Assessment) -> Claim:
    row = found.row("drag")
    assert row is not None  # noqa: S101  a pack is set on the bench first
    spacer = found.row("spacer")
    name = "Drag inside, on the bench"
    if not found.trials:
        return replace(swing_claim(row, "bench", name), blocks=False)
    last = found.trials[-1]
    limits = judged_limits(row, last.swing)
    ids = tuple(one.id for one in (*last.swing.rows, *last.spacer_rows))
    word = last.swing.verdict(limits).word if limits else "undecided"
    shim = both(last.spacer_mm, SHIM_STEP_MM, found.bench.lead)
    fact = f"trial {last.number}: shim {shim}, {swing_words(last.swing)}, {WORDS[word]}"
    fact += read_with(last.swing)
    judged = measured_verdict(spacer.at) if spacer else None
    if judged:
        fact += f"; {judged.words.partition(', ')[2]}"
    measured = (
        Measured(last.swing.middle, last.swing.U, limits.low, limits.high) if limits else None
    )
    proven = word == "within" and not last.swing.wrong
    return Claim("bench", name, proven, fact, ids, measured=measured)


def _fork(found: Assessment) -> Iterator[Claim]:
    """In the fork it turns as in the hub, with what seals and grease add; or says by how much not."""
    said, fork, hub = found.fork_compared, found.in_fork, found.in_hub
    if said is None or fork is None or hub is None:
        return
    by = found.fork_adds
    ids = (*(r.id for r in hub.rows), *(r.id for r in fork.rows), *_ids(by))
    fact = f"{swing_words(fork)}, in the hub {swing_words(hub)}; apart by {said.difference:+.2f} ± {said.U:.2f}"
    if by:
        fact += f"; {added_words(by)}"
    if said.flags:
        fact += ", and nothing of it shows: is it in?"
    elif said.verdict == "unexplained":
        fact += f"; {abs(said.left):.2f} N·m of it is explained by nothing"
    name = "Turns in the fork as in the hub"
    yield Claim("fork", name, explained(said, by), fact.replace("-", "−"), ids)
