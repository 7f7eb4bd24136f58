"""A card's section: its stack as the drawing wants it."""

from wheelend.card import Card
from wheelend.wording import figure
from zesty.drawings.section import Part, SectionView, section

NARROW = 358


def parts_of(card: Card) -> tuple[Part, ...]:
    """A card's stack: a cone and its cup are drawn as one bearing."""
    cups = {part.seat: part for part in card.stack if part.part == "cup"}
    drawn = []
    for index, part in enumerate(card.stack):
        if part.part == "cup":
            continue
        outside = part.outside
        if part.part == "cone" and part.seat in cups:
            outside = cups[part.seat].outside or outside
        drawn.append(
            Part(
                kind=part.part,
                name=_bearing(part.name) if part.part == "cone" else part.name,
                seat=part.seat,
                width_mm=part.width.value if part.width else None,
                bore_mm=part.bore.value if part.bore else None,
                outside_mm=outside.value if outside else None,
                way_round=part.way,
                counts=part.counts,
                spot=f"stack.{index}",
            )
        )
    return tuple(drawn)


def _bearing(cone: str) -> str:
    return f"{cone.removesuffix('cone').strip()} bearing".replace("bearing bearing", "bearing")


def section_of(card: Card, *, at: str = "", link: str = "") -> tuple[str, str]:
    """The section, wide and narrow. With a `link` each part leads to its own fields."""
    torque = card.setting.torque
    parts = parts_of(card)
    open_part = next((part for part in parts if part.spot == at), None)
    view = SectionView(
        shape=card.arrangement.drawing,
        parts=parts,
        nut=figure(torque.text, torque.value, "torque") if torque else "",
        lit=open_part.role if open_part else "",
        link=link,
    )
    return section(view, width=760), section(view, width=NARROW, narrow=True)
