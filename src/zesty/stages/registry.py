"""Which stage has which page. Adding a stage is adding a folder and a line here."""

from collections.abc import Callable

from zesty.bench.queries.frame import Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.stages.check.page import scene as check
from zesty.stages.clean.page import scene as clean
from zesty.stages.close.page import scene as close
from zesty.stages.lock.page import scene as lock
from zesty.stages.match.page import scene as match
from zesty.stages.pack.page import scene as pack
from zesty.stages.plain.page import scene as plain
from zesty.stages.press.page import scene as press
from zesty.stages.prove.page import scene as prove
from zesty.stages.seal.page import scene as seal
from zesty.stages.set.page import scene as setting
from zesty.stages.strip.page import scene as strip
from zesty.stages.take_in.page import scene as take_in

SceneOf = Callable[[JobFile, UnitFile, str, str], Scene]

SCENES: dict[str, SceneOf] = {
    "take_in": take_in,
    "check": check,
    "strip": strip,
    "clean": clean,
    "match": match,
    "press": press,
    "pack": pack,
    "seal": seal,
    "set": setting,
    "lock": lock,
    "prove": prove,
    "close": close,
}


def scene_of(file: JobFile, unit: UnitFile, stage: str, place: str = "") -> Scene:
    """What a stage draws and shows, for its occurrence in the arrangement; `place` is the one that
    somebody opened."""
    return SCENES.get(stage.partition(".")[0], plain)(file, unit, stage, place)
