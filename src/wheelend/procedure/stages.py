"""The stages of a job, in the order in which it is done, and which of them a job's plan holds."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Stage:
    """One stage: `key` is its stable name, `short` fits a narrow rule."""

    key: str
    name: str
    short: str


STAGES = (
    Stage("take_in", "Take in", "Take in"),
    Stage("check", "Check and diagnose", "Check"),
    Stage("strip", "Strip and record", "Strip"),
    Stage("clean", "Clean and inspect", "Clean"),
    Stage("match", "Match and get ready", "Match"),
    Stage("press", "Press and fit", "Press"),
    Stage("pack", "Pack and lubricate", "Pack"),
    Stage("seal", "Seal", "Seal"),
    Stage("set", "Assemble and set", "Set"),
    Stage("lock", "Torque and lock", "Lock"),
    Stage("prove", "Prove", "Prove"),
    Stage("close", "Close", "Close"),
)
