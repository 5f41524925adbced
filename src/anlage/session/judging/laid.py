"""What the beads of a procedure say to the codes, as they lie in the joint that is drawn."""

from anlage.core.procedure import Pass, Wps
from anlage.core.ranges import Interval
from anlage.session.weld.beads import bead_layout, bead_of


def height(wps: Wps, each: Pass) -> Interval | None:
    """Return how thick a pass is [mm]: as stated, else as it lies."""
    if each.thickness_mm is not None:
        return each.thickness_mm
    bead = bead_of(wps, each.id)
    return Interval.single(bead.height_mm) if bead else None


def slenderness(wps: Wps, each: Pass) -> Interval | None:
    """Return how deep a bead is over how wide its face is, as it lies."""
    bead = bead_of(wps, each.id)
    return Interval.single(bead.height_mm / bead.width_mm) if bead and bead.width_mm > 0 else None


def unsplit_width(wps: Wps, each: Pass) -> Interval | None:
    """Return how wide the layer of a pass is that takes it whole [mm]; 0 where its layer is split into beads."""
    layout, bead = bead_layout(wps), bead_of(wps, each.id)
    if layout is None or bead is None:
        return None
    beside = sum(one.side == bead.side and one.layer == bead.layer for one in layout.beads)
    return Interval.single(bead.width_mm if beside == 1 else 0.0)
