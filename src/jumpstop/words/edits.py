"""What undo calls an edit."""

from .figures import count

PUT_INTO_JOB = "Put into another job"
ROSTER = "Roster from a file"
SET_BACKGROUND = "Background on the set"
DELETED = "what was deleted since"
"""In place of a name, where undo leaves out what is no longer there."""


def added(one: str, name: str) -> str:
    """One of a kind of documents added, by its name."""
    return f"Add {one} {name}"


def changed(what: str) -> str:
    """One changed in a way that has no name of its own."""
    return f"Change {what}"


def added_typical(pieces: int) -> str:
    """Typical kit that was ticked."""
    return f"Add {count(pieces, 'piece')} of typical kit"


def imported(many: int, one: str, several: str = "") -> str:
    """So many of a kind from a file."""
    return f"Import {count(many, one, several)}"


def imported_job(name: str) -> str:
    """A job from a file."""
    return f"Import job {name}"


def begun(name: str) -> str:
    """A usual job begun."""
    return f"Begin {name}"


def copied(name: str) -> str:
    """A document copied, or a job to be done again."""
    return f"Copy {name}"


def deleted(name: str) -> str:
    """One or several taken away."""
    return f"Delete {name}"


def logged(name: str) -> str:
    """An entry of the log."""
    return f"Log {name}"


def set_aside(aside: bool, name: str) -> str:
    """An entry set aside, or taken in again."""
    return f"{'Set aside' if aside else 'Take in'} {name}"


def curtain_of(name: str) -> str:
    """A body's curtain travel, as a wall showed it."""
    return f"Curtain of {name}"


def saved(name: str) -> str:
    """A setup saved as it was found."""
    return f"Save {name}"
