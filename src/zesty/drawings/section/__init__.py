"""The half-section of a wheel end, drawn from its card's stack."""

from zesty.drawings.section.drawing import SectionView, section
from zesty.drawings.section.model import Part, Stack

__all__ = ["Part", "SectionView", "Stack", "section"]
