from django.urls import path

from zesty.records import views

app_name = "records"
urlpatterns = [
    path("jobs/<int:job_id>/close", views.close, name="close"),
    path("jobs/<int:job_id>/check", views.check, name="check"),
    path("jobs/<int:job_id>/reopen", views.reopen, name="reopen"),
    path("jobs/<int:job_id>/sheet.pdf", views.sheet, name="sheet"),
    path("jobs/<int:job_id>/sheets/<int:sheet_id>.pdf", views.old_sheet, name="old_sheet"),
]
