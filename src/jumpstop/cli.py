"""The command line: serve, demo, import, export, backup, restore; and what `cli_solve` adds."""

import gc
import os
import secrets
import socket
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING, Annotated

import typer
from platformdirs import user_data_path

from .cli_base import plainly, written_whole
from .cli_job import app as planning
from .cli_kit import app as kit
from .cli_log import app as logging
from .cli_practice import app as practising
from .cli_solve import app as solving
from .core.kit.errors import JumpStopError

if TYPE_CHECKING:
    from .store.documents import Store

app = typer.Typer(
    help="Plan flash in stops.", no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False
)

app.add_typer(solving)
app.add_typer(planning)
app.add_typer(logging)
app.add_typer(kit)
app.add_typer(practising)

Data = Annotated[Path, typer.Option("--data", envvar="JUMPSTOP_DATA", help="Folder that holds the data.")]
Port = Annotated[int, typer.Option(min=0, max=65535, help="Port; 0 takes a free one.")]
BEFORE = Path.home() / ".local" / "share" / "jumpstop"  # wherever it ran, until 0.12
HOME = BEFORE if BEFORE.exists() else user_data_path("jumpstop", appauthor=False)
DEMO = Path("demo-data")
YOUNG = (20_000, 20, 20)  # an answer makes some thousand values and no cycles: looking for those less often
GRACE_S, LAST_S = 2, 4.0  # from being told to stop: until what is under way is given up, and until it ends anyhow
LOOPBACK = ("127.0.0.1", "localhost", "::1")


@contextmanager
def _starting() -> Iterator[None]:
    """Load faster (by a sixth): what start-up makes is nearly all kept, so looking for what is not is a waste.

    Nor are all installed packages searched for plug-ins of the validation: this product has none.
    """
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
    gc.disable()
    try:
        yield
    finally:
        gc.enable()


def _listen(host: str, port: int) -> socket.socket:
    """A socket that takes callers from now on, so that the address said is good at once; port 0 is any free one.

    Its protocol is named: the server sends small answers at once only on sockets that say they are TCP.
    """
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listening = socket.socket(family, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
    except OSError as error:
        raise JumpStopError("port_taken", port=port, host=host, why=error.strerror) from None
    listening.listen(128)
    return listening


def _own_names(host: str) -> list[str]:
    """The names and addresses under which this machine may be called, where it listens on more than its own."""
    if host not in ("0.0.0.0", "::"):
        return [host]
    name = socket.gethostname()
    found = [name, f"{name}.local"]
    with suppress(OSError):  # a machine that does not know its own name is called by what --allow-host says
        found += [str(entry[4][0]) for entry in socket.getaddrinfo(name, None)]
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
        out.connect(("192.0.2.1", 9))  # an address kept for examples: nothing is sent, but the way out is chosen
        found.append(str(out.getsockname()[0]))
    return list(dict.fromkeys(found))


def _bracketed(host: str) -> str:
    return f"[{host}]" if ":" in host else host


def _serve(store: "Store", host: str, port: int, allow: tuple[str, ...] = ()) -> None:
    folder = store.path.parent
    listening = _listen(host, port)
    port = listening.getsockname()[1]
    tokens = None
    if host in LOOPBACK:
        typer.echo(f"Jump Stop is at http://{_bracketed(host)}:{port}/  (data in {folder}; stop with Ctrl+C)")
    else:
        tokens = {secrets.token_urlsafe(24)}
        names = [*allow, *_own_names(host)]
        typer.echo(
            f"Jump Stop listens on {host}, port {port}: every device on the network can call it, and what passes is "
            f"not encrypted.\nOpen one of these links to log in; each works once:"
        )
        for name in names:
            typer.echo(f"  http://{_bracketed(name)}:{port}/enter?token={next(iter(tokens))}")
        typer.echo(f"(data in {folder}; stop with Ctrl+C)")
        allow = tuple(names)
    sys.stdout.flush()
    import uvicorn  # late, as is what follows: callers wait in the socket's queue meanwhile

    from .api.app import LOCAL_HOSTS, create_app

    hosts = [*LOCAL_HOSTS, *(_bracketed(one) for one in (*allow, host))]
    application = create_app(store, hosts, tokens, allow)
    gc.freeze()
    gc.set_threshold(*YOUNG)
    gc.enable()
    config = uvicorn.Config(application, log_level="warning", timeout_graceful_shutdown=GRACE_S)

    class Server(uvicorn.Server):
        def handle_exit(self, sig: int, frame: FrameType | None) -> None:
            """Ends whatever hangs: every change is on disk by the time it was answered."""
            deadline = threading.Timer(LAST_S, os._exit, (1,))
            deadline.daemon = True
            deadline.start()
            super().handle_exit(sig, frame)

    Server(config).run(sockets=[listening])


@app.command()
def serve(
    data: Data = HOME,
    host: Annotated[str, typer.Option(help="Address to listen on; only this machine by default.")] = "127.0.0.1",
    port: Port = 8614,
    allow_host: Annotated[list[str] | None, typer.Option(help="Another host name this server answers to.")] = None,
) -> None:
    """Run the application on your own data."""
    with plainly(), _starting():
        from .store.documents import Store
        from .store.lock import held
        from .store.making import tidy

        with held(data, "a server"):  # what is wrong with the data is said before the address is
            tidy(data)
            _serve(Store(data), host, port, tuple(allow_host or ()))


@app.command()
def demo(
    data: Data = DEMO,
    port: Port = 0,
    reset: Annotated[bool, typer.Option("--reset", help="Start afresh; what was changed is lost.")] = False,
) -> None:
    """Run the application on the invented kite week; what you change is kept for the next time."""
    with plainly(), _starting():
        from .store.documents import Store
        from .store.file import FILE
        from .store.lock import held
        from .store.making import tidy

        with held(data, "the demo's server"):
            tidy(data)
            if reset or not (data / FILE).exists():
                from .demo import begin

                begin(data, reset)
            _serve(Store(data), "127.0.0.1", port)


@app.command("import")
def import_(
    file: Annotated[Path, typer.Argument(help="A shelf, CSV or JSON.")],
    data: Data = HOME,
    yes: Annotated[bool, typer.Option("--yes", help="Write the good rows even if others are bad.")] = False,
) -> None:
    """Add units from a file; bad rows are named, and nothing is written unless all are good or --yes is given."""
    from .formats.shelf import read_shelf
    from .store.documents import Store
    from .words.edits import imported
    from .words.figures import count

    with plainly():
        reading = read_shelf(file.read_bytes())
        for problem in reading.problems:
            typer.echo(f"row {problem.row}, column {problem.column or '-'}: {problem.reason}", err=True)
        unlisted = reading.bad - len({problem.row for problem in reading.problems})
        if unlisted:
            typer.echo(f"and {unlisted:,} more bad rows", err=True)
        if reading.unknown_columns:
            typer.echo(f"not read: columns {', '.join(reading.unknown_columns)}", err=True)
        if not reading.units or (reading.bad and not yes):
            raise JumpStopError("rows_to_agree_to", good=len(reading.units))
        store = Store(data)
        docs = [unit.model_dump(mode="json") for unit in reading.units]
        store.add("units", docs, imported(len(docs), "unit"))
        store.close()
        typer.echo(f"{count(len(docs), 'unit')} added.")


@app.command()
def export(
    file: Annotated[Path, typer.Argument(help="File to write; its ending says CSV or JSON.")], data: Data = HOME
) -> None:
    """Write the shelf to a file, whole or not at all."""
    from .core.kit.unit import Unit
    from .formats.shelf import write_csv, write_json
    from .store.documents import Store
    from .words.figures import count

    with plainly():
        if file.suffix.lower() not in (".csv", ".json"):
            raise JumpStopError("file_of_no_kind")
        store = Store(data)
        units = [Unit.model_validate(item.doc) for item in store.items("units")]
        store.close()
        text = write_json(units) if file.suffix.lower() == ".json" else write_csv(units)
        written_whole(file, text)
        typer.echo(f"{count(len(units), 'unit')} written to {file}.")


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="File to write.")], data: Data = HOME) -> None:
    """Copy the data file whole, safely while the application runs, and check the copy."""
    from .store.database import backup as copy
    from .store.file import FILE

    with plainly():
        if file.exists():
            raise JumpStopError("file_there", path=file)
        copy(data / FILE, file)
        typer.echo(f"Copied to {file}.")


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="A backup.")], data: Data = HOME) -> None:
    """Put a backup in place of the data, which must not be in use; what was there is kept aside."""
    from .store.database import restore as put_back
    from .store.lock import held

    with plainly(), held(data, "a restore"):
        kept = put_back(file, data)
        typer.echo(f"Restored from {file}." + (f" What was there is kept as {kept}." if kept else ""))


if __name__ == "__main__":
    app()
