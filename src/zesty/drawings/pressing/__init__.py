"""Pressing: the gap that lets a ring drop in, the ring that takes the force, the blade tried behind it."""

from zesty.drawings.pressing.blade import blade_view
from zesty.drawings.pressing.board import GapLine, GapView, press_view

__all__ = ["GapLine", "GapView", "blade_view", "press_view"]
