"""Words that makers print, in five languages, by what they mean: see vocabulary.json.

Folded: lower case, no accents, ss for a sharp s. labels: what a line is about. asides: what stands beside a figure and
says which it is. kinds: kinds of unit as a type is printed. units: what stands behind a number. between: what stands
between the two ends of a range.
"""

import json
from importlib.resources import files

_READ = json.loads(files(__package__).joinpath("vocabulary.json").read_text("utf-8"))
Table = dict[str, list[str]]
LABELS: Table = _READ["labels"]
ASIDES: Table = _READ["asides"]
KINDS: Table = _READ["kinds"]
UNITS: Table = _READ["units"]
BETWEEN: list[str] = _READ["between"]
