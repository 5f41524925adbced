"""Beads: how much metal each gets, where it lies in the joint, and a list of beads that fills one."""

from anlage.core.beads.deposit import (
    bead_area_of_rate,
    deposition_rate,
    electrode_metal,
    wire_bead_area,
)
from anlage.core.beads.fill import (
    HEIGHT_OF_DIAMETER,
    MOST_BEADS,
    PITCH_OF_DIAMETER,
    UNDER_SURFACE_MM,
    Proposed,
    Size,
    fill,
)
from anlage.core.beads.layout import Bead, Filling, Laid, Layer, Layout, layout

__all__ = [
    "HEIGHT_OF_DIAMETER",
    "MOST_BEADS",
    "PITCH_OF_DIAMETER",
    "UNDER_SURFACE_MM",
    "Bead",
    "Filling",
    "Laid",
    "Layer",
    "Layout",
    "Proposed",
    "Size",
    "bead_area_of_rate",
    "deposition_rate",
    "electrode_metal",
    "fill",
    "layout",
    "wire_bead_area",
]
