"""Tables of metals and heat; apart from `tables`, so that a calculation loads what it asks for alone."""

from collections.abc import Mapping
from functools import cache

from anlage.core.metal.analyses import TypicalAnalysis, read_typical
from anlage.core.metal.indices import Index, read_indices
from anlage.core.thermal.cooling import CoolingJoint, read_cooling_joints
from anlage.core.thermal.hydrogen_control import HydrogenControl, read_hydrogen_control
from anlage.data.files import text_of


@cache
def indices() -> Mapping[str, Index]:
    """Return the shipped sums over compositions by their id."""
    return read_indices(text_of("metal/indices.toml"))


@cache
def cooling_joints() -> Mapping[str, CoolingJoint]:
    """Return the shipped shape factors of cooling by joint."""
    return read_cooling_joints(text_of("metal/cooling.toml"))


@cache
def hydrogen_control() -> HydrogenControl:
    """Return the shipped annex on hydrogen control."""
    return read_hydrogen_control(text_of("metal/hydrogen_control.toml"))


@cache
def typical_analyses() -> tuple[TypicalAnalysis, ...]:
    """Return the shipped typical analyses of stainless metals."""
    return read_typical(text_of("metal/typical_analyses.csv"))
