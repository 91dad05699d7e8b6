"""Paths of the pages, the API and the websocket."""

from django.contrib.auth.views import LogoutView
from django.urls import path, re_path

from .api.routes import api
from .screen.phone import PhoneConsumer
from .screen.ride import RideConsumer
from .screen.socket import Nowhere, ShowConsumer
from .views import SignIn, application_page, enter, names, phone_page, ride_page

urlpatterns = [
    path("sign-in", SignIn.as_view(), name="sign-in"),
    path("sign-out", LogoutView.as_view(), name="sign-out"),
    path("api/", api.urls),
    path("ride", ride_page),
    path("ride/<uuid:show_id>", ride_page),
    path("mine", phone_page),
    path("mine/enter", enter),
    path("mine/names", names),
    path("mine/<uuid:link_id>", phone_page),
    re_path(r"^(?!api/|static/|live/|mine)(?P<path>.*)$", application_page),
]

websocket_urlpatterns = [
    path("live/<uuid:show_id>", ShowConsumer.as_asgi()),
    path("live/<uuid:show_id>/ride", RideConsumer.as_asgi()),
    path("mine/<uuid:link_id>/live", PhoneConsumer.as_asgi()),
    re_path(r"", Nowhere.as_asgi()),
]
