"""Runs the server, restarted when Python changes, beside the page's own development server: `make dev`."""

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent
PORT = "8614"  # where web/vite.config.ts sends what begins with /api


def application():  # type: ignore[no-untyped-def]
    """The application over the folder that `main` names; made anew at each restart."""
    from jumpstop.api.app import create_app
    from jumpstop.demo import fill
    from jumpstop.store.documents import Store

    folder = Path(os.environ["JUMPSTOP_DATA"])
    store = Store(folder)
    fill(store)
    store.close()
    return create_app(folder)


def main(folder: Path) -> int:
    """Both, until either ends."""
    from jumpstop.store.lock import held

    environment = os.environ | {"JUMPSTOP_DATA": str(folder.resolve())}
    server = [
        sys.executable, "-m", "uvicorn", "dev:application", "--factory", "--reload", "--reload-dir", str(ROOT / "src"),
        "--app-dir", str(ROOT / "bench"), "--port", PORT,
    ]  # fmt: skip
    with held(folder, "the development server"), subprocess.Popen(server, env=environment) as running:
        try:
            return subprocess.run(["npm", "run", "dev"], cwd=ROOT / "web", check=False).returncode
        finally:
            running.terminate()


if __name__ == "__main__":
    sys.exit(main(Path(sys.argv[1])))
