"""Oil to its mark: fill, wait, turn, read; again until the level stays where it is."""

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written

PLACES = ("filled", "waited", "turned", "level")
ANSWERS = {
    "stays": "It stayed at its mark",
    "fallen": "It has fallen",
    "over": "It stands above",
}
WORDS = {
    "filled": "Filled to the edge",
    "waited": "Left to settle",
    "turned": "Turned, back to its mark",
    "level": "Level",
}
ASKS = {
    "filled": "Oil in at the plug until it stands at the edge of its hole, no higher.",
    "waited": "Plug in. Let it settle: air rises slowly through a bearing.",
    "turned": "Turn the hub a few times, bring its mark back to where it is read.",
    "level": "Plug out: where does the oil stand?",
}
OVER = (
    "Let it run out to the mark: warm, the oil has nowhere to go but past the seal. Then turn it and read"
    " it again."
)


def round_of(at: At) -> int:
    """The round that lasts: each reading that did not stay begins another."""
    again = sum(row.place == "level" and row.typed != "stays" for row in at.entries)
    return max(1, at.gone + 1) + again


def last_level(at: At) -> Written | None:
    """The last reading of the level."""
    return next((row for row in reversed(at.entries) if row.place == "level"), None)


def settles(at: At) -> float | None:
    """Seconds for which the oil that was just filled in settles by the card; None where nothing waits."""
    wait = at.card.lubricant.settle
    if wait is None or LevelAsked().complete(at) or LevelAsked().slot(at).place != "waited":
        return None
    return wait.value


class LevelAsked:
    """Four acts a round, until the level stays."""

    def complete(self, at: At) -> bool:
        last = last_level(at)
        return any(row.kind == "done" for row in at.entries) or bool(last and last.typed == "stays")

    def slot(self, at: At) -> Slot:
        now = round_of(at)
        said = {row.place for row in at.entries if row.round == now}
        last = last_level(at)
        # What stood too high is let out, not filled: only turned and read again.
        order = PLACES[2:] if last is not None and last.typed == "over" else PLACES
        place = next((one for one in order if one not in said), "level")
        return Slot(place, now, words=ASKS[place])

    def lines(self, at: At) -> tuple[Line, ...]:
        found = tuple(
            Line(WORDS.get(row.place, at.step.says), ANSWERS.get(row.typed, "done").lower(), (row,))
            for row in at.entries
        )
        return found if self.complete(at) else (*found, Line(titled(at), "", (), due=True))
