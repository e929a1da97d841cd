"""The figures that the core rests on are those that docs/figures.md lists, and each says what it is."""

from pathlib import Path

import figures


def test_every_figure_is_listed_as_it_is_and_says_what_it_is() -> None:
    listed = (Path(__file__).parents[2] / "docs" / "figures.md").read_text(encoding="utf-8")
    assert listed == figures.text(), "make figures"
    rows = [line for line in listed.splitlines() if line.startswith("| `")]
    assert len(rows) > 200
    assert not [row for row in rows if len(row.split("|")[3].strip()) < 3]
