"""Steps with one answer: a tick, a text, a number, one of a few words, a pack, a dial."""

from dataclasses import dataclass

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written
from wheelend.shims import total_mm
from wheelend.wording import count, figure, thickness


def latest(at: At) -> Written | None:
    """The answer that counts: the last one."""
    return at.entries[-1] if at.entries else None


@dataclass(frozen=True)
class SimpleAsked:
    """One row answers it."""

    kind: str

    def complete(self, at: At) -> bool:
        return any(entry.kind == self.kind for entry in at.entries)

    def slot(self, at: At) -> Slot:
        return Slot(round=at.gone + 1)

    def lines(self, at: At) -> tuple[Line, ...]:
        entry = latest(at)
        rows = (entry,) if entry else ()
        shown = {"done": "done", "text": "written"}.get(self.kind, entry.typed if entry else "")
        return (Line(titled(at), shown if entry else "", rows),)


class PickAsked:
    """One of a few words. An answer that stops the work does not complete it."""

    def complete(self, at: At) -> bool:
        entry = latest(at)
        return bool(entry and not self._option(at, entry).partition("|")[2])

    def slot(self, at: At) -> Slot:
        return Slot(round=at.gone + 1)

    def lines(self, at: At) -> tuple[Line, ...]:
        entry = latest(at)
        if entry is None:
            return (Line(titled(at)),)
        return (Line(titled(at), self._option(at, entry).partition("|")[0].lower(), (entry,)),)

    def _option(self, at: At, entry: Written) -> str:
        """The words of the answer, a bar, and what to do where it stops the work."""
        for option in at.step.options:
            if option.key == entry.typed:
                return f"{option.text}|{option.stops}"
        return entry.typed


class DialAsked:
    """A gauge and where it stands; it holds until another is taken."""

    def complete(self, at: At) -> bool:
        return bool(at.entries)

    def slot(self, at: At) -> Slot:
        return Slot(round=at.next_round)

    def lines(self, at: At) -> tuple[Line, ...]:
        entry = latest(at)
        if entry is None:
            return (Line(titled(at)),)
        name = entry.instrument.name if entry.instrument else "hands"
        return (Line(titled(at), name, (entry,)),)


class PackAsked:
    """The shims of one station."""

    def complete(self, at: At) -> bool:
        return any(entry.kind == "pack" for entry in at.entries)

    def slot(self, at: At) -> Slot:
        return Slot(round=at.gone + 1)

    def lines(self, at: At) -> tuple[Line, ...]:
        entry = latest(at)
        if entry is None:
            return (Line(titled(at)),)
        total = total_mm(entry.pack)
        words = figure(f"{thickness(total)} mm", total, "length", at.lead)
        return (Line(titled(at), words, (entry,)),)


class PhotoAsked:
    """Photographs, or a tick where there is none."""

    def complete(self, at: At) -> bool:
        return bool(at.entries)

    def slot(self, at: At) -> Slot:
        return Slot(round=at.gone + 1)

    def lines(self, at: At) -> tuple[Line, ...]:
        photos = sum(entry.kind == "photo" for entry in at.entries)
        shown = count(photos, "photo") if photos else "done" if at.entries else ""
        return (Line(titled(at), shown, at.entries),)
