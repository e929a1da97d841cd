"""Writes the OpenAPI document and the JSON Schemas to docs/, or checks that they are current."""

import json
import sys
from pathlib import Path

from ..formats.documents import DOCUMENTS, schema_of
from .app import create_app


def main() -> int:
    """`python -m jumpstop.api.openapi [--check] docs/openapi.json`"""
    check = "--check" in sys.argv
    target = Path(sys.argv[-1])
    files = {target: create_app(Path("unused")).openapi()}
    files |= {target.parent / "schema" / f"{name}.json": schema_of(name) for name in DOCUMENTS}
    stale = []
    for path, document in files.items():
        text = json.dumps(document, indent=1, ensure_ascii=False) + "\n"
        if check and (not path.exists() or path.read_text(encoding="utf-8") != text):
            stale.append(str(path))
        elif not check:
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_text(text, encoding="utf-8")
    if stale:
        print(f"Stale: {', '.join(stale)}. Run `make openapi`.", file=sys.stderr)
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
