"""Method files (.zmethod): read, written, and where the user's own are kept."""

from __future__ import annotations

import json
from collections.abc import Iterable
from pathlib import Path as FilePath
from typing import Any

from zesty_pivot.core.drafting.method import KIND, SUFFIX, Method
from zesty_pivot.core.errors import FileError, one_of
from zesty_pivot.core.formats import files


def read(path: FilePath) -> Method:
    """A method from a file; raises FileError in one line for anything that is not a sound one."""
    return from_value(files.read_json(path, KIND), files.shown(path))


def from_value(value: dict[str, Any], where: str) -> Method:
    """A method from plain JSON; raises FileError like `read`."""
    return files.validated(Method, files.header(value, KIND, where), where)


def dump(method: Method) -> bytes:
    """The file's bytes: each parameter and operation on a line of its own, so that a person can read and mend it."""
    value = method.model_dump(mode="json", exclude_defaults=True)
    head = {"format": method.format, "version": method.version, "id": method.id, "title": method.title}
    rows: list[str] = []
    for key, held in {**head, **{key: held for key, held in value.items() if key not in head}}.items():
        if isinstance(held, list) and held and isinstance(held[0], dict):
            lines = ",\n".join(f"  {json.dumps(each, ensure_ascii=False)}" for each in held)
            rows.append(f' "{key}": [\n{lines}\n ]')
        else:
            rows.append(f' "{key}": {json.dumps(held, ensure_ascii=False)}')
    return ("{\n" + ",\n".join(rows) + "\n}\n").encode()


def in_folder(folder: FilePath) -> tuple[list[Method], list[FileError]]:
    """The methods of a folder in order of their names, and what is wrong with the files that are none."""
    found: list[Method] = []
    faults: list[FileError] = []
    for path in sorted(folder.glob(f"*{SUFFIX}")) if folder.is_dir() else ():
        try:
            found.append(read(path))
        except FileError as fault:
            faults.append(fault)
    return found, faults


def chosen(name: str, known: Iterable[Method]) -> Method:
    """A method by its id, or from a file by its path. Raises FileError with the near name."""
    if name.endswith(SUFFIX):
        return read(FilePath(name))
    by_id = {method.id: method for method in known}
    if name not in by_id:
        what, advice = one_of("drafting method", name, by_id)
        raise FileError(what, advice=advice)
    return by_id[name]
