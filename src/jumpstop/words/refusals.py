"""What a person is told where something cannot be done: a sentence for each code that a JumpStopError carries."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.kit.errors import JumpStopError
from .figures import count, grouped
from .problems import SENTENCES

Facts = Mapping[str, Any]
MB, MILLION = 2**20, 10**6


def said(error: JumpStopError) -> str:
    """The sentence of an error."""
    return sentence(error.code, error.facts)


def sentence(code: str, facts: Facts | None = None) -> str:
    """The sentence of a code. facts: what it speaks of."""
    found = REFUSALS.get(code) or SENTENCES[code]
    return found(facts or {})


def _either(values: list[str]) -> str:
    return " or ".join(values)


REFUSALS: dict[str, Callable[[Facts], str]] = {
    "said": lambda f: f["sentence"],
    "not_right": lambda f: " ".join(one.sentence for one in f["problems"]),
    "row_not_right": lambda f: f"Row {f['row']}: {f['problem'].sentence}",
    # documents and frames from files
    "not_json": lambda f: f"This is not JSON that can be read: {f['why']}.",
    "number_long": lambda f: "This is not JSON that can be read: it holds a number that is too long.",
    "setup_large": lambda f: f"The setup document is larger than {f['most'] // 1024} kB.",
    "job_large": lambda f: f"The job document is larger than {f['most'] // MB} MB.",
    "file_empty": lambda f: "The file is empty.",
    "file_changed": lambda f: "The file has changed since it was shown; look at it again.",
    "not_jpeg": lambda f: "This is not a JPEG file.",
    "frame_large": lambda f: f"A test frame of more than {f['most'] // MB} MB cannot be read.",
    "frame_wide": lambda f: f"This frame claims more than {f['most'] // MILLION} million pixels: it was not opened.",
    "progressive_wide": lambda f: (
        f"This progressive JPEG claims more than {f['most'] // MILLION} million pixels: it was not opened. "
        "Save it as a plain one."
    ),
    "jpeg_cut_off": lambda f: "This JPEG file is damaged: it cannot be read to its end.",
    "jpeg_in_pieces": lambda f: "This JPEG file is damaged: it is in too many pieces.",
    "jpeg_in_parts": lambda f: f"This JPEG file comes in more than {f['most']} parts: save it as a plain one.",
    "frames_waiting": lambda f: "Other test frames are being read just now: try again.",
    # guide numbers and shelves
    "guide_number_long": lambda f: "A guide number this long cannot be read.",
    "no_guide_number": lambda f: (
        f"“{f['text']}” holds no guide number that can be read, such as “GN 60 (ISO 100, m, 200 mm)”."
    ),
    "guide_numbers": lambda f: f"“{f['text']}” holds more than one guide number: put “;” between them.",
    "guide_number_of_what": lambda f: (
        f"“{f['text']}” does not say whether it is in metres or feet: write “m” or “ft” beside it."
    ),
    "guide_number_without_unit": lambda f: "A guide number needs its unit: m or ft.",
    "shelf_large": lambda f: f"The file is larger than {f['most'] // MB} MB; a shelf of 10,000 units takes about 3 MB.",
    "shelf_long": lambda f: f"More than the {grouped(f['most'])} rows that can be taken at once.",
    "shelf_not_text": lambda f: "This is not a text file. Save the table as “CSV UTF-8” and try again.",
    "shelf_not_utf8": lambda f: (
        f"The file is not in UTF-8 (byte {grouped(f['byte'])} cannot be read). Save the table as “CSV UTF-8”."
    ),
    "shelf_of_another_format": lambda f: "This JSON is not a shelf: its “format” must be “jumpstop-shelf”.",
    "shelf_of_another_version": lambda f: "This shelf is of a version that cannot be read; only versions 1 and 2 can.",
    "shelf_without_units": lambda f: "This shelf has no list of “units”.",
    "shelf_unreadable": lambda f: "The file holds no unit that can be read.",
    "shelf_line_long": lambda f: f"A line of more than {grouped(f['most'])} characters cannot be a row of a shelf.",
    "shelf_not_csv": lambda f: f"Line {f['line']} is not proper CSV: {f['why']}.",
    "shelf_wide": lambda f: f"{grouped(f['columns'])} columns are more than the {f['most']} that a shelf may have.",
    "shelf_columns": lambda f: f"No column “name” in the first row. Known columns: {', '.join(f['known'])}.",
    "shelf_column_twice": lambda f: f"The column “{f['column']}” stands twice in the first row.",
    "row_wide": lambda f: "This row has more cells than the first row has columns.",
    "cell_can_be": lambda f: (
        f"“{f['cell']}” can be {_either([f'{one:g}' for one in f['values']])}: write it so that it can be only one."
    ),
    "cell_no_number": lambda f: f"“{f['cell']}” is not a number.",
    "cell_not_yes_or_no": lambda f: f"“{f['cell']}” is neither yes nor no.",
    "cell_no_json": lambda f: "This cell must hold JSON, as an export writes it.",
    # rosters and logs
    "roster_large": lambda f: f"The roster is larger than {f['most'] // MB} MB.",
    "roster_not_text": lambda f: "The roster is not UTF-8 text.",
    "roster_no_table": lambda f: f"The roster is no table that can be read: {f['why']}.",
    "roster_empty": lambda f: "The roster is empty.",
    "roster_columns": lambda f: "The roster wants a column called name in its first line.",
    "roster_long": lambda f: f"A roster holds {grouped(f['most'])} people at the most.",
    "log_large": lambda f: f"This log is larger than {f['most'] // MB} MB.",
    "log_long": lambda f: f"A log file holds {grouped(f['most'])} entries at the most.",
    "log_no_table": lambda f: f"The log is no table that can be read: {f['why']}.",
    "log_columns": lambda f: "The log wants the columns id and entry, as it was exported.",
    # what is no longer there, or was never
    "gone": lambda f: f"It is no longer among the {f['kind']}.",
    "off_the_shelf": lambda f: "This is no longer on the shelf.",
    "unit_gone": lambda f: "This unit is no longer on the shelf.",
    "modifier_gone": lambda f: "This modifier is no longer on the shelf.",
    "no_such_beginning": lambda f: "There is no such job to begin with.",
    "setup_of_no_session": lambda f: "This setup is not among the job's.",
    "no_curtain": lambda f: "This entry holds no curtain of a body on the shelf.",
    "nothing_logged": lambda f: "Nothing is logged for this setup yet.",
    "no_such_kit": lambda f: f"There is no kind of kit called “{f['name']}”.",
    "no_such_firing": lambda f: f"There is no way of firing called “{f['name']}”.",
    "no_such_typical": lambda f: f"There is no typical {f['what']} called “{f['name']}”.",
    "cannot_be_read": lambda f: f"It cannot be read: {f['why']}",
    # edits that meet
    "changed_meanwhile": lambda f: "This was changed elsewhere in the meantime.",
    "overtaken": lambda f: (
        f"“{f['label']}” cannot be {'undone' if f['back'] else 'done again'} here: it was changed elsewhere since."
    ),
    "day_changed": lambda f: "The day has changed: look at what would help it now.",
    "day_overtaken": lambda f: "It was changed elsewhere since: look at the day again.",
    "revision_missing": lambda f: "Say which revision this edit started from, in an If-Match header.",
    "revision_no_number": lambda f: "If-Match must hold a revision number in quotes.",
    # more than there may be
    "job_full": lambda f: f"A job holds {f['most']} setups at the most: put some into another job.",
    "job_too_full_for_a_file": lambda f: (
        f"This job has {f['setups']} setups, and a file holds {f['most']}: put some into another job first."
    ),
    "job_too_large_for_a_file": lambda f: (
        f"This job comes to more than {f['most'] // MB} MB, which no file takes: divide it."
    ),
    "log_full": lambda f: f"A log holds {grouped(f['most'])} entries at the most: export it, and delete old ones.",
    "shelf_full": lambda f: f"A shelf holds {grouped(f['most'])} units or {f['bytes'] // MB} MB at the most.",
    "devices_full": lambda f: (
        f"{f['most']} devices are let in already, as many as there may be: take one off the list in Kit first."
    ),
    "sent_large": lambda f: f"What was sent is larger than {f['most'] // MB} MB.",
    # the server and its data
    "foreign_page": lambda f: "Changes are only taken from this server's own pages.",
    "length_no_number": lambda f: "The length of the request is not a number.",
    "fault": lambda f: f"A fault in Jump Stop, reference {f['reference']}: its log says more.",
    "open_the_link": lambda f: "Open the link that the server printed when it was started; it works once.",
    "no_such_device": lambda f: "There is no such device.",
    "script_lets_nobody_in": lambda f: "A script's token neither lets devices in nor puts them out: use a browser.",
    "server_of_this_machine": lambda f: (
        "This server is open to this machine only: start it with --host 0.0.0.0 to let a phone in."
    ),
    "data_busy": lambda f: "The data is being written by another just now; try again.",
    "data_damaged": lambda f: "The data file is damaged. Stop the program and restore a backup.",
    "data_read_only": lambda f: "The data file or its folder is read-only: nothing was stored.",
    "data_closed": lambda f: "The data file cannot be opened: its folder is missing or read-only.",
    "data_moved": lambda f: (
        f"The data file {f['path']} was moved or deleted while the program runs: nothing was stored. Stop it, put the "
        "file back or restore a backup, and start it again."
    ),
    "disk_full": lambda f: "The disk is full: nothing was stored. Make room and try again.",
    "disk_error": lambda f: "The disk answered with an error: nothing was stored.",
    "no_data": lambda f: f"There is no data in {f['folder']}.",
    "no_file": lambda f: f"There is no file {f['path']}.",
    "cannot_write": lambda f: f"{f['path']} cannot be written: {f['why']}.",
    "cannot_make": lambda f: f"{f['path']} cannot be made: {f['why']}.",
    "cannot_use": lambda f: f"{f['path']} cannot be used: {f['why']}.",
    "in_use": lambda f: f"{f['folder']} is in use by {f['by']}: stop it first.",
    "foreign_file": lambda f: (
        f"{f['path']} is not a data file of Jump Stop. It was left as it is: name another folder, or move it away."
    ),
    "damaged_file": lambda f: (
        f"{f['path']} is damaged. It was left as it is: restore a backup with `jumpstop restore`."
    ),
    "file_of_another_version": lambda f: (
        f"{f['path']} was written by another version of Jump Stop, which this one cannot read. It was left."
    ),
    "not_brought_up_to_date": lambda f: f"{f['path']} could not be brought up to date. It was left as it is.",
    # the command line
    "port_taken": lambda f: f"port {f['port']} on {f['host']} is not free ({f['why']}).",
    "rows_to_agree_to": lambda f: (
        f"{count(f['good'], 'row')} can be read; nothing was written. Add --yes to take those."
    ),
    "file_of_no_kind": lambda f: "The file must end in .csv or .json.",
    "file_there": lambda f: f"{f['path']} is there already; name another.",
    "nothing_understood": lambda f: "Nothing in it was understood.",
    "not_understood": lambda f: f"Not understood: {', '.join(f'“{one}”' for one in f['texts'])}.",
    "option_can_be": lambda f: f"{f['name']}: “{f['text']}” can be {_either(f['may_be'])}: say which.",
    "unit_not_on_shelf": lambda f: f"“{f['name']}” is not on the shelf.",
    "no_unit_called": lambda f: f"no unit on this shelf is called {f['name']!r}.",
    "units_called": lambda f: f"{f['count']} units are called {f['name']!r}: give each a name of its own.",
    "patch_of_four": lambda f: "The patch is four figures, x,y,w,h: as 0.45,0.45,0.1,0.1; 45%,45%,10%,10%; or 2400px,…",
    "patch_of_figures": lambda f: f"The patch: “{f['text']}” is no share, per cent or pixels (0.45, 45% or 2400px).",
    "patch_outside": lambda f: (
        "The patch lies outside the frame: shares go from 0 to 1, per cent to 100; say px for pixels."
    ),
    "no_address": lambda f: f"{f['url']} is no address of a server: say http://…",
    "server_refuses": lambda f: f"{f['url']} answers {f['status']}: {f['why']}",
    "server_silent": lambda f: f"{f['url']} does not answer{f' ({reason})' if (reason := f['why']) else ''}.",
}
