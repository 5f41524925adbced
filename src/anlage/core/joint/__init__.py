"""Joints: parametric preparations, what is impossible in them, their shape, and how much metal they take."""

from anlage.core.joint.branch import Saddle, dihedral_deg, saddle
from anlage.core.joint.detail import Detail, Deviation, deviations, read_details, taken_over
from anlage.core.joint.faults import JointFaultError, faults, spoken
from anlage.core.joint.fillet import legs, throat_mm
from anlage.core.joint.kinds import KINDS, MAKES, OPTIONAL, Family, Form, Kind, Make, dimensions_of, is_on_run, needed
from anlage.core.joint.limits import JointLimit, read_joint_limits
from anlage.core.joint.metal import STEEL_G_CM3, JointMetal, joint_metal
from anlage.core.joint.node import RUN, Cope, Tube, TubeWeld, cope, node_faults, other_ways, tube_welds, weld_order
from anlage.core.joint.outline import shape_of
from anlage.core.joint.preparation import Point, Preparation, Sketch, drawn_default
from anlage.core.joint.root_style import (
    Misfit,
    Root,
    RootStyle,
    RootStyles,
    misfits,
    misfits_when_tacked,
    read_root_styles,
    spacers,
    styles_that_go,
)
from anlage.core.joint.shape import (
    Dimensioned,
    Groove,
    Measured,
    Member,
    Outline,
    Shape,
    Turned,
    area_and_centroid,
    parabola,
)

__all__ = [
    "KINDS",
    "MAKES",
    "OPTIONAL",
    "RUN",
    "STEEL_G_CM3",
    "Cope",
    "Detail",
    "Deviation",
    "Dimensioned",
    "Family",
    "Form",
    "Groove",
    "JointFaultError",
    "JointLimit",
    "JointMetal",
    "Kind",
    "Make",
    "Measured",
    "Member",
    "Misfit",
    "Outline",
    "Point",
    "Preparation",
    "Root",
    "RootStyle",
    "RootStyles",
    "Saddle",
    "Shape",
    "Sketch",
    "Tube",
    "TubeWeld",
    "Turned",
    "area_and_centroid",
    "cope",
    "deviations",
    "dihedral_deg",
    "dimensions_of",
    "drawn_default",
    "faults",
    "is_on_run",
    "joint_metal",
    "legs",
    "misfits",
    "misfits_when_tacked",
    "needed",
    "node_faults",
    "other_ways",
    "parabola",
    "read_details",
    "read_joint_limits",
    "read_root_styles",
    "saddle",
    "shape_of",
    "spacers",
    "spoken",
    "styles_that_go",
    "taken_over",
    "throat_mm",
    "tube_welds",
    "weld_order",
]
