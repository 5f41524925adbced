"""A power source as a document: number, name, and every reading of a meter at a range tap and a place of its dial."""

import re
from datetime import date
from typing import Annotated, Any, Final, Literal

import msgspec
from msgspec import Meta

from anlage.core.document import (
    DocumentKind,
    Element,
    NotNegative,
    Part,
    Positive,
    Proposed,
    Text,
    as_it_is,
    check_ids,
    mend_ids,
    next_id,
    with_,
)
from anlage.core.errors import InputError

FORMAT: Final = "anlage-machine"
VERSION: Final = 2
LISTS: Final = ("readings",)
DAY: Final = r"^\d{4}-\d\d-\d\d$"


class MachineHeader(Part):
    """Which machine this is: its number in the shop, and what it is."""

    number: Text = ""
    title: Text = ""


class MachineReading(Element):
    """What a meter read on a day: range tap and dial as set, current and voltage [A, V] with leads so long [m]."""

    tap: Text | None = None
    dial: NotNegative | None = None
    current_a: Positive | None = None
    voltage_v: Positive | None = None
    lead_m: Positive | None = None
    meter: Text | None = None
    day: Annotated[str, Meta(pattern=DAY)] | None = None

    def check(self) -> None:
        """Refuse a day that no calendar has."""
        if self.day is not None and is_day(self.day) is None:
            raise InputError(f"{self.day} is no day", where="day", mend="write it as 2026-04-14")


class Machine(Part):
    """A machine. `place` is where in the works it stands, a tolerance how far a meter of it may be off.

    A tolerance is a text: a share of the reading, of full scale, or an amount, perhaps as two sigma; of the speed that
    of whatever its travel speed is read with.
    """

    format: Literal["anlage-machine"] = FORMAT
    version: Literal[2] = VERSION
    header: MachineHeader = MachineHeader()
    place: Text | None = None
    current_tolerance: Text | None = None
    voltage_tolerance: Text | None = None
    speed_tolerance: Text | None = None
    readings: tuple[MachineReading, ...] = ()
    proposed: dict[str, Proposed] = msgspec.field(default_factory=dict)
    ids: int = 0

    def check(self) -> None:
        """Refuse ids that come twice or were never given."""
        check_ids(list(self.readings), self.ids)


def _mend(raw: dict[str, Any]) -> Any:
    return mend_ids(raw, LISTS)


MACHINE = DocumentKind(Machine, FORMAT, VERSION, {1: as_it_is}, mend=_mend)


def is_day(text: str) -> date | None:
    """Return the day that a text is, as 2026-04-14; `None` for none.

    Examples
    --------
    >>> is_day("2026-04-14"), is_day("2026-02-30"), is_day("last week")
    (datetime.date(2026, 4, 14), None, None)
    """
    try:
        return date.fromisoformat(text) if re.fullmatch(DAY, text, re.ASCII) else None
    except ValueError:
        return None


def with_reading(machine: Machine, **stated: object) -> tuple[Machine, str]:
    """Return the machine with one more reading at the end, and the new id.

    Raises
    ------
    InputError : a stated value cannot be of its field
    """
    element_id, ids = next_id("r", machine.ids)
    reading = MachineReading.stated(id=element_id, **stated)
    return with_(machine, readings=(*machine.readings, reading), ids=ids), element_id


def without_reading(machine: Machine, reading_id: str) -> Machine:
    """Return the machine without a reading; the very same one when there is none of that id."""
    return with_(machine, readings=tuple(each for each in machine.readings if each.id != reading_id))
