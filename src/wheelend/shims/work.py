"""How much looking a plan may cost: counted, so that it ends at the same place on every machine."""

MOST_WORK = 40_000_000
"""In machine words touched, a step of Python as 100 of them: below a second on a bench computer."""

MOST_BYTES = 40_000_000
"""What the tables of totals may take."""

MOST_THICKNESSES = 200
"""Distinct thicknesses that one plan looks at."""

MOST_TOTALS = 10_000
"""Totals that one ranking looks at, those nearest to where it wants to land."""

_STEP = 100
_WORD_BITS = 64


class Work:
    """Counts what a plan costs. `cut` says that something was left out because of it."""

    def __init__(self) -> None:
        self.left = MOST_WORK
        self.bytes = MOST_BYTES
        self.cut = False

    def does(self, steps: int, bits: int = 0) -> bool:
        """Whether so many steps on numbers of so many bits may still be done."""
        self.left -= steps * (_STEP + bits // _WORD_BITS)
        self.cut |= self.left < 0
        return self.left >= 0

    def keeps(self, bits: int) -> bool:
        """Whether a set of so many bits may still be kept."""
        self.bytes -= bits // 8
        if self.bytes < 0:
            self.left = -1
            self.cut = True
        return self.bytes >= 0
