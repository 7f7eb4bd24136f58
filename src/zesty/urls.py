"""Every address of the product."""

from django.urls import include, path

urlpatterns = [
    path("", include("zesty.people.urls")),
    path("", include("zesty.yard.urls")),
    path("", include("zesty.stages.urls")),
    path("", include("zesty.cards.urls")),
    path("", include("zesty.stores.urls")),
    path("", include("zesty.records.urls")),
]

handler500 = "zesty.elements.trouble.broke"
