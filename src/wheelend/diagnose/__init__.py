"""Causes ranked from evidence, and the check that would tell most per minute.

Source: Bayes' rule, answers independent given the cause (naive Bayes); Shannon entropy.
"""

from wheelend.diagnose.case import Answer, Case
from wheelend.diagnose.ranking import Diagnosis, Offer, Ranked, Reason, diagnose
from wheelend.diagnose.table import Table, table

__all__ = [
    "Answer",
    "Case",
    "Diagnosis",
    "Offer",
    "Ranked",
    "Reason",
    "Table",
    "diagnose",
    "table",
]
