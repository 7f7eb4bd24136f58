from django.urls import path

from zesty.yard import views

app_name = "yard"
urlpatterns = [
    path("", views.yard, name="yard"),
    path("vehicles/new", views.new_vehicle, name="new_vehicle"),
    path("vehicles/<int:vehicle_id>/", views.vehicle, name="vehicle"),
    path("wheel-ends/<int:wheel_end_id>/start", views.start, name="start"),
]
