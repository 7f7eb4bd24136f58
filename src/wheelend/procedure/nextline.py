"""The next line: one sentence that says what to do now, and a smaller one that says why."""

from dataclasses import dataclass

from wheelend.procedure.progress import Row


@dataclass(frozen=True)
class NextLine:
    """`before`, `key` and `after` make the sentence; `key` is what must be read from afar.

    `kind` is a stable name for what is asked: read, swap, set, stop, undecided, buy, torque, lock …
    """

    kind: str
    before: str
    key: str
    after: str
    why: str

    @property
    def tail(self) -> str:
        """What follows the key; punctuation follows it without a blank."""
        return self.after if not self.after or self.after[:1] in ":,.;?" else f" {self.after}"

    def __str__(self) -> str:
        return f"{self.before} {self.key}{self.tail}".strip()


def line_of(row: Row) -> NextLine:
    """The line of a step that says itself what to do."""
    step = row.step
    words = step.asks
    if row.station not in ("", "main"):
        return NextLine(step.kind, "", f"{row.station.capitalize()}:", f"{words[0].lower()}{words[1:]}",
                        step.why)  # fmt: skip
    return NextLine(step.kind, words, "", "", step.why)


def waiting_line(row: Row) -> NextLine:
    """The line where everything in a stage waits for something else."""
    first = row.waits_for[0] if row.waits_for else None
    if first is None:
        return NextLine("later", "This comes", "after the last trial", ".", "")
    asks = first.asks
    return NextLine("waits", "First:", f"{asks[0].lower()}{asks[1:]}".rstrip("."), ".", first.why)
