from django.urls import path

from zesty.yard import views

app_name = "yard"
urlpatterns = [
    path("", views.yard, name="yard"),
    path("vehicles/new", views.new_vehicle, name="new_vehicle"),
    path("vehicles/<int:vehicle_id>/", views.vehicle, name="vehicle"),
    path(
        "vehicles/<int:vehicle_id>/rechecks/<int:recheck_id>", views.start_recheck, name="recheck"
    ),
    path("parts/", views.parts, name="parts"),
    path("parts/events", views.part_event, name="part_event"),
    path("wheel-ends/<int:wheel_end_id>/start", views.start, name="start"),
]
