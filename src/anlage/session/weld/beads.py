"""The beads of a procedure, laid in its joint."""

from functools import lru_cache

from msgspec.structs import replace

from anlage.core.beads import MOST_BEADS, Bead, Laid, Layout, layout
from anlage.core.document import kept
from anlage.core.joint import Shape, faults, shape_of
from anlage.core.procedure import (
    Wps,
    sketch_of,
)
from anlage.session.weld.bead_areas import bead_area


@kept
def laid_of(wps: Wps) -> tuple[Laid, ...]:
    """Return every pass that goes all the way as a bead: its area as far as it is known, its side, its place."""
    homes = {each.id: each for each in wps.deposits}
    found = []
    for each in wps.passes:
        if each.reach is not None:  # laid where the fill runs low, not in the section that is drawn
            continue
        area, thick = bead_area(homes[each.deposit], each), each.thickness_mm
        second = each.side == "second" or (each.side is None and each.role == "back")
        found.append(
            Laid(
                key=each.id,
                area_mm2=area.middle if area else None,
                thickness_mm=(thick.low + thick.high) / 2 if thick else None,
                side=0 if each.role == "buttering" else 2 if second else 1,
                role=each.role,
                layer=each.layer,
                weave=(each.bead or wps.technique.bead_technique) == "weave",
            )
        )
    return tuple(found)


def joint_shape(wps: Wps, mismatch_mm: float = 0.0) -> Shape | None:
    """Return the shape of the joint, one member higher by a mismatch; `None` when no kind is chosen or values clash."""
    sketch = sketch_of(wps.joint)
    if sketch is None or faults(sketch.preparation):
        return None
    p = sketch.preparation
    return shape_of(replace(p, mismatch_mm=mismatch_mm) if mismatch_mm and p.make.family == "butt" else p)


@kept
def bead_layout(wps: Wps, mismatch_mm: float = 0.0) -> Layout | None:
    """Return where the beads of a procedure lie; `None` when its joint cannot be drawn, or has too many of them."""
    shape = joint_shape(wps, mismatch_mm)
    return None if shape is None or has_too_many(wps) else _laid_out(shape, laid_of(wps))


def has_too_many(wps: Wps) -> bool:
    """Return whether a procedure has more passes than are laid one by one."""
    return len(laid_of(wps)) > MOST_BEADS


@lru_cache(maxsize=8)
def _laid_out(shape: Shape, laid: tuple[Laid, ...]) -> Layout:
    return layout(shape, laid)


def bead_of(wps: Wps, pass_id: str) -> Bead | None:
    """Return the bead of a pass where it lies."""
    found = bead_layout(wps)
    return next((bead for bead in found.beads if bead.key == pass_id), None) if found else None


def first_cap(wps: Wps) -> int:
    """Return the place in the order of the first cap pass, behind the last pass where there is none."""
    return next((n for n, each in enumerate(wps.passes) if each.role == "cap"), len(wps.passes))
