"""The studio's API: routers translate, actions act, problems speak."""

from typing import Any

from django.views.decorators.csrf import csrf_protect
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema

import izett
from studio.failures import install
from studio.problems import ProblemOut
from studio.routers import (
    charts,
    cutting,
    draping,
    fitting,
    house,
    jobs,
    keeping,
    long_work,
    measuring,
    people,
    plotting,
    rounds,
    sheets,
    style,
    table,
    tracing,
)
from studio.wire import PlainParser


class _Described(OpenAPISchema):
    """The description of the API, with the one form that every error has."""

    def responses(self, operation: Any) -> dict[Any, Any]:
        """Return what an operation answers: what it says, or a problem."""
        self.schemas[ProblemOut.__name__] = ProblemOut.model_json_schema()
        reference = {"$ref": f"#/components/schemas/{ProblemOut.__name__}"}
        problem = {
            "description": "What went wrong, and what to do about it",
            "content": {"application/problem+json": {"schema": reference}},
        }
        return {**super().responses(operation), "default": problem}


class StudioAPI(NinjaAPI):
    """The API, described with its errors."""

    def get_openapi_schema(self, **options: Any) -> OpenAPISchema:
        """Return the description."""
        return _Described(self, options.get("path_prefix") or self.get_root_path({}))


api = StudioAPI(
    title="Izett studio", version=izett.__version__, urls_namespace="api", docs_url=None, parser=PlainParser()
)
for part in (
    people,
    sheets,
    charts,
    house,
    measuring,
    jobs,
    fitting,
    rounds,
    style,
    draping,
    tracing,
    cutting,
    plotting,
    table,
    long_work,
    keeping,
):
    api.add_router("", part.router)
# Endpoints without cookie sign-in skip the CSRF check unless it is asked for.
api.add_decorator(csrf_protect, mode="view")
install(api)
