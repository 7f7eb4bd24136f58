from django.urls import path

from zesty.records import exchange_views, views

app_name = "records"
urlpatterns = [
    path("jobs/<int:job_id>/sheet.pdf", views.sheet, name="sheet"),
    path("jobs/<int:job_id>/sheets/<int:sheet_id>.pdf", views.old_sheet, name="old_sheet"),
    path("import", exchange_views.import_document, name="import"),
    path("jobs/<int:job_id>/job.json", exchange_views.job_json, name="job_json"),
    path("jobs/<int:job_id>/job.zip", exchange_views.job_zip, name="job_zip"),
    path("jobs/<int:job_id>/readings.csv", exchange_views.readings_csv, name="readings_csv"),
    path(
        "jobs/<int:job_id>/<int:index>/readings",
        exchange_views.import_readings,
        name="import_readings",
    ),
    path("cards/<int:card_id>/card.json", exchange_views.card_json, name="card_json"),
    path("tray/tray.json", exchange_views.tray_json, name="tray_json"),
    path("tray/tray.csv", exchange_views.tray_csv, name="tray_csv"),
    path("tray/import", exchange_views.import_tray_csv, name="import_tray_csv"),
]
