from django.urls import path

from zesty.bench.views import setting, stages, yard

app_name = "bench"
urlpatterns = [
    path("", yard.yard, name="yard"),
    path("vehicles/new", yard.new_vehicle, name="new_vehicle"),
    path("vehicles/<int:vehicle_id>/", yard.vehicle, name="vehicle"),
    path("wheel-ends/<int:wheel_end_id>/start", yard.start, name="start"),
    path("jobs/<int:job_id>/", yard.job, name="job"),
    path("jobs/<int:job_id>/take-in", stages.take_in, name="take_in"),
    path("jobs/<int:job_id>/set", setting.setting, name="set"),
    path("jobs/<int:job_id>/set/reading", setting.reading, name="reading"),
    path("jobs/<int:job_id>/set/finding", setting.finding, name="finding"),
    path("jobs/<int:job_id>/set/trial", setting.trial, name="trial"),
    path("jobs/<int:job_id>/set/choice", setting.choice, name="choice"),
    path("jobs/<int:job_id>/set/aside", setting.aside, name="aside"),
    path(
        "jobs/<int:job_id>/set/readings/<int:reading_id>/correct", setting.correct, name="correct"
    ),
    path(
        "jobs/<int:job_id>/set/readings/<int:reading_id>/take-back",
        setting.take_back,
        name="take_back",
    ),
    path("jobs/<int:job_id>/lock", stages.lock, name="lock"),
    path("jobs/<int:job_id>/lock/seat", stages.seat, name="seat"),
    path("jobs/<int:job_id>/lock/place", stages.place, name="place"),
    path("jobs/<int:job_id>/lock/tick", stages.tick, name="tick"),
]
