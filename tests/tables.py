"""Tables of cases, with their sources, as they stand in tests/data."""

from pathlib import Path

DATA = Path(__file__).parent / "data"


def rows(name: str) -> list[list[str]]:
    """The rows of a table by their tabs; empty lines and comments left out."""
    lines = (DATA / f"{name}.tsv").read_text("utf-8").splitlines()
    return [line.split("\t") for line in lines if line and not line.startswith("#")]
