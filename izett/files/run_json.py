"""A run of sizes as an `izett-run` file: one recipe worked out for several bodies, a pattern for each."""

import json
from collections.abc import Mapping
from typing import Any

from izett.files.pattern_doc import PatternDoc


def write_run(patterns: Mapping[str, PatternDoc]) -> str:
    """Return the patterns of a run by size."""
    data: dict[str, Any] = {
        "format": "izett-run",
        "version": 1,
        "unit": "cm",
        "sizes": [
            {"size": size, "pattern": document.model_dump(mode="json", by_alias=True)}
            for size, document in patterns.items()
        ],
    }
    return json.dumps(data) + "\n"
