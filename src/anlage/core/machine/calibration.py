"""What the readings of a machine prove on a day: by tap and leads, those of its last day, while they are in date.

Glossary
--------
tap : a range tap of a machine with leads of one length, and what was read there
in date : read not longer ago than a calibration is taken to hold
"""

from collections.abc import Sequence
from datetime import date, timedelta
from itertools import pairwise
from typing import NamedTuple

from msgspec import Struct

from anlage.core.machine.machine import Machine, MachineReading, is_day

WANTED = ("dial", "current_a", "meter", "day")


class Point(NamedTuple):
    """One reading that counts: the dial as set, the current read [A] and the voltage [V], `None` where not read."""

    dial: float
    current_a: float
    voltage_v: float | None


class Tap(Struct, frozen=True, kw_only=True):
    """A tap of a machine with leads of one length.

    Parameters
    ----------
    machine, name, lead_m : which; "" and `None` where it is not stated
    points : the readings of its last day by the dial, those that count, or would if it were in date; where none is
        whole those that have a dial and a current
    reading_ids : the readings that they come from, in the same order
    meters, day : what they were read with, and when
    until : the last day on which they are in date, `None` where no reading is whole
    why_not : why it proves no current; "" where it does
    set_aside : how many readings of earlier days do not count
    unfinished : how many readings lack dial, current, meter or day, and do not count
    """

    machine: str
    name: str
    lead_m: float | None
    points: tuple[Point, ...] = ()
    reading_ids: tuple[str, ...] = ()
    meters: tuple[str, ...] = ()
    day: str = ""
    until: date | None = None
    why_not: str = ""
    set_aside: int = 0
    unfinished: int = 0


class Calibrated(Struct, frozen=True, kw_only=True):
    """The machines of a works as they are known on a day.

    Parameters
    ----------
    machines : in the order that they are shown
    today : the day, as 2026-04-14
    months : how long a calibration is taken to hold
    """

    machines: tuple[Machine, ...] = ()
    today: str = ""
    months: int = 12

    def taps(self, number: str = "") -> tuple[Tap, ...]:
        """Return every tap of all machines, or of the one of a number."""
        own = [each for each in self.machines if not number or folded(each.header.number) == folded(number)]
        return tuple(tap for each in own for tap in taps_of(each, self.today, self.months))

    def knows(self, number: str) -> bool:
        """Return whether there is a machine of a number; case and blanks do not count."""
        return any(folded(each.header.number) == folded(number) for each in self.machines)


def folded(number: str) -> str:
    """Return the form in which numbers of machines are compared."""
    return "".join(number.casefold().split())


def valid_until(day: date, months: int) -> date:
    """Return the last day on which something of a day is in date: so many months later, or the end of that month.

    Examples
    --------
    >>> valid_until(date(2026, 8, 31), 6), valid_until(date(2026, 10, 5), 12)
    (datetime.date(2027, 2, 28), datetime.date(2027, 10, 5))
    """
    years, month = divmod(day.month - 1 + months, 12)
    year = min(day.year + years, date.max.year)
    last = date(year, 12, 31) if month == 11 else date(year, month + 2, 1) - timedelta(days=1)
    return min(last, last.replace(day=min(day.day, last.day)))


def taps_of(machine: Machine, today: str, months: int) -> tuple[Tap, ...]:
    """Return the taps of a machine, in the order in which they were first read.

    Readings of a tap with other leads are of another tap: the leads take voltage. Only those of its last day count
    together, for in between the machine may have been mended. Unproven is what is out of date, lies ahead, or says two
    things: a current that does not rise, or does not fall, all along the dial.

    Parameters
    ----------
    today : the day, as 2026-04-14
    months : how long a calibration is taken to hold
    """
    groups: dict[tuple[str, float | None], list[MachineReading]] = {}
    for each in machine.readings:
        groups.setdefault(((each.tap or "").strip(), each.lead_m), []).append(each)
    number = machine.header.number
    return tuple(_tap(number, name, lead, rows, (today, months)) for (name, lead), rows in groups.items())


def _tap(
    machine: str, name: str, lead_m: float | None, rows: Sequence[MachineReading], on: tuple[str, int]
) -> Tap:  # fmt: skip
    whole = [each for each in rows if all(getattr(each, leaf) not in (None, "") for leaf in WANTED)]
    days = [found for each in whole if (found := is_day(str(each.day))) is not None]
    if not whole or len(days) < len(whole):
        points, ids = _points([each for each in rows if each.dial is not None and each.current_a is not None])
        return Tap(
            machine=machine, name=name, lead_m=lead_m, points=points, reading_ids=ids,
            why_not="no reading says dial, amps, meter and day", unfinished=len(rows),
        )  # fmt: skip
    last = max(days)
    own = [each for each in whole if each.day == last.isoformat()]
    points, ids = _points(own)
    until = valid_until(last, on[1])
    return Tap(
        machine=machine, name=name, lead_m=lead_m, points=points, reading_ids=ids,
        meters=tuple(dict.fromkeys(str(each.meter) for each in own)), day=last.isoformat(), until=until,
        why_not=_why_not(points, last, until, on[0]), set_aside=len(whole) - len(own),
        unfinished=len(rows) - len(whole),
    )  # fmt: skip


def _points(rows: Sequence[MachineReading]) -> tuple[tuple[Point, ...], tuple[str, ...]]:
    """Return the readings as points by the dial, and their ids."""
    by_dial = sorted(rows, key=lambda each: each.dial or 0.0)
    points = tuple(Point(each.dial or 0.0, each.current_a or 0.0, each.voltage_v) for each in by_dial)
    return points, tuple(each.id for each in by_dial)


def _why_not(points: Sequence[Point], last: date, until: date, today: str) -> str:
    if last.isoformat() > today:
        return f"its last reading, of {last}, lies ahead"
    if until.isoformat() < today:
        return f"read last on {last}, out of date since {until}"
    steps = [(one, other) for one, other in pairwise(points) if one[:2] != other[:2]]
    for one, other in steps:
        if one.dial == other.dial:
            return f"dial {one.dial:g} was read as {one.current_a:g} A and as {other.current_a:g} A"
        if one.current_a == other.current_a:
            return f"dial {one.dial:g} and {other.dial:g} were both read as {one.current_a:g} A"
    if len({other.current_a > one.current_a for one, other in steps}) > 1:
        said = ", ".join(f"{each.dial:g}: {each.current_a:g}" for each in points)
        return f"its current neither rises nor falls all along the dial ({said} A)"
    return ""
