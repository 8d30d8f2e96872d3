from django.urls import include, path

handler400 = "upper_rim.web.accounts.wrong.bad_request"
handler404 = "upper_rim.web.accounts.wrong.not_found"
handler500 = "upper_rim.web.accounts.wrong.server_error"
urlpatterns = [
    path("account/", include("upper_rim.web.accounts.urls")),
    path("", include("upper_rim.web.studio.urls")),
]
