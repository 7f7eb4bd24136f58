from django.urls import path

from zesty.records import views

app_name = "records"
urlpatterns = [
    path("jobs/<int:job_id>/close", views.close, name="close"),
    path("jobs/<int:job_id>/sheet.pdf", views.sheet, name="sheet"),
]
