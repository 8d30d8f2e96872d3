"""Signing in and out: Django's own views, with our template."""

from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.views import LoginView, LogoutView
from django.urls import path

urlpatterns = [
    path(
        "sign-in/",
        login_not_required(LoginView.as_view(template_name="accounts/sign_in.html", redirect_authenticated_user=True)),
        name="sign-in",
    ),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
]
