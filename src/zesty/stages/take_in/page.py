"""Take in: the vehicle from above with the wheel ends that this job covers, and what was said."""

from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.vehicle import WheelMark, vehicle


def scene(file: JobFile, _: UnitFile, _stage: str, _place: str) -> Scene:
    """The vehicle's plan, the job's wheel ends marked on it."""
    covered = {place.wheel_end_id for place in file.places}
    ends = list(file.job.vehicle.wheel_ends.all())
    marks = tuple(
        WheelMark(
            end.axle,
            end.side,
            "",
            f"{file.job.vehicle}, {end}",
            end.short if end.pk in covered else "",
            "open-work" if end.pk in covered else "",
            "" if end.pk in covered else end.short,
        )
        for end in ends
    )
    axles = max((end.axle for end in ends), default=1)
    drawing = vehicle(file.job.vehicle.kind, axles, marks, file.job.vehicle.name)
    said = next(
        (row for row in reversed(file.entries) if row.step == "complaint" and row.typed), None
    )
    panels = (Panel("stages/plain/said.html", {"said": said}),) if said else ()
    return Scene(drawing, drawing, panels)
