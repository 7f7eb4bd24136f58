"""The head of every bench page: where it stands, and the stage rule."""

from dataclasses import dataclass

from django.urls import reverse

from wheelend.arrangements import ARRANGEMENTS
from wheelend.procedure.cautions import Caution, cautions_for
from wheelend.procedure.setting import Assessment
from wheelend.procedure.stages import STAGES
from zesty.bench.queries.jobfile import JobFile
from zesty.cards.queries import family

_PAGES = {
    "take_in": "bench:take_in",
    "set": "bench:set",
    "lock": "bench:lock",
    "close": "records:close",
}


@dataclass(frozen=True)
class StageTab:
    """One stage in the rule: where it leads (nowhere, outside the plan) and how it stands."""

    name: str
    short: str
    href: str
    state: str


@dataclass(frozen=True)
class Head:
    """What stands above every stage of a job."""

    file: JobFile
    tabs: tuple[StageTab, ...]
    cautions: tuple[Caution, ...]
    here: str


def head(file: JobFile, here: str, found: Assessment) -> Head:
    """The head of a stage's page."""
    plan = ARRANGEMENTS[file.job.card_version.card.arrangement].stages
    done = _done(file, found)
    tabs = []
    for stage in STAGES:
        planned = stage.key in plan
        state = "here" if stage.key == here else "done" if done.get(stage.key) else "open"
        href = reverse(_PAGES[stage.key], args=[file.job.pk]) if planned else ""
        tabs.append(StageTab(stage.name, stage.short, href, state if planned else "unplanned"))
    air = file.job.wheel_end.vehicle.air_braked
    two_sided = family(file.job.card_version).sides == 2
    cautions = cautions_for(here, air_braked=air, through_axle=two_sided)
    return Head(file, tuple(tabs), cautions, here)


def current_stage(file: JobFile, found: Assessment) -> str:
    """The first stage of the plan that is not done; a closed job stands at its close."""
    done = _done(file, found)
    plan = ARRANGEMENTS[file.job.card_version.card.arrangement].stages
    return next((key for key in plan if not done[key]), "close")


def stage_url(file: JobFile, stage: str) -> str:
    """Where a stage of a job is."""
    return reverse(_PAGES[stage], args=[file.job.pk])


def _done(file: JobFile, found: Assessment) -> dict[str, bool]:
    return {
        "take_in": bool(file.take_in and file.take_in.made_safe),
        "set": found.is_set,
        "lock": bool(file.lock and file.lock.done),
        "close": file.job.closed_at is not None,
    }
