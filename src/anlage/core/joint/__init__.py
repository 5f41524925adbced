"""Joints: parametric preparations, what is impossible in them, and how much metal they take."""

from anlage.core.joint.metal import STEEL_G_CM3, JointMetal, area_and_centroid, joint_metal
from anlage.core.joint.preparation import KINDS, Kind, Point, Preparation, Sketch, faults

__all__ = [
    "KINDS",
    "STEEL_G_CM3",
    "JointMetal",
    "Kind",
    "Point",
    "Preparation",
    "Sketch",
    "area_and_centroid",
    "faults",
    "joint_metal",
]
