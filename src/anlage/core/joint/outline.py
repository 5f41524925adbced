"""From a preparation to its shape: one way for every kind."""

from functools import lru_cache

from anlage.core.joint.butt import butt
from anlage.core.joint.fillet import fillet_tee, lap
from anlage.core.joint.preparation import Preparation
from anlage.core.joint.shape import Shape
from anlage.core.joint.surface import cladding, flare, plug
from anlage.core.joint.tee import standing_right, tee


@lru_cache(maxsize=64)
def shape_of(preparation: Preparation) -> Shape:
    """Return members, grooves and dimensions of a preparation without faults."""
    make = preparation.make
    if make.family == "surface":
        return cladding(preparation) if make.form == "cladding" else plug(preparation)
    if make.family == "flare":
        return flare(preparation)
    if make.family == "lap" or make.form in ("socket", "slip-on"):
        return lap(preparation)
    if make.form == "fillet":
        return fillet_tee(preparation)
    if make.form == "branch-set-in" or preparation.kind == "corner-v":
        return standing_right(preparation)
    return tee(preparation) if make.family in ("tee", "corner", "pipe") else butt(preparation)
