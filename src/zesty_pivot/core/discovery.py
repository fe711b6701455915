"""A family of things is a folder with one module each: found by looking into the folder, when asked."""

from __future__ import annotations

import importlib
import pkgutil
from types import ModuleType


def members(package: ModuleType, attribute: str) -> list[object]:
    """The value of `attribute` in every module of a package that has it, in order of module names."""
    found: list[object] = []
    for info in sorted(pkgutil.iter_modules(package.__path__), key=lambda info: info.name):
        module = importlib.import_module(f"{package.__name__}.{info.name}")
        if hasattr(module, attribute):
            found.append(getattr(module, attribute))
    return found


def member(package: ModuleType, module: str, name: str) -> object | None:
    """The value called `name` of one module of a package, or None when there is no such module or it has none; nothing
    else is imported."""
    known = {info.name for info in pkgutil.iter_modules(package.__path__)}
    if module not in known:
        return None
    found: object | None = getattr(importlib.import_module(f"{package.__name__}.{module}"), name, None)
    return found
