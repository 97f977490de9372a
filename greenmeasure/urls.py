"""All addresses: the API below /api/, everything else is the one page of the interface."""

from django.urls import path, re_path

from greenmeasure.api import api
from greenmeasure.common.page import page

urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|assets/).*$", page)]

handler400 = "greenmeasure.common.page.bad_request"
handler404 = "greenmeasure.common.page.not_found"
handler500 = "greenmeasure.common.page.server_error"
