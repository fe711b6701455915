"""What makes a cold start short."""

from __future__ import annotations

import gc
import os
import sys
from types import ModuleType

_PLUGIN_SEARCH = "pydantic.plugin._loader"


def prepare() -> None:
    """What makes a cold start short: no search for plugins, and a collector that waits until imports are through."""
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "1")  # a tenth of a cold start
    # Its search would still be loaded, and with it what reads the metadata of packages: e-mail, sockets, archives.
    none = ModuleType(_PLUGIN_SEARCH)
    vars(none)["get_plugins"] = tuple
    sys.modules.setdefault(_PLUGIN_SEARCH, none)
    gc.set_threshold(100_000, 50, 50)  # another tenth: imports make many objects and leave no garbage
