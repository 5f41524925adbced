"""What the beads of a procedure say to the codes, as they lie in the joint that is drawn.

A joint of which a dimension is not stated, or a bead of which nobody knows how large it is, has a picture and proves
nothing.
"""

from anlage.core.beads import Bead
from anlage.core.procedure import Pass, Wps, sketch_of
from anlage.core.ranges import Interval
from anlage.session.weld.beads import bead_layout


def height(wps: Wps, each: Pass) -> Interval | None:
    """Return how thick a pass is [mm]: as stated, else as it lies."""
    if each.thickness_mm is not None:
        return each.thickness_mm
    bead = _known(wps).get(each.id)
    return Interval.single(bead.height_mm) if bead else None


def slenderness(wps: Wps, each: Pass) -> Interval | None:
    """Return how deep a bead is over how wide its face is, as it lies."""
    bead = _known(wps).get(each.id)
    return Interval.single(bead.height_mm / bead.width_mm) if bead and bead.width_mm > 0 else None


def unsplit_width(wps: Wps, each: Pass) -> Interval | None:
    """Return how wide the layer of a pass is that takes it whole [mm]; 0 where its layer is split into beads."""
    found = _known(wps)
    bead = found.get(each.id)
    if bead is None:
        return None
    beside = sum(one.side == bead.side and one.layer == bead.layer for one in found.values())
    return Interval.single(bead.width_mm if beside == 1 else 0.0)


def _known(wps: Wps) -> dict[str, Bead]:
    """Return the beads by their pass; none where the joint is not whole, or one is only a share of what is left."""
    sketch = sketch_of(wps.joint)
    layout = bead_layout(wps) if sketch is not None and not sketch.incomplete else None
    beads = layout.beads if layout else ()
    return {} if any(bead.shared for bead in beads) else {bead.key: bead for bead in beads}
