"""A plain table as CSV, safe to open in a spreadsheet."""

import csv
import io
from collections.abc import Iterable, Sequence

from .shelf import guarded


def csv_of(rows: Iterable[Sequence[str]]) -> str:
    """Rows of text as CSV; no cell is run as a formula."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    for row in rows:
        writer.writerow([guarded(cell) for cell in row])
    return out.getvalue()
