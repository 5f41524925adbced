"""Tables of metals and heat; apart from `tables`, so that a calculation loads what it asks for alone."""

from collections.abc import Mapping
from functools import cache

from anlage.core.metal.analyses import TypicalAnalysis, read_typical
from anlage.core.metal.families import (
    Dilutions,
    Family,
    PlannedHydrogen,
    Residuals,
    read_dilutions,
    read_families,
    read_planned_hydrogen,
    read_residuals,
)
from anlage.core.metal.hardness_limits import HardnessLimits, read_hardness_limits
from anlage.core.metal.indices import Index, read_indices
from anlage.core.thermal.cooling import CoolingJoint, read_cooling_joints
from anlage.core.thermal.crayons import Crayons, read_crayons
from anlage.core.thermal.hydrogen_control import HydrogenControl, read_hydrogen_control
from anlage.core.thermal.measuring import Measuring, read_measuring
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


@cache
def families() -> Mapping[str, Family]:
    """Return what the shipped families of metals want."""
    return read_families(text_of("metal/families.toml"))


@cache
def planned_hydrogen() -> PlannedHydrogen:
    """Return the shipped planning figures of hydrogen."""
    return read_planned_hydrogen(text_of("metal/hydrogen.toml"))


@cache
def crayons() -> Crayons:
    """Return the shipped stock of indicating crayons."""
    return read_crayons(text_of("metal/crayons.toml"))


@cache
def dilutions() -> Dilutions:
    """Return the shipped usual dilutions."""
    return read_dilutions(text_of("metal/dilution.toml"))


@cache
def hardness_limits() -> HardnessLimits:
    """Return the shipped limits of hardness and windows of cooling."""
    return read_hardness_limits(text_of("metal/hardness_limits.toml"))


@cache
def measuring() -> Measuring:
    """Return the shipped places where temperatures are read."""
    return read_measuring(text_of("metal/measuring.toml"))


@cache
def residuals() -> Residuals:
    """Return the most of what no analysis states in carbon steel."""
    return read_residuals(text_of("metal/residuals.toml"))
