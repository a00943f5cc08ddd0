"""The studio's API: routers translate, actions act, problems speak."""

from django.views.decorators.csrf import csrf_protect
from ninja import NinjaAPI

import izett
from studio.problems import install
from studio.routers import charts, fitting, house, jobs, long_work, measuring, people, sheets, style, table

api = NinjaAPI(title="Izett studio", version=izett.__version__, urls_namespace="api", docs_url=None)
for part in (people, sheets, charts, house, measuring, jobs, fitting, style, table, long_work):
    api.add_router("", part.router)
# Endpoints without cookie sign-in skip the CSRF check unless it is asked for.
api.add_decorator(csrf_protect, mode="view")
install(api)
