"""Compiles what a start imports: the first start is then as quick as the next, even where Python keeps no bytecode."""

import importlib
import py_compile
import sys
from importlib.util import cache_from_source
from pathlib import Path

STARTS = ("jumpstop.cli", "jumpstop.api.app", "jumpstop.api.jobs", "jumpstop.api.log", "jumpstop.api.tools",
          "jumpstop.demo", "uvicorn", "uvicorn.lifespan.on", "uvicorn.protocols.http.h11_impl", "alembic.command",
          "astral.sun", "icalendar", "highspy", "jumpstop.core.plan.choice.kit_choice")  # fmt: skip


def main() -> None:
    """Compile the sources of all modules that these import, where that has not been done since they were changed."""
    for name in STARTS:
        importlib.import_module(name)
    for module in list(sys.modules.values()):
        source = Path(getattr(module, "__file__", None) or "")
        if source.suffix == ".py" and source.exists():
            made = Path(cache_from_source(str(source)))
            if not made.exists() or made.stat().st_mtime < source.stat().st_mtime:
                py_compile.compile(str(source), quiet=1)


if __name__ == "__main__":
    main()
