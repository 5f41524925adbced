"""Passes that are laid on a part of the way only: strip beads where the fill runs low, before the cap."""

from anlage.core.procedure import Wps, with_pass
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.leaves.marks import with_marks_of
from anlage.session.seam.seam_places import is_round, reach_of_pass
from anlage.session.weld.beads import first_cap

LOW_DOWNHILL = "2 to 4, 8 to 10"  # near 3 and 9 o'clock; common practice, no source
_COPIED = (
    "current_a", "voltage_v", "travel_speed_mm_min", "wire_speed_mm_min", "bead_area_mm2", "thickness_mm", "bead",
)  # fmt: skip


def with_strip(wps: Wps) -> Wps:
    """Return the procedure with a strip bead before its cap, set like the pass below; near 3 and 9 round a pipe.

    What is only proposed of the pass below is so of the strip.

    Without any pass there is nothing to lay it on: the very same procedure.
    """
    if not wps.passes:
        return wps
    place = first_cap(wps)
    below = wps.passes[max(place - 1, 0)]
    stated = {name: getattr(below, name) for name in _COPIED}
    reach = LOW_DOWNHILL if is_round(wps) else None
    done, strip = with_pass(wps, below.deposit, after=below.id, role="strip", reach=reach, **stated)
    return with_marks_of(done, below.id, strip)


def part_sentences(wps: Wps, system: System) -> tuple[str, ...]:
    """Return where every such pass is laid and what is wrong with it; and where downhill a strip bead is usual."""
    said, cap = [], first_cap(wps)
    for number, each in enumerate(wps.passes, 1):
        reach = reach_of_pass(wps, each)
        if reach is None:
            if each.role == "strip":
                example = "2 to 4, 8 to 10" if is_round(wps) else "100 mm to 250 mm"
                said.append(f"Pass {number}, strip: say where it is laid, {example}; until then it counts all the way.")
            continue
        length = show(reach.length_mm, "length", system, unit_table())
        said.append(f"Pass {number}, {each.role or 'no role'}, {each.reach}: {length} of weld.")
        if reach.unread:
            said.append(f"Pass {number}: {', '.join(reach.unread)} is no part of this seam.")
        if number - 1 > cap:
            said.append(f"Pass {number} comes after the cap; a strip bead is laid before it.")
    if (
        is_round(wps)
        and wps.technique.progression == "downhill"
        and any(each.role == "cap" for each in wps.passes)
        and not any(each.role == "strip" for each in wps.passes)
    ):
        said.append("Downhill the fill runs low near 3 and 9 o'clock: a strip bead there before the cap is usual.")
    return tuple(said)
