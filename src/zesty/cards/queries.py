"""Reads of spec cards."""

from collections.abc import Mapping
from decimal import Decimal
from fractions import Fraction

from django.db.models import Max, Prefetch, QuerySet
from django.http import Http404

from wheelend.arrangements import ARRANGEMENTS, ENDS, Arrangement
from wheelend.bolts import SHOP_STAGES, Pass, bolt_sequence
from wheelend.feel import smallest_felt
from wheelend.locknut import slotted
from wheelend.procedure.locking import LockCard
from wheelend.procedure.setting import Aim, SettingCard
from wheelend.quantity import ANGLE, LENGTH, TORQUE, TORQUE_PER_DEG, Dimension, parse
from wheelend.verdict import Limits
from zesty.cards.models import CardVersion, SpecCard
from zesty.drawings.section import Part
from zesty.people.models import Workshop

AIM_WORDS = ("middle", "low", "high")


def cards_of(workshop: Workshop) -> QuerySet[SpecCard]:
    """All cards of a workshop with their newest version's number."""
    return SpecCard.objects.filter(workshop=workshop).annotate(newest=Max("versions__number"))


def card_of(workshop: Workshop, card_id: int) -> SpecCard:
    """One card with all its versions, newest first. Raises Http404 for another workshop's."""
    versions = CardVersion.objects.select_related("made_by").prefetch_related("stack")
    card = (
        SpecCard.objects.filter(workshop=workshop, pk=card_id)
        .prefetch_related(Prefetch("versions", versions))
        .first()
    )
    if card is None:
        raise Http404
    return card


def parts_of(version: CardVersion) -> tuple[Part, ...]:
    """A version's stack as the drawing wants it."""
    return tuple(
        Part(
            kind=part.kind,
            name=part.name,
            width_mm=_float(part.width_mm),
            bore_mm=_float(part.bore_mm),
            outside_mm=_float(part.outside_mm),
            way_round=part.way_round,
            counts=part.counts,
        )
        for part in version.stack.all()
    )


def setting_card(version: CardVersion, chosen: Mapping[str, str] | None = None) -> SettingCard:
    """What a version says of the setting; `chosen` is what the job chose otherwise, by name."""
    chosen = chosen or {}
    return SettingCard(
        effect=version.effect,
        limits=Limits(float(version.low_mm), float(version.high_mm)),
        aim=_aim(chosen.get("aim", version.aim)),
        max_shims=version.max_shims,
        nut_torque_N_m=float(version.nut_torque_N_m),
        sides=family(version).sides,
        balance=chosen.get("balance", version.balance),
        trial_method=chosen.get("trial_method", version.trial_method),
        smallest_felt_mm=_smallest_felt(version),
        plate_torque_N_m=plate_torque(version),
    )


def _smallest_felt(version: CardVersion) -> float | None:
    """What hands can feel, where the card gives the sizes."""
    if not (version.hands_radius and version.spread and version.contact_angle):
        return None
    radius, spread = (float(parse(t, LENGTH)) for t in (version.hands_radius, version.spread))
    return smallest_felt(radius, spread, float(parse(version.contact_angle, ANGLE)))


def family(version: CardVersion) -> Arrangement:
    """The arrangement that a version's card is of."""
    return ARRANGEMENTS[version.card.arrangement]


def plate_torque(version: CardVersion) -> float | None:
    """What the plate bolts of a through-axle are drawn to."""
    if family(version).sides == 1 or not version.bolt_torque:
        return None
    return float(parse(version.bolt_torque, TORQUE))


def trial_torque(version: CardVersion) -> str:
    """What a first trial is drawn to, as typed: the nut's torque, or a through-axle's plate bolts'."""
    return version.bolt_torque if plate_torque(version) is not None else version.nut_torque


def lock_card(version: CardVersion, chosen: Mapping[str, str] | None = None) -> LockCard:
    """What a version says of the lock; `chosen` is what the job chose otherwise, by name."""
    per_turn = None
    if version.slots and version.openings:
        per_turn = slotted(version.slots, version.openings, flip=version.flip)
    elif version.positions:
        per_turn = version.positions * (2 if version.flip else 1)
    low, high = (_exact(text, TORQUE) for text in (version.torque_low, version.torque_high))
    window = None
    if low is not None or high is not None:
        window = Limits(None if low is None else float(low), None if high is None else float(high))
    return LockCard(
        lock=version.lock,
        nut_torque_N_m=float(version.nut_torque_N_m),
        pitch_mm=_exact(version.pitch, LENGTH),
        per_turn=per_turn,
        policy=(chosen or {}).get("lock_policy", version.lock_policy),
        torque_limits=window,
        torque_per_deg=_exact(version.torque_per_deg, TORQUE_PER_DEG),
    )


def _exact(text: str, dimension: Dimension) -> Fraction | None:
    return parse(text, dimension) if text else None


def bolt_laps(version: CardVersion) -> tuple[Pass, ...]:
    """The passes of a version's wheel bolts; none where it names no bolts."""
    if not version.bolts:
        return ()
    torque = _exact(version.bolt_torque, TORQUE)
    return bolt_sequence(version.bolts, float(torque or 0), SHOP_STAGES)


def clocks_of(version: CardVersion) -> tuple[str, ...]:
    """The places that a version asks for: clock positions, or both ends of a through-axle."""
    if family(version).sides == 2:
        return ENDS
    return tuple(clock.strip() for clock in version.clocks.split(",") if clock.strip())


def _aim(words: str) -> Aim:
    return words if words in AIM_WORDS else float(parse(words, LENGTH))


def _float(value: Decimal | None) -> float | None:
    return None if value is None else float(value)
