"""A branch on or in a run of pipe: how the section changes round the saddle, and what the whole ring takes.

Glossary
--------
azimuth : place round the branch, 0° at the crotch (in the plane of the run's axis), 90° at the flank
dihedral : angle between both outer surfaces, measured through the weld; 90° at the crotch, most at the flank
"""

import math

from msgspec import Struct

from anlage.core.joint.preparation import Preparation

STEPS = 360  # round the branch; Simpson's rule is exact to far beyond what is shown


class Saddle(Struct, frozen=True, kw_only=True):
    """A branch weld: its length, the least and most area of groove and fillet round it [mm²], and its volume [mm³]."""

    length_mm: float
    groove_area_mm2: tuple[float, float]
    fillet_area_mm2: tuple[float, float]
    volume_mm3: float


def dihedral_deg(azimuth_deg: float, *, od_mm: float, run_od_mm: float) -> float:
    """Return the angle between the surfaces of branch and run at a place of a right-angled saddle [°].

    Parameters
    ----------
    azimuth_deg : place round the branch [°], 0 at the crotch
    od_mm, run_od_mm : outside diameters of branch and run [mm]

    Returns
    -------
    float : 90° + asin(ratio·sin²(azimuth)) [°]

    Validity
    --------
    Branch square to the run, their axes crossing; branch not larger than the run.

    Sources
    -------
    Geometry: the normal of the run has the sideways share ratio·sin(azimuth), that of the branch sin(azimuth).

    Examples
    --------
    >>> dihedral_deg(90, od_mm=100, run_od_mm=200)
    120.0
    """
    share = od_mm / run_od_mm * math.sin(math.radians(azimuth_deg)) ** 2
    return 90 + math.degrees(math.asin(min(share, 1.0)))


def saddle(p: Preparation) -> Saddle:
    """Return length, areas and volume of the weld round a branch.

    Parameters
    ----------
    p : a set-on or set-in branch without faults, with the outside diameters of branch and run

    Returns
    -------
    Saddle : along the line where the branch's outside meets the run's outside

    Validity
    --------
    Branch square to the run. The groove angle is held all round, the bevel being cut to follow; the depth is the
    branch's wall when set on, the run's wall along the branch when set in. Volume is area times length of that line.

    Sources
    -------
    Geometry, integrated by Simpson's rule.

    Examples
    --------
    >>> small = Preparation(kind="branch-set-on", thickness_mm=4, groove_angle_deg=45, od_mm=40, run_od_mm=4000)
    >>> saddle(small).length_mm / (math.pi * 40)
    1.000
    """
    assert p.od_mm is not None, "a branch has a diameter"
    run = p.run_od_mm or math.inf
    rows = []
    for n in range(STEPS + 1):
        azimuth = 360 * n / STEPS
        groove, fillet = _areas(p, dihedral_deg(azimuth, od_mm=p.od_mm, run_od_mm=run))
        rows.append((groove, fillet, _speed(p.od_mm / 2, run / 2, math.radians(azimuth))))
    weights = [1 if n in (0, STEPS) else 4 if n % 2 else 2 for n in range(STEPS + 1)]
    step = 2 * math.pi / STEPS / 3
    grooves, fillets = [row[0] for row in rows], [row[1] for row in rows]
    return Saddle(
        length_mm=step * sum(w * row[2] for w, row in zip(weights, rows, strict=True)),
        groove_area_mm2=(min(grooves), max(grooves)),
        fillet_area_mm2=(min(fillets), max(fillets)),
        volume_mm3=step * sum(w * (row[0] + row[1]) * row[2] for w, row in zip(weights, rows, strict=True)),
    )


def _areas(p: Preparation, dihedral: float) -> tuple[float, float]:
    sine = math.sin(math.radians(dihedral))
    depth = p.prepared_mm if p.make.form == "branch-set-on" else p.prepared_mm / max(sine, 0.05)
    groove = p.root_opening_mm * depth
    groove += 0.5 * (depth - p.root_face_mm) ** 2 * math.tan(math.radians(p.groove_angle_deg))
    return groove, 0.5 * p.leg_mm**2 * sine


def _speed(branch: float, run: float, azimuth: float) -> float:
    """Return how fast the line of the saddle is walked per radian [mm]."""
    if math.isinf(run):
        return branch
    sine, cosine = math.sin(azimuth), math.cos(azimuth)
    high = math.sqrt(max(run**2 - (branch * sine) ** 2, 0.0))
    if high < 1e-6 * run:  # a branch as large as its run, at the flank: the line turns a corner there
        return math.hypot(branch, branch)
    return math.hypot(branch, branch**2 * sine * cosine / high)
