"""`manage.py openapi`: write the API's description and the file formats' schemas to docs/formats."""

import json
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from izett.files.pattern_doc import PatternDoc
from izett.files.recipe_json import RecipeDoc
from izett.files.scan_json import ScanDoc
from studio.api import api
from studio.carrying.document import JobDocument


class Command(BaseCommand):
    """Write OpenAPI and JSON Schemas."""

    help = "Write docs/formats: the API's description and the schemas of the open file formats."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take another folder, for comparing."""
        parser.add_argument("--out", type=Path, default=settings.ROOT / "docs" / "formats")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the files."""
        written = {
            "openapi.json": api.get_openapi_schema(),
            "izett-pattern.schema.json": PatternDoc.model_json_schema(by_alias=True),
            "izett-recipe.schema.json": RecipeDoc.model_json_schema(),
            "izett-scan.schema.json": ScanDoc.model_json_schema(),
            "izett-job.schema.json": JobDocument.model_json_schema(),
        }
        for name, schema in written.items():
            (options["out"] / name).write_text(json.dumps(schema, indent=1, default=str) + "\n", encoding="utf-8")
