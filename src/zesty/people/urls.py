from django.contrib.auth.views import LogoutView
from django.urls import path

from zesty.people import views

app_name = "people"
urlpatterns = [
    path("sign-in", views.SignIn.as_view(), name="sign_in"),
    path("sign-out", LogoutView.as_view(), name="sign_out"),
    path("demo/<slug:account>", views.demo_enter, name="demo_enter"),
    path("units", views.units, name="units"),
    path("first", views.first, name="first"),
    path("join/<slug:word>", views.join, name="join"),
    path("members", views.members, name="members"),
    path("members/change", views.member, name="member"),
    path("password", views.password, name="password"),
    path("alive", views.alive, name="alive"),
]
