from django.urls import path

from zesty.cards import views

app_name = "cards"
urlpatterns = [
    path("cards/", views.card_list, name="list"),
    path("cards/new", views.new, name="new"),
    path("cards/arrangements", views.gallery, name="gallery"),
    path("cards/<int:card_id>/", views.card, name="card"),
    path("cards/<int:card_id>/edit", views.edit, name="edit"),
    path("cards/drafts/<int:draft_id>/", views.draft, name="draft"),
    path("cards/drafts/<int:draft_id>/line", views.draft_line, name="draft_line"),
    path("cards/drafts/<int:draft_id>/keep", views.keep, name="keep"),
]
