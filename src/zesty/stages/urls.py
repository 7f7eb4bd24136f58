from django.urls import path

from zesty.stages import beside, timers, views
from zesty.stages.match import ready

app_name = "stages"
urlpatterns = [
    path("jobs/<int:job_id>/", views.job, name="job"),
    path("jobs/<int:job_id>/get-ready", ready.get_ready, name="get_ready"),
    path("jobs/<int:job_id>/reopen", views.reopen, name="reopen"),
    path("jobs/<int:job_id>/sign", views.sign, name="sign"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/", views.page, name="page"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/write", views.write, name="write"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/photo", beside.photo, name="photo"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/other-end", beside.other_end, name="other_end"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/timer", timers.start, name="start_timer"),
    path("timers/", timers.running, name="timers"),
    path("timers/<int:timer_id>/lengthen", timers.lengthen, name="lengthen_timer"),
    path("timers/<int:timer_id>/stop", timers.stop, name="stop_timer"),
    path("timers/<int:timer_id>/ring", timers.ring, name="ring_timer"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/seen", beside.seen, name="seen"),
    path("photos/<int:entry_id>/<str:size>", beside.photo_file, name="photo_file"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/skip", views.skip, name="skip"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/aside", views.aside, name="aside"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/choose", views.choose, name="choose"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/card", views.change_card, name="card"),
    path("jobs/<int:job_id>/<int:index>/<str:stage>/abandon", views.abandon, name="abandon"),
    path(
        "jobs/<int:job_id>/<int:index>/<str:stage>/entries/<int:entry_id>/correct",
        views.correct,
        name="correct",
    ),
    path(
        "jobs/<int:job_id>/<int:index>/<str:stage>/entries/<int:entry_id>/take-back",
        views.take_back,
        name="take_back",
    ),
]
