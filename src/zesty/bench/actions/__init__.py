"""Verbs of the bench. Each is one transaction; a job is worked on by one of them at a time."""

from zesty.bench.actions.jobs import choose, close, open_job, reopen, take_in
from zesty.bench.actions.locking import record_lock, seat, tick_bolt, try_place
from zesty.bench.actions.readings import correct, find, read, take_back
from zesty.bench.actions.trials import begin_trial, set_aside

__all__ = [
    "begin_trial",
    "choose",
    "close",
    "correct",
    "find",
    "open_job",
    "read",
    "record_lock",
    "reopen",
    "seat",
    "set_aside",
    "take_back",
    "take_in",
    "tick_bolt",
    "try_place",
]
