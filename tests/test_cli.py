"""The command line, run as a person runs it."""

import csv
import json
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest

from jumpstop.demo import SHELF, setups


def run(*words: str | Path, data: str = "") -> subprocess.CompletedProcess[str]:
    command = [sys.executable, "-m", "jumpstop.cli", *map(str, words)]
    return subprocess.run(command, input=data, capture_output=True, text=True, timeout=60, check=False)


@pytest.fixture
def noon(tmp_path: Path) -> Path:
    file = tmp_path / "noon.json"
    file.write_text(setups()[0].model_dump_json(), encoding="utf-8")
    return file


def test_solve_prints_every_way_with_the_whole_chain(noon: Path) -> None:
    done = run("solve", noon)
    assert done.returncode == 0
    answer = json.loads(done.stdout)
    assert answer["chosen"] == "nd"
    ways = {way["kind"]: way for way in answer["ways"]}
    assert not ways["sync"]["possible"]
    assert "too bright" in ways["sync"]["reason"]
    units = ways["nd"]["units"]
    assert len(units) == 12
    for unit in units:
        assert sum(step["stops"] for step in unit["chain"]) == pytest.approx(unit["spare"], abs=0.01)
        assert unit["sd"] > 0
        assert unit["dial"]
    assert {step["mark"] for step in units[0]["chain"]} <= {"P", "D", "CP", "M", "U"}


def test_solve_as_a_table_with_a_shelf_of_ones_own(noon: Path, tmp_path: Path) -> None:
    shelf = tmp_path / "own.csv"
    shelf.write_text('name,guide_number\nRuff,"GN 60 (ISO 100, m, 200 mm)"\nReeve,GN 40\n', encoding="utf-8")
    done = run("solve", noon, "--shelf", shelf, "--table")
    assert done.returncode == 0
    assert "row 3, column guide_number" in done.stderr
    assert "High-speed sync: f/2.8  1/8000 s  ISO 100" in done.stdout
    assert "cannot be:" in done.stdout
    assert "Ruff" in done.stdout


@pytest.mark.parametrize(
    ("document", "sentence"),
    [
        ("{", "not JSON"),
        ('{"look": {"f_number": 0}}', "Aperture (f-number) must be at least 0.5"),
        ('{"lights": []}', "at least 1 needed"),
        ('{"there": {"by": "sun"}}', "Say the place"),
    ],
)
def test_solve_refuses_nonsense_with_a_sentence(document: str, sentence: str) -> None:
    done = run("solve", "-", data=document)
    assert done.returncode == 2
    assert sentence in done.stderr
    assert "Traceback" not in done.stderr


def test_import_export_and_backup_lose_nothing(tmp_path: Path) -> None:
    data, out = tmp_path / "data", tmp_path / "out.json"
    assert run("import", SHELF, "--data", data).stdout == "12 units added.\n"
    assert run("export", out, "--data", data).returncode == 0
    assert json.loads(out.read_text())["units"] == json.loads(run_export(tmp_path, data, "again.json"))["units"]
    table = tmp_path / "out.csv"
    run("export", table, "--data", data)
    with table.open(encoding="utf-8", newline="") as lines:
        assert [row["name"] for row in csv.DictReader(lines)][3] == "Plover 58"
    copy = tmp_path / "copy.sqlite3"
    assert run("backup", copy, "--data", data).returncode == 0
    with sqlite3.connect(copy) as connection:
        assert connection.execute("SELECT count(*) FROM units").fetchone() == (12,)
    again = run("backup", copy, "--data", data)
    assert again.returncode == 2
    assert "is there already" in again.stderr


def run_export(folder: Path, data: Path, name: str) -> str:
    run("export", folder / name, "--data", data)
    return (folder / name).read_text()


def test_a_bad_row_keeps_everything_out_unless_agreed(tmp_path: Path) -> None:
    data, file = tmp_path / "data", tmp_path / "list.csv"
    file.write_text('name,guide_number\nRuff,"GN 60 (ISO 100, m, 200 mm)"\nReeve,GN 40\n', encoding="utf-8")
    refused = run("import", file, "--data", data)
    assert refused.returncode == 2
    assert "nothing was written" in refused.stderr
    assert run("import", file, "--data", data, "--yes").stdout == "1 units added.\n"


def test_serve_says_when_a_port_cannot_be_had(tmp_path: Path) -> None:
    import socket

    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        done = run("serve", "--data", tmp_path, "--port", str(taken.getsockname()[1]))
    assert done.returncode == 2
    assert "cannot be had" in done.stderr
