from django.urls import path

from zesty.stores import shed, views

app_name = "stores"
urlpatterns = [
    path("tray/", views.tray, name="tray"),
    path("tray/count", views.count, name="count"),
    path("tray/gauges", views.gauges, name="gauges"),
    path("tray/wrenches", views.wrenches, name="wrenches"),
    path("tray/meters", views.meters, name="meters"),
    path("tray/calibrated", views.calibrated, name="calibrated"),
    path("shed/", shed.shed, name="shed"),
    path("shed/lubricants", shed.lubricants, name="lubricants"),
    path("shed/gone", shed.gone, name="gone"),
    path("tray/confirmed", views.confirmed, name="confirmed"),
]
