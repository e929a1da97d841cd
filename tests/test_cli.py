"""The command line: once as a person runs it, else in this process, which need not load all it is made of each time."""

import csv
import json
import math
import os
import re
import socket
import sqlite3
import subprocess
import sys
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest
from typer.testing import CliRunner

from jumpstop.cli import app
from jumpstop.demo import SHELF, setups

Done = subprocess.CompletedProcess[str]


def alone(*words: str | Path, data: str = "") -> Done:
    command = [sys.executable, "-m", "jumpstop.cli", *map(str, words)]
    return subprocess.run(command, input=data, capture_output=True, text=True, timeout=60, check=False)


def run(*words: str | Path, data: str = "") -> Done:
    command = list(map(str, words))
    done = CliRunner().invoke(app, command, input=data, catch_exceptions=False)
    return Done(command, done.exit_code, done.stdout, done.stderr)


def refused(done: Done, sentence: str) -> bool:
    return done.returncode == 2 and sentence in done.stderr and "Traceback" not in done.stderr


@pytest.fixture
def noon(tmp_path: Path) -> Path:
    file = tmp_path / "noon.json"
    file.write_text(setups()[0].model_dump_json(), encoding="utf-8")
    return file


def test_solve_prints_every_way_with_the_whole_chain(noon: Path) -> None:
    done = alone("solve", noon)
    assert done.returncode == 0
    answer = json.loads(done.stdout)
    assert answer["chosen"] == "nd"
    ways = {way["kind"]: way for way in answer["ways"]}
    assert not ways["sync"]["possible"]
    assert "too bright" in ways["sync"]["reason"]
    assert ways["nd"]["camera"] == {"aperture": "f/2.8", "shutter": "1/250 s", "iso": "ISO 100", "nd": "ND 5"}
    units = ways["nd"]["units"]
    assert len(units) == 12
    for unit in units:
        assert sum(step["stops"] for step in unit["chain"]) == pytest.approx(unit["spare"], abs=0.01)
        assert unit["sd"] > 0
        assert unit["dial"]
        assert unit["verdict"]
    assert [step["key"] for step in units[3]["chain"]][:2] == ["take_off", "distance"]
    assert units[3]["chain"][0]["effect"] == "rated_output"
    assert {step["mark"] for step in units[0]["chain"]} <= {"P", "D", "CP", "M", "U"}


def test_solve_takes_setups_and_shelves_of_version_one(tmp_path: Path) -> None:
    old = {
        "format": "jumpstop-setup", "version": 1, "there": {"subject": "back"},
        "look": {"f_number": 2.8, "background_stops": -1},
        "filters": [{"name": "ND 6", "stops": 6}], "lights": [{"role": "fill", "target_stops": -2, "distance_m": 1.8}],
    }  # fmt: skip
    unit = {
        "name": "Old",
        "claims": [{"guide_number": 90, "unit": "m", "zoom_mm": 35}],
        "sources": [{"recycle_full_s": 2}],
    }
    shelf = tmp_path / "old.json"
    shelf.write_text(json.dumps({"format": "jumpstop-shelf", "version": 1, "units": [unit]}), encoding="utf-8")
    done = run("solve", "-", "--shelf", shelf, data=json.dumps(old))
    chain = json.loads(done.stdout)["ways"][1]["units"][0]["chain"]
    assert [step["key"] for step in chain] == ["take_off", "distance", "nd", "tail", "level"]


def test_solve_as_a_table_with_a_shelf_of_ones_own(noon: Path, tmp_path: Path) -> None:
    shelf = tmp_path / "own.csv"
    shelf.write_text('name,guide_number\nRuff,"GN 60 (ISO 100, m, 200 mm)"\nReeve,GN 40\n', encoding="utf-8")
    done = run("solve", noon, "--shelf", shelf, "--table")
    assert done.returncode == 0
    assert "row 3, column guide_number" in done.stderr
    assert "High-speed sync: f/2.8  1/8000 s  ISO 100" in done.stdout
    assert "not possible:" in done.stdout
    assert "Ruff" in done.stdout


@pytest.mark.parametrize(
    ("document", "sentence"),
    [
        ("{", "not JSON"),
        ('{"aim": {"f_number": 0}}', "Aperture (f-number) must be at least 0.5"),
        ('{"lights": []}', "at least 1 needed"),
        ('{"ambient": {"by": "sun"}}', "Say the place"),
        ('{"there": {"by": "sun"}}', "Say the place"),
    ],
)
def test_solve_refuses_nonsense_with_a_sentence(document: str, sentence: str) -> None:
    assert refused(run("solve", "-", data=document), sentence)


def test_import_export_backup_and_restore_lose_nothing(tmp_path: Path) -> None:
    data, out = tmp_path / "data", tmp_path / "out.json"
    assert run("import", SHELF, "--data", data).stdout == "12 units added.\n"
    assert run("export", out, "--data", data).returncode == 0
    again = tmp_path / "again"
    assert run("import", out, "--data", again).stdout == "12 units added.\n"
    table = tmp_path / "out.csv"
    assert run("export", table, "--data", again).returncode == 0
    with table.open(encoding="utf-8", newline="") as lines:
        assert [row["name"] for row in csv.DictReader(lines)][3] == "Plover 58"
    copy = tmp_path / "copy.sqlite3"
    assert run("backup", copy, "--data", data).returncode == 0
    assert refused(run("backup", copy, "--data", data), "is there already")
    run("import", SHELF, "--data", data)
    done = run("restore", copy, "--data", data)
    assert "What was there is kept as" in done.stdout
    with sqlite3.connect(data / "jumpstop.sqlite3") as connection:
        assert connection.execute("SELECT count(*) FROM units").fetchone() == (12,)


def test_a_bad_row_keeps_everything_out_unless_agreed(tmp_path: Path) -> None:
    data, file = tmp_path / "data", tmp_path / "list.csv"
    file.write_text('name,guide_number\nRuff,"GN 60 (ISO 100, m, 200 mm)"\nReeve,GN 40\n', encoding="utf-8")
    assert refused(run("import", file, "--data", data), "nothing was written")
    assert run("import", file, "--data", data, "--yes").stdout == "1 unit added.\n"


def test_what_cannot_be_done_is_said_in_a_sentence(tmp_path: Path) -> None:
    data = tmp_path / "data"
    assert refused(alone("backup", tmp_path / "copy", "--data", data), "There is no data")
    assert not (tmp_path / "copy").exists()
    assert refused(run("restore", tmp_path / "missing", "--data", data), "There is no file")
    assert refused(run("import", tmp_path / "missing", "--data", data), "No such file")
    run("import", SHELF, "--data", data)
    assert refused(run("export", tmp_path / "nowhere" / "out.csv", "--data", data), "No such file")
    assert refused(run("export", tmp_path / "out.txt", "--data", data), "must end in .csv or .json")
    (tmp_path / "kept.csv").write_text("kept", encoding="utf-8")
    (tmp_path / ".kept.csv.part").mkdir()
    assert refused(run("export", tmp_path / "kept.csv", "--data", data), "part")
    assert (tmp_path / "kept.csv").read_text() == "kept"
    assert run("serve", "--port", "70000", "--data", data).returncode == 2
    (data / "jumpstop.sqlite3").write_bytes(b"x" * 4096)
    assert refused(run("serve", "--data", data, "--port", "0"), "is not a data file")


def test_serve_says_when_a_port_is_not_free(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        done = run("serve", "--data", tmp_path, "--port", str(taken.getsockname()[1]))
    assert refused(done, "is not free")


@pytest.fixture
def running(tmp_path: Path) -> Iterator[tuple[Path, str]]:
    """The demo, running: its folder and its address."""
    folder = tmp_path / "demo"
    command = [sys.executable, "-m", "jumpstop.cli", "demo", "--data", str(folder)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        found = re.search(r"http://\S+/", process.stdout.readline())
        assert found
        yield folder, found.group()
        process.kill()


def test_data_in_use_is_neither_served_again_nor_reset_nor_restored(running: tuple[Path, str], tmp_path: Path) -> None:
    folder, address = running
    copy = tmp_path / "copy.sqlite3"
    assert run("backup", copy, "--data", folder).returncode == 0  # reading it is no harm
    for command in (("serve", "--port", "0"), ("demo", "--reset"), ("demo",), ("restore", copy)):
        assert refused(run(*command, "--data", folder), "in use by the demo's server"), command
    assert refused(alone("demo", "--reset", "--data", folder), "in use by the demo's server")
    assert urllib.request.urlopen(f"{address}api/units").status == 200
    assert run("import", SHELF, "--data", folder).stdout == "12 units added.\n"


def test_an_open_server_says_what_it_opens(tmp_path: Path) -> None:
    command = [
        sys.executable,
        "-m",
        "jumpstop.cli",
        "serve",
        "--host",
        "0.0.0.0",
        "--port",
        "0",
        "--data",
        str(tmp_path / "d"),
    ]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=os.environ) as process:
        assert process.stdout is not None
        said = [process.stdout.readline() for _ in range(3)]
        process.kill()
    assert "every device on the network can call it" in said[0]
    assert "each works once" in said[1]
    assert re.search(r"http://\S+:\d+/enter\?token=\S{20,}", said[2])


def test_small_answers_are_not_held_back(running: tuple[Path, str]) -> None:
    """The listening socket names its protocol, so that accepted ones send at once (TCP_NODELAY needs it)."""
    from jumpstop.cli import _listen

    with _listen("127.0.0.1", 0) as listening:
        assert listening.proto == socket.IPPROTO_TCP


def test_levels_prints_each_receiver(noon: Path) -> None:
    done = run("levels", noon)
    assert done.returncode == 0
    found = json.loads(done.stdout)
    level = {one["receiver"]: one for one in found["receivers"]}
    assert level["background"]["total"] == pytest.approx(-1, abs=0.02)
    lit = level["lit"]
    assert lit["total"] == pytest.approx(math.log2(2 ** lit["ambient"] + 2 ** lit["lights"][0]), abs=0.02)
    assert found["lights"][0]["unit"] == "Curlew 400"


def test_levers_prints_each_change(noon: Path, tmp_path: Path) -> None:
    found = json.loads(run("levers", noon, "--unit", "Redshank 60", "--pairs").stdout)
    assert (found["unit"], found["method"]) == ("Redshank 60", "nd")
    gains = {one["says"]: one["gain"] for one in found["singles"]}
    assert gains["inner diffuser off"] == pytest.approx(0.9)
    assert all(one["spare"] == pytest.approx(found["spare"] + one["gain"], abs=2e-4) for one in found["singles"])
    assert all(len(one["codes"]) == 2 for one in found["pairs"])
    assert "pairs" not in json.loads(run("levers", noon).stdout)
    assert refused(run("levers", noon, "--unit", "Nobody"), "no unit on this shelf is called 'Nobody'")
    twice = tmp_path / "twice.csv"
    twice.write_text('name,guide_number\nStint,"GN 36 m"\nStint,"GN 40 m"\n', encoding="utf-8")
    assert refused(run("levers", noon, "--shelf", twice, "--unit", "Stint"), "2 units are called 'Stint'")


def test_a_picture_is_said_on_the_command_line() -> None:
    done = run("say", "85 mm f/2.8, sun behind, octa at 1.8 m 45 left, background 60 m", "--unit", "Curlew 400")
    setup = json.loads(done.stdout)
    (light,) = setup["lights"]
    assert (light["unit"]["name"], light["modifier"]["name"], light["distance_m"]) == ("Curlew 400", "Octa 90", 1.8)
    assert setup["aim"]["lens"]["background_m"] == 60
    for text, said in (("blurb, f/4", "Not understood: “blurb”"), ("umbrella", "“umbrella” can be:"),
                       ("noon", "needs a place and a day")):  # fmt: skip
        assert refused(run("say", text), said)
