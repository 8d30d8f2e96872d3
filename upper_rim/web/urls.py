from django.urls import include, path

urlpatterns = [
    path("account/", include("upper_rim.web.accounts.urls")),
    path("", include("upper_rim.web.studio.urls")),
]
