"""The catalogue, made by walking the folders of methods, operations and checks.

A new one is one module with its constant (`METHOD`, `OPERATION`, `CHECK`) in the right folder; no list names it.
"""

from functools import cache
from importlib import import_module
from pkgutil import iter_modules
from types import MappingProxyType, ModuleType
from typing import Any

from izett.checking import checks
from izett.drafting import methods
from izett.recipe.shelf import Catalogue
from izett.styling import operations


@cache
def catalogue() -> Catalogue:
    """Return all methods, operations and checks by key.

    Raises:
        ValueError: two modules use one key (a programmer's mistake).
    """
    return Catalogue(
        MappingProxyType(_walked(methods, "METHOD")),
        MappingProxyType(_walked(operations, "OPERATION")),
        MappingProxyType(_walked(checks, "CHECK")),
    )


def _walked(folder: ModuleType, constant: str) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for module in sorted(iter_modules(folder.__path__), key=lambda m: m.name):
        entry = getattr(import_module(f"{folder.__name__}.{module.name}"), constant)
        if entry.key in found:
            raise ValueError(f"two modules of {folder.__name__} use the key {entry.key}")
        found[entry.key] = entry
    return found
