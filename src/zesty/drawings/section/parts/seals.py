"""Seals, drawn from two ends called air and fluid, so that a lip cannot be turned by mistake."""

from dataclasses import dataclass

from zesty.drawings.section.outline import Corner, arc
from zesty.drawings.section.sheet import Sheet


@dataclass(frozen=True)
class Between:
    """Where a seal stands: its ends, its track's radius and its bore's."""

    air: float
    fluid: float
    track: float
    bore: float

    def at(self, share: float, height: float) -> tuple[float, float]:
        """A point by its share of the way from air to fluid, and of the way from track to bore."""
        return (
            self.air + (self.fluid - self.air) * share,
            self.track + (self.bore - self.track) * height,
        )

    def all(self, *shares: tuple[float, float]) -> list[Corner]:
        """Several of them."""
        return [self.at(*one) for one in shares]


def lip_seal(sheet: Sheet, where: Between, name: str = "seal") -> None:
    """A lip seal: case blacked in, main lip to the fluid with its spring, dust lip to the air."""
    thick = max(2.4 * sheet.px / abs(where.fluid - where.air), 0.09)
    tall = max(2.4 * sheet.px / (where.bore - where.track), 0.08)
    sheet.add(
        where.all(
            (0.0, 0.62), (thick * 0.4, 0.56), (thick * 1.1, 0.62), (0.34, 0.46), (0.48, 0.46), (0.60, 0.62),
            (0.86, 0.62), (0.96, 0.44), (0.80, 0.16), (0.68, 0.0), (0.60, 0.16), (0.42, 0.20),
            (0.28, 0.26), (0.16, 0.10), (0.04, 0.0), (-0.02, 0.03), (0.06, 0.22),
        ),
        "rubber",
        name,
    )  # fmt: skip
    sheet.add(
        where.all((0, 0.5), (0, 1), (0.97, 1), (0.97, 1 - tall), (thick, 1 - tall), (thick, 0.5)),
        "solid", name,
    )  # fmt: skip
    spring = 0.13 * min(abs(where.fluid - where.air), where.bore - where.track)
    sheet.add(arc(where.at(0.74, 0.60), spring, 0, 340, 14), "light", name)


def cassette(sheet: Sheet, where: Between, name: str = "cassette_seal") -> None:
    """A cassette seal: its own sleeve on the shaft, its case in the hub, the lips between them."""
    wide, tall = abs(where.fluid - where.air), where.bore - where.track
    across, up = max(2.6 * sheet.px / wide, 0.09), max(2.6 * sheet.px / tall, 0.08)
    sheet.add(
        where.all(
            (0.34, 0.68), (0.34, 0.52), (0.16, 0.66), (across, 0.70), (0.20, 0.52), (0.40, 0.36),
            (0.60, 0.30),
            (0.64, up), (0.74, 0.22), (0.92, 0.40), (0.88, 0.60), (0.66, 0.64), (0.56, 0.56), (0.44, 0.62),
        ),
        "rubber",
        name,
    )  # fmt: skip
    sheet.add(
        where.all(
            (0, 0), (1, 0), (1, 0.30), (1 - across, 0.30), (1 - across, up), (across, up), (across, 0.86),
            (0, 0.86)
        ),
        "solid", name,
    )  # fmt: skip
    sheet.add(
        where.all(
            (0.30, 0.48), (0.30, 1), (1, 1), (1, 1 - up), (0.30 + across, 1 - up), (0.30 + across, 0.48)
        ),
        "solid", name,
    )  # fmt: skip
    spring = 0.12 * min(wide, tall)
    sheet.add(arc(where.at(0.76, 0.62), spring, 0, 340, 14), "light", name)


def clip_seal(sheet: Sheet, where: Between, name: str = "seal") -> None:
    """A thin seal clipped in a groove: a bead at the bore, one lip down to the track."""
    sheet.add(
        where.all((0, 0.62), (0, 1), (1, 1), (1, 0.62), (0.72, 0.62), (0.72, 0.5), (1.5, 0.0), (1.1, 0.0),
                  (0.28, 0.46), (0.28, 0.62)),
        "rubber", name,
    )  # fmt: skip
    sheet.add(arc(where.at(0.5, 0.8), 0.13 * (where.bore - where.track), 0, 340, 12), "light", name)
