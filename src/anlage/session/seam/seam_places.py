"""Places on a seam as they are typed: by the clock round a pipe, by length from the start along a plate.

Glossary
--------
place : degrees to the right of 12 o'clock round a pipe, millimetres from the start along a plate
reach : a stretch between two places
"""

import re

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.heat import clock_position
from anlage.core.joint import faults, joint_metal
from anlage.core.procedure import Pass, Wps, sketch_of
from anlage.core.quantities import parse
from anlage.data.tables import unit_table
from anlage.session.weld.node import node_of

DEGREES_AN_HOUR = 30.0
METRE_MM = 1000.0
_ENDS = re.compile(r"(.+?)\s*(?:\bto\b|\.\.|–)\s*(.+)", re.IGNORECASE)


def seam_mm(wps: Wps) -> tuple[float, str]:
    """Return the length of the weld [mm] and what it is: round the pipe, all members, the stated seam, or a metre."""
    joint, node = wps.joint, node_of(wps)
    if node is not None:
        return node.length_mm, "all welds of the node"
    sketch = sketch_of(joint)
    if sketch is not None and not sketch.incomplete and not faults(sketch.preparation):
        round_pipe = joint_metal(sketch.preparation).circumference_mm
        if round_pipe is not None:
            return round_pipe, "the whole ring"
    if joint.seam_length_mm is not None:
        return joint.seam_length_mm, "the whole seam"
    return METRE_MM, "one metre of seam"


def is_round(wps: Wps) -> bool:
    """Return whether the seam goes round a pipe."""
    return seam_mm(wps)[1] == "the whole ring"


def place(wps: Wps, text: str) -> float:
    """Return the place that a text names: `4:30` or `4 o'clock` round a pipe [°], `120 mm` along a plate [mm].

    Raises
    ------
    InputError : it is no place on this seam
    """
    if is_round(wps):
        return clock_position(text, where="place") * DEGREES_AN_HOUR % 360.0
    return parse(text, "length", unit_table(), where="place", bare="mm").low


class Places(Struct, frozen=True):
    """The places that a list names, and the words in it that name none."""

    at: tuple[float, ...]
    unread: tuple[str, ...]


def places(wps: Wps, text: str | None) -> Places:
    """Return the places of a list with commas."""
    found, unread = [], []
    for word in _words(text):
        try:
            found.append(place(wps, word))
        except InputError:
            unread.append(word)
    return Places(tuple(found), tuple(unread))


class Reach(Struct, frozen=True):
    """Where a pass is laid that does not go all the way: stretches from start to end, their length, what is no stretch.

    The end of a stretch over 12 o'clock lies beyond 360°.
    """

    stretches: tuple[tuple[float, float], ...]
    length_mm: float
    unread: tuple[str, ...]

    def holds(self, at: float) -> bool:
        """Return whether a place lies in it."""
        return any(start <= at <= end or start <= at + 360.0 <= end for start, end in self.stretches)


def reach_of_pass(wps: Wps, each: Pass) -> Reach | None:
    """Return where a pass is laid; `None` when it goes all the way.

    Examples
    --------
    >>> plate = Wps()
    >>> reach_of_pass(plate, Pass(id="p1", deposit="d1", reach="100 mm to 250 mm")).length_mm
    150.0
    """
    return None if each.reach is None else reach_named(wps, each.reach)


def reach_named(wps: Wps, text: str) -> Reach:
    """Return the stretches that a text names."""
    whole, is_ring = seam_mm(wps)[0], is_round(wps)
    found, unread = [], []
    for word in _words(text):
        match = _ENDS.fullmatch(word)
        try:
            ends = sorted(place(wps, end) for end in match.groups()) if match else []
        except InputError:
            ends = []
        if len(ends) != 2 or ends[0] == ends[1]:
            unread.append(word)
        elif is_ring and ends[1] - ends[0] > 180.0:  # the shorter way round goes over 12 o'clock
            found.append((ends[1], ends[0] + 360.0))
        else:
            found.append((ends[0], ends[1]))
    share = whole / 360.0 if is_ring else 1.0
    return Reach(tuple(found), share * sum(end - start for start, end in found), tuple(unread))


def _words(text: str | None) -> list[str]:
    return [word for part in (text or "").split(",") if (word := part.strip())]
