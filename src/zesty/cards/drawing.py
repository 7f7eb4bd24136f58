"""A card's section: its stack as the drawing wants it."""

from wheelend.arrangements import Arrangement
from wheelend.arrangements.vocabulary import BY_PACK
from wheelend.card import Card
from wheelend.wording import figure
from zesty.drawings.section import Part, SectionView, section

NARROW = 358
WIDEST = 1160


def parts_of(card: Card) -> tuple[Part, ...]:
    """A card's stack, sizes in mm."""
    return tuple(
        Part(
            kind=part.part,
            name=part.name,
            seat=part.seat,
            width_mm=part.width.value if part.width else None,
            bore_mm=part.bore.value if part.bore else None,
            outside_mm=part.outside.value if part.outside else None,
            way_round=part.way,
            counts=part.counts,
            spot=f"stack.{index}",
        )
        for index, part in enumerate(card.stack)
    )


def usual_parts(family: Arrangement) -> tuple[Part, ...]:
    """The usual stack of an arrangement, no size known."""
    return tuple(
        Part(kind=one.part, name=one.name, seat=one.seat, counts=one.counts, way_round=one.way)
        for one in family.stack
    )


def usual_section(family: Arrangement) -> tuple[str, str]:
    """An arrangement as it is drawn before any card says more, wide and narrow."""
    packs = family.method in BY_PACK
    two = packs and len(family.stations) > 1
    view = SectionView(
        usual_parts(family), family.drawing, has_packs=packs,
        shims_mm=(0.5, 0.15) if packs else (), right_mm=(0.3,) if two else (),
    )  # fmt: skip
    return section(view, width=WIDEST if two else 620), section(view, width=NARROW, narrow=True)


def section_of(card: Card, *, at: str = "", link: str = "") -> tuple[str, str]:
    """The section, wide and narrow. With a `link` each part leads to its own fields."""
    torque = card.setting.torque
    parts = parts_of(card)
    open_part = next((part for part in parts if part.spot == at), None)
    view = SectionView(
        shape=card.arrangement.drawing,
        parts=parts,
        nut=figure(torque.text, torque.value, "torque") if torque else "",
        lit=open_part.spot if open_part else "",
        link=link,
        has_packs=card.has_packs,
    )
    return section(view, width=760), section(view, width=NARROW, narrow=True)
