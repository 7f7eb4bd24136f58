"""What the core says when it cannot work with what it was given."""

import json
from dataclasses import dataclass

_LONGEST_ECHO = 60


@dataclass(eq=False)
class BadInput(ValueError):
    """One field that cannot be used.

    `path` is the field (`limits.low`, `tray[0].thickness`; empty for the whole input), `given` is
    what came, ready to print, and `need` says what is wrong and what would do.
    """

    path: str
    given: str
    need: str

    def __str__(self) -> str:
        said = f"{self.given} {self.need}" if self.given else self.need
        return f"{self.path}: {said}" if self.path else said

    def under(self, prefix: str) -> "BadInput":
        """The same error seen from one level further out."""
        if not self.path:
            return BadInput(prefix, self.given, self.need)
        joint = "" if self.path.startswith("[") else "."
        return BadInput(f"{prefix}{joint}{self.path}", self.given, self.need)


def echo(value: object) -> str:
    """What was given, on one line and not endlessly long."""
    text = json.dumps(value, ensure_ascii=False, default=str)
    # Half a character can be read from JSON, but no page can be written with it.
    text = text.encode("utf-8", "backslashreplace").decode("utf-8")
    return text if len(text) <= _LONGEST_ECHO else text[: _LONGEST_ECHO - 1] + "…"
