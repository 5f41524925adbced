"""How much metal a preparation takes: areas of the section, mass along a plate and round a pipe."""

import math

from msgspec import Struct

from anlage.core.joint.branch import saddle
from anlage.core.joint.faults import faults
from anlage.core.joint.fillet import legs
from anlage.core.joint.node import Tube, tube_welds
from anlage.core.joint.outline import shape_of
from anlage.core.joint.preparation import Point, Preparation
from anlage.core.joint.shape import Shape, area_and_centroid
from anlage.core.results import require_above_zero

FLAT = 1e4  # a run so many times as large as what stands on it is a plate
STEEL_G_CM3 = 7.85  # stated in the command-line contract; a filler may say otherwise


class JointMetal(Struct, frozen=True, kw_only=True):
    """Areas of the section and the weld metal they take.

    `circumference_mm` and `weld_metal_kg` are `None` for a seam in plate; `weld_metal_kg_m` is `None` for a piece,
    a plug or a slot, whose `weld_metal_kg` is that of one piece.
    """

    groove_area_mm2: float
    reinforcement_area_mm2: float
    root_area_mm2: float
    buttering_area_mm2: float
    face_width_mm: float
    weld_metal_kg_m: float | None
    circumference_mm: float | None
    weld_metal_kg: float | None

    @property
    def whole_area_mm2(self) -> float:
        """Groove, cap, root and buttering together [mm²]."""
        return self.groove_area_mm2 + self.reinforcement_area_mm2 + self.root_area_mm2 + self.buttering_area_mm2


def joint_metal(preparation: Preparation, *, density_g_cm3: float = STEEL_G_CM3) -> JointMetal:
    """Return areas and mass of the weld metal that fills a preparation and its cap.

    Parameters
    ----------
    preparation : a preparation without faults
    density_g_cm3 : density of the weld metal [g/cm³], above 0

    Returns
    -------
    JointMetal : groove area up to the plate surface on all sides; caps of 2/3·width·height (parabolas) and reinforcing
        fillets together as reinforcement; mass per metre; round a pipe the length of the weld on the outside and the
        mass of the whole ring

    Raises
    ------
    InputError : the preparation is impossible; the first fault is raised

    Validity
    --------
    The mass of a ring is exact for its section (Pappus): a deep groove in a thick wall holds less metal than area
    times outside circumference. A branch: see `saddle`; its area is that at the crotch. Of a node the first member
    alone is counted: see `tube_welds`.

    Sources
    -------
    Geometry; density and cap shape as stated in the command-line contract (common practice, no source).

    Examples
    --------
    >>> v = Preparation(kind="single-v", thickness_mm=10, root_opening_mm=3, root_face_mm=1, groove_angle_deg=60)
    >>> joint_metal(v).groove_area_mm2
    76.77
    """
    for fault in faults(preparation):
        raise fault
    require_above_zero(density_g_cm3=density_g_cm3)
    shape = shape_of(preparation)
    grooves = [area_and_centroid(each.outline)[0] for each in shape.grooves]
    butter = sum(a for a, each in zip(grooves, shape.grooves, strict=True) if each.side == 0)
    filled = sum(a for a, each in zip(grooves, shape.grooves, strict=True) if not each.reinforcing) - butter
    over = sum(a for a, each in zip(grooves, shape.grooves, strict=True) if each.reinforcing)
    over += sum(each.cap_area_mm2 for each in shape.grooves)
    root = sum(each.root_area_mm2 for each in shape.grooves)
    whole, grams = filled + over + root + butter, density_g_cm3 * 1e-3  # per mm³, in g
    length, mass = _ring(preparation, shape)
    per_metre: float | None = whole * grams
    if shape.width == "piece":
        hole, slot = preparation.hole_mm, max(preparation.slot_length_mm, preparation.hole_mm)
        depth = filled / hole
        mass, per_metre = (math.pi / 4 * hole**2 + (slot - hole) * hole) * depth, None
    return JointMetal(
        groove_area_mm2=filled,
        reinforcement_area_mm2=over,
        root_area_mm2=root,
        buttering_area_mm2=butter,
        face_width_mm=shape.face_width_mm,
        weld_metal_kg_m=per_metre,
        circumference_mm=length,
        weld_metal_kg=None if mass is None else mass * grams * 1e-3,
    )


def _ring(p: Preparation, shape: Shape) -> tuple[float | None, float | None]:
    """Return the length of a weld round a pipe on the outside [mm], and its volume [mm³]."""
    if p.make.form in ("branch-set-on", "branch-set-in") and p.od_mm is not None:
        found = saddle(p)
        return found.length_mm, found.volume_mm3
    if p.kind == "tube-node" and p.od_mm is not None:
        return _on_run(p, p.od_mm, shape)
    if p.od_mm is None or shape.axis_y_mm is None:
        return None, None
    volume = 0.0
    for each in shape.grooves:
        parts = [area_and_centroid(each.outline)]
        parts.append((each.cap_area_mm2, _crown(each.mouth, each.cap_mm)))
        if each.root:
            parts.append((each.root_area_mm2, _crown(each.root, each.root_cap_mm)))
        volume += sum(2 * math.pi * area * (height - shape.axis_y_mm) for area, height in parts)
    return math.pi * p.od_mm, volume


def _on_run(p: Preparation, od_mm: float, shape: Shape) -> tuple[float, float]:
    """Return length [mm] and volume [mm³] of the weld round the first member of a node; its cap in proportion."""
    first = Tube(od_mm=od_mm, wall_mm=p.thickness_mm, angle_deg=p.member_angle_deg)
    (weld,) = tube_welds(p.run_od_mm or FLAT * od_mm, (first,))
    (groove,) = shape.grooves
    capped = 1 + groove.cap_area_mm2 / area_and_centroid(groove.outline)[0]
    return weld.length_mm, weld.fillet_mm * math.prod(legs(p)) * capped


def _crown(mouth: tuple[Point, Point], height_mm: float) -> float:
    """Return the height of the centroid of a parabola over a mouth: 2/5 of its own height out."""
    (ax, ay), (bx, by) = mouth
    length = math.dist(*mouth)
    return (ay + by) / 2 + (0.4 * height_mm * (bx - ax) / length if length else 0.0)
