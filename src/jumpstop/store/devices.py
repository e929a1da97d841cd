"""Devices that were let in for good: kept with the data, each by the hash of what it shows."""

import hmac
import uuid
from datetime import UTC, datetime
from typing import Literal

from sqlalchemy import Connection

from .documents import Store
from .errors import NotFound, TooMuch
from .rows import META_OF, SET_META

DEVICES = "devices"
MOST = 100

DeviceKind = Literal["browser", "script"]


def _kept(connection: Connection) -> list[dict[str, str]]:
    return connection.execute(META_OF, {"key": DEVICES}).scalar() or []


class Devices:
    """The devices of one data folder."""

    def __init__(self, store: Store) -> None:
        self._store = store

    def all(self) -> list[dict[str, str]]:
        """Every device: id, name, kind, when."""
        there = self._store.meta().get(DEVICES, [])
        return [{key: one[key] for key in ("id", "name", "kind", "at")} for one in there]

    def kind_of(self, digest: str) -> DeviceKind | None:
        """What kind of device has this hash; None where none has."""
        found: DeviceKind | None = None
        for one in self._store.meta().get(DEVICES, []):
            if hmac.compare_digest(one["hash"], digest):
                found = one["kind"]
        return found

    def add(self, name: str, digest: str, kind: DeviceKind) -> dict[str, str]:
        """Let a device in for good. Raises TooMuch where there are as many as there may be: none is put out for it."""
        at = datetime.now(UTC).strftime("%Y-%m-%d %H:%M UTC")
        new = {"id": uuid.uuid4().hex[:12], "name": name, "kind": kind, "at": at, "hash": digest}
        with self._store.writing() as connection:
            there = _kept(connection)
            if len(there) >= MOST:
                raise TooMuch("devices_full", most=MOST)
            connection.execute(SET_META, {"key": DEVICES, "value": [*there, new]})
        return new

    def remove(self, device_id: str) -> None:
        """Take a device's token back. Raises NotFound."""
        with self._store.writing() as connection:
            there = _kept(connection)
            left = [one for one in there if one["id"] != device_id]
            if len(left) == len(there):
                raise NotFound("no_such_device")
            connection.execute(SET_META, {"key": DEVICES, "value": left})
