"""Template words: numbers in both units, drawings, form fields."""

from typing import Any

from django import template
from django.forms import BoundField
from django.template.loader import get_template
from django.utils.safestring import SafeString, mark_safe

from wheelend import wording

register = template.Library()


@register.filter
def both(length_mm: Any, step_mm: Any = 0.01) -> str:
    """A length in mm and thou."""
    return wording.both(float(length_mm), float(step_mm))


@register.filter
def span(low_mm: float, high_mm: float) -> str:
    """From one length to another in both units, to a micrometer's step."""
    return wording.span(low_mm, high_mm, wording.SHIM_STEP_MM)


@register.filter
def mm(length_mm: Any, step_mm: Any = 0.01) -> str:
    """A length in mm."""
    return wording.mm(float(length_mm), float(step_mm))


@register.filter
def thou(length_mm: Any, step_mm: Any = 0.01) -> str:
    """A length in thou."""
    return wording.thou(float(length_mm), float(step_mm))


@register.filter
def thickness(length_mm: Any) -> str:
    """A shim's thickness in mm."""
    return wording.thickness(float(length_mm))


@register.filter
def torque(torque_N_m: Any, lead: wording.Lead = "metric") -> str:
    """A torque in both units, the one that leads first."""
    return wording.torque(float(torque_N_m), lead)


@register.filter
def per_cent(share: float) -> str:
    """A share from 0 to 1 as whole per cent."""
    return f"{round(100 * share)} %"


@register.filter
def svg(drawing: str) -> SafeString:
    """A drawing as it is: `zesty.drawings` has escaped every text in it."""
    return mark_safe(drawing)  # noqa: S308


@register.inclusion_tag("elements/field.html")
def field(bound: BoundField, hint: str = "", kind: str = "") -> dict[str, object]:
    """A form field with its label, a hint and what is wrong with it."""
    return {"field": bound, "hint": hint, "kind": kind}


@register.simple_tag(takes_context=True)
def show_panel(context: template.Context, panel: Any) -> SafeString:
    """What a stage shows beside its steps: the panel's template with what it needs."""
    with context.push(**panel.context):
        shown: SafeString = get_template(panel.template).template.render(context)
    return shown


_OTHER_UNIT = {"mm": "thou", "thou": "mm", "N·m": "lbf·ft", "lbf·ft": "N·m", "km": "h", "h": "km"}
"""What stands on the pad's unit key: the other unit of what is asked."""


@register.inclusion_tag("elements/keypad.html")
def keypad(unit: str) -> dict[str, object]:
    """The number pad for gloves; `unit` is what a bare number means here."""
    keys = ["7", "8", "9", "4", "5", "6", "1", "2", "3", "±", "0", "."]
    return {"unit": unit, "other": _OTHER_UNIT.get(unit, ""), "keys": keys}


@register.filter
def words(key: str) -> str:
    """A key as words."""
    return str(key).replace("_", " ")
