"""A shelf of units with what readings taught of them: the table that setups are solved for, at any meter's constant."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from threading import Lock

from ..physics.exposure import METER_C_FLAT
from .learned import Learned
from .table import UnitTable, place_among, table_of
from .unit import Unit

MOST_TABLES = 8  # tables that are kept of one shelf, each for another meter's constant; a matter of computing
MOST_OTHERS = 8  # shelves that are kept with other copies of units behind one; a matter of computing


class Shelf:
    """Units in their order, each known by an id. It never changes: another shelf is another value.

    All its tables have the same units in the same places. copies: how many at its end are setups' own copies of units
    that are gone.
    """

    def __init__(
        self, units: Sequence[Unit], ids: Sequence[str] = (), learned: Learned | None = None, copies: int = 0
    ) -> None:
        self.units = tuple(units)
        self.copies = copies
        self.ids = tuple(ids) or tuple(unit.name for unit in units)
        self.learned = learned
        self._said: Shelf | None = None  # the same, of which nothing is taught: its tables are slow to make
        self._lock = Lock()
        self._tables: dict[float, UnitTable] = {}
        self._others: dict[tuple[Unit, ...], Shelf] = {}

    def __len__(self) -> int:
        return len(self.units)

    def at(self, meter_c: float) -> UnitTable:
        """The table at a meter's constant [lx s]."""
        with self._lock:
            found = self._tables.get(meter_c)
            if found is None:
                if len(self._tables) >= MOST_TABLES:
                    del self._tables[next(iter(self._tables))]
                if self._said is None:
                    found = table_of(self.units, meter_c, self.ids, self.learned)
                else:
                    found = replace(self._said.at(meter_c), learned=self.learned)
                self._tables[meter_c] = found
            return found

    @property
    def table(self) -> UnitTable:
        """The table at the usual constant: for what does not depend on it."""
        return self.at(METER_C_FLAT)

    def place_of(self, unit_id: str | None, name: str = "") -> int | None:
        """Where a unit stands (see `place_among`)."""
        return place_among(self.units, self.ids, unit_id, name)

    def with_copies(self, copies: Mapping[str, Unit]) -> "Shelf":
        """With these, by their ids, in the place of its copies or behind them."""
        start = len(self) - self.copies
        held = dict(zip(self.ids[start:], self.units[start:], strict=True)) | dict(copies)
        units = tuple(held.values())
        if units == self.units[start:]:
            return self
        with self._lock:
            found = self._others.get(units)
            if found is None:
                if len(self._others) >= MOST_OTHERS:
                    del self._others[next(iter(self._others))]
                if self._said is not None and self.learned is not None:
                    found = self._said.with_copies(copies).taught(self.learned)
                else:
                    found = Shelf((*self.units[:start], *units), (*self.ids[:start], *held), self.learned, len(held))
                self._others[units] = found
            return found

    def only(self, places: Sequence[int]) -> "Shelf":
        """These of its units alone, by their places."""
        return Shelf([self.units[at] for at in places], [self.ids[at] for at in places], self.learned)

    def taught(self, learned: Learned) -> "Shelf":
        """The same shelf with what readings taught."""
        out = Shelf(self.units, self.ids, learned, self.copies)
        out._said = self
        return out
