"""How much metal a preparation takes: areas of the section, mass along a plate and round a pipe."""

import math
from dataclasses import dataclass
from itertools import pairwise

from anlage.core.joint.preparation import Point, Preparation, faults
from anlage.core.results import require_above_zero

STEEL_G_CM3 = 7.85  # stated in the command-line contract; a filler may say otherwise


@dataclass(frozen=True, slots=True, kw_only=True)
class JointMetal:
    """Areas of the section and the weld metal they take; the last two are `None` for plate."""

    groove_area_mm2: float
    reinforcement_area_mm2: float
    face_width_mm: float
    weld_metal_kg_m: float
    circumference_mm: float | None
    weld_metal_kg: float | None


def joint_metal(preparation: Preparation, *, density_g_cm3: float = STEEL_G_CM3) -> JointMetal:
    """Return areas and mass of the weld metal that fills a preparation and its cap.

    Parameters
    ----------
    preparation : a preparation without faults
    density_g_cm3 : density of the weld metal [g/cm³], above 0

    Returns
    -------
    JointMetal : groove area up to the plate surface, cap area 2/3·width·height (a parabola), mass per metre; round
        a pipe the length of the weld on the outside and the mass of the whole ring

    Raises
    ------
    InputError : the preparation is impossible; the first fault is raised

    Validity
    --------
    The mass of a ring is exact for its section (Pappus): a deep groove in a thick wall holds less metal than area
    times outside circumference.

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
    area, height = area_and_centroid(preparation.groove_outline)
    width = preparation.face_width_mm
    cap = 2 / 3 * width * preparation.reinforcement_mm
    ring = circumference = None
    if preparation.od_mm is not None:
        circumference = math.pi * preparation.od_mm
        radius = preparation.od_mm / 2 - preparation.thickness_mm + height
        cap_radius = preparation.od_mm / 2 + 0.4 * preparation.reinforcement_mm  # centroid of a parabola: 2/5 up
        ring = 2 * math.pi * (area * radius + cap * cap_radius) * density_g_cm3 * 1e-6
    return JointMetal(
        groove_area_mm2=area,
        reinforcement_area_mm2=cap,
        face_width_mm=width,
        weld_metal_kg_m=(area + cap) * density_g_cm3 * 1e-3,
        circumference_mm=circumference,
        weld_metal_kg=ring,
    )


def area_and_centroid(outline: tuple[Point, ...]) -> tuple[float, float]:
    """Return the area [mm²] of a counter-clockwise outline and the height of its centroid [mm].

    An outline without area has its centroid at half its height.

    Examples
    --------
    >>> area_and_centroid(((0, 0), (4, 0), (4, 2), (0, 2)))
    (8.0, 1.0)
    """
    edges = list(pairwise((*outline, outline[0])))
    crosses = [x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in edges]
    area = sum(crosses) / 2
    if area <= 0:
        return 0.0, max(y for _, y in outline) / 2
    moment = sum(cross * (y1 + y2) for cross, ((_, y1), (_, y2)) in zip(crosses, edges, strict=True))
    return area, moment / (6 * area)
