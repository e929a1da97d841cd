"""The application as a thread of the tests."""

import socket
from pathlib import Path
from threading import Thread

import uvicorn

from jumpstop.api.app import create_app


class Served:
    """The application over a folder, in a thread of this process: it need not load all it is made of each time."""

    def __init__(self, folder: Path) -> None:
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        listening.bind(("127.0.0.1", 0))
        listening.listen()
        self.url = f"http://127.0.0.1:{listening.getsockname()[1]}/"
        config = uvicorn.Config(create_app(folder), log_level="warning", timeout_graceful_shutdown=1)
        self.server = uvicorn.Server(config)
        self.thread = Thread(target=self.server.run, args=([listening],))
        self.thread.start()

    def kill(self) -> None:
        """Stop it."""
        self.server.should_exit = True
        self.thread.join()
