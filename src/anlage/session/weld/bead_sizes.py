"""How large the beads of a deposit come out by its own settings, else by usual ones; and how many fill a joint."""

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from anlage.core.beads import Size, fill
from anlage.core.catalogue import FillerCurrent
from anlage.core.document import with_
from anlage.core.errors import InputError
from anlage.core.joint import Preparation, shape_of
from anlage.core.procedure import (
    Deposit,
    Pass,
    Wps,
)
from anlage.core.ranges import Interval
from anlage.data.tables import catalogue
from anlage.session.weld.bead_areas import bead_area, is_hand_fed, is_wire_fed, usual_settings


def bead_counts(wps: Wps, joints: Sequence[Preparation]) -> tuple[int | None, ...]:
    """Return how many beads fill each joint at the sizes of a procedure's deposits.

    `None` without any deposit, and where there are more than are laid one by one.
    """
    if not wps.deposits:
        return (None,) * len(joints)
    sizes = tuple(size_of(wps, each, is_last=each is wps.deposits[-1]) for each in wps.deposits)
    return tuple(_count(each, sizes) for each in joints)


@lru_cache(maxsize=16)
def _count(joint: Preparation, sizes: tuple[Size, ...]) -> int | None:
    try:
        return len(fill(shape_of(joint), sizes))
    except InputError:
        return None


def size_of(wps: Wps, deposit: Deposit, *, is_last: bool) -> Size:
    """Return how the beads of a deposit come out: by what its passes deposit already, else by its electrode."""
    reach = None if is_last or deposit.thickness_mm is None else deposit.thickness_mm.high
    others: dict[str, Any] = {"reach_mm": reach, "weave": wps.technique.bead_technique == "weave"}
    others["weave_limit_mm"] = wps.seam.weave_limit_mm
    diameter = deposit.filler_diameter_mm
    own = [area.middle for each in wps.passes if each.deposit == deposit.id and (area := bead_area(deposit, each))]
    if own and not is_hand_fed(deposit):
        return Size.of_area(sum(own) / len(own), **others)
    if is_wire_fed(deposit):
        usual = _usual_wire_area(deposit)
        if usual is not None:
            return Size.of_area(usual, **others)
    return Size.of_electrode((diameter.low + diameter.high) / 2 if diameter else 3.2, **others)


def _usual_wire_area(deposit: Deposit) -> float | None:
    """Return the bead that usual wire and travel speeds lay [mm²]; those of another filler where its own are not known.

    The usual travel speed is the middle of the trade's window as a ratio: the upper end is that of machines.
    """
    usual = usual_settings(deposit) or _like(deposit)
    limits = [row for row in catalogue().process_limits if row.process == deposit.process]
    if usual is None or usual.at_wire_speed_m_min is None or not limits:
        return None
    mode = deposit.transfer_mode or usual.mode
    window = next((row for row in limits if mode and row.id.endswith(f"-{mode}")), limits[0])
    speed = math.sqrt(window.travel_min_mm_min * window.travel_max_mm_min)
    feed = Interval.single(usual.at_wire_speed_m_min * 1000)
    each = Pass(id="p0", deposit=deposit.id, wire_speed_mm_min=feed, travel_speed_mm_min=Interval.single(speed))
    if deposit.filler_diameter_mm is None:
        deposit = with_(deposit, filler_diameter_mm=Interval.single(usual.diameter_mm))
    found = bead_area(deposit, each)
    return found.middle if found else None


def _like(deposit: Deposit) -> FillerCurrent | None:
    """Return the usual settings of a filler of the same process, of the size that is nearest."""
    rows = [row for row in catalogue().filler_currents if row.process == deposit.process and row.at_wire_speed_m_min]
    size = deposit.filler_diameter_mm
    return min(rows, key=lambda row: abs(row.diameter_mm - size.low) if size else 0.0, default=None)
