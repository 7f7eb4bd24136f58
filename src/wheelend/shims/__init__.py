"""Which shims to fit next: exact planning from trials, tray and limits."""

from wheelend.shims.evidence import Evidence, prediction_doubt, weigh
from wheelend.shims.planner import plan
from wheelend.shims.problem import Buy, Effect, Pack, Problem, ShimPlan, TrayShim, Trial, total_mm

__all__ = [
    "Buy",
    "Effect",
    "Evidence",
    "Pack",
    "Problem",
    "ShimPlan",
    "TrayShim",
    "Trial",
    "plan",
    "prediction_doubt",
    "total_mm",
    "weigh",
]
