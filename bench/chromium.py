"""Debian's Chromium and a demo of one's own, for the pictures, the timings and the browser tests."""

import re
import signal
import subprocess
import sys
from pathlib import Path
from typing import Any

EXECUTABLE = "/usr/bin/chromium"
SHELL = "/usr/bin/chromium-headless-shell"  # the same without a window's own parts: a page is there in half the time
ARGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip


NUDGE = """key => new Promise((done, missed) => {
  setTimeout(() => missed(new Error('the chart did not change within 5 s')), 5000)
  const start = performance.now()
  const watch = new MutationObserver(() => { watch.disconnect(); requestAnimationFrame(() =>
    setTimeout(() => done(performance.now() - start))) })
  watch.observe(document.querySelector('ol[aria-label="Flash units"]'), {subtree: true, childList: true,
    characterData: true, attributes: true})
  document.activeElement.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true}))
})"""
"""A script for the page: a key pressed, and the milliseconds until the frame after the lanes in sight have changed."""


def launch(playwright: Any, executable: str = EXECUTABLE) -> Any:
    """The browser, started."""
    found = executable if Path(executable).exists() else EXECUTABLE
    return playwright.chromium.launch(executable_path=found, args=ARGS)


class Demo:
    """The demo, run as a person runs it; can be killed and started again on the same data."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.start()

    def start(self, port: str = "0") -> None:
        """Start it, and learn its address from what it says."""
        command = [sys.executable, "-m", "jumpstop.cli", "demo", "--data", str(self.folder), "--port", port]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        assert self.process.stdout is not None
        found = re.search(r"http://\S+?:(\d+)/", self.process.stdout.readline())
        assert found
        self.url, self.port = found.group(), found.group(1)

    def kill(self) -> None:
        """Stop it as a power cut would."""
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def __enter__(self) -> str:
        return self.url

    def __exit__(self, *_: object) -> None:
        self.kill()
