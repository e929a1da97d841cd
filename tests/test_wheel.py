"""The wheel, as somebody installs it who has no Node and no checkout."""

import json
import os
import re
import subprocess
import sys
import urllib.request
import venv
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

ROOT = Path(__file__).parent.parent


@contextmanager
def ended(process: subprocess.Popen[str]) -> Iterator[None]:
    """Ends it whatever happens: a test that fails does not wait for a server that runs on."""
    try:
        yield
    finally:
        process.kill()


def test_a_wheel_runs_in_a_clean_environment_without_node(tmp_path: Path) -> None:
    subprocess.run(
        [sys.executable, "-m", "build", "--wheel", "--outdir", tmp_path, ROOT], check=True, capture_output=True
    )
    wheel = next(tmp_path.glob("jumpstop-*.whl"))
    home = tmp_path / "clean"
    venv.create(home)
    quick: list[str | Path] = [Path(sys.executable).parent / "uv", "pip", "install", "--python", home]
    usual: list[str | Path] = [
        sys.executable,
        "-m",
        "pip",
        "--python",
        home,
        "install",
        "--no-compile",
    ]  # it may reach what uv cannot
    what: list[str | Path] = ["-q", "-c", ROOT / "requirements.lock", wheel]
    assert any(subprocess.run([*one, *what], capture_output=True).returncode == 0 for one in (quick, usual))
    clean = {"PATH": str(home / "bin"), "HOME": str(tmp_path), "LANG": os.environ.get("LANG", "C.UTF-8")}
    command: list[str | Path] = [home / "bin" / "jumpstop", "demo", "--data", tmp_path / "data"]
    with (
        subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=clean, cwd=tmp_path) as process,
        ended(process),
    ):
        assert process.stdout is not None
        found = re.search(r"http://\S+/", process.stdout.readline())
        assert found
        address = found.group()
        page = urllib.request.urlopen(address).read().decode()
        script = re.search(r'src="/(assets/[^"]+\.js)"', page)
        assert script
        start = urllib.request.urlopen(address + script.group(1)).read().decode()
        (view,) = set(re.findall(r"SetupView-[\w-]+\.js", start))  # what the page loads next
        assert len(urllib.request.urlopen(f"{address}assets/{view}").read()) > 50_000
        setup = json.load(urllib.request.urlopen(f"{address}api/setups"))[0]["id"]
        answer = json.load(urllib.request.urlopen(f"{address}api/setups/{setup}/answer"))["answer"]
    assert re.match(r"3 of 12 units reach\. The lightest that does, Curlew 400", answer["headline"])
