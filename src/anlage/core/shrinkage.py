"""Shrinkage across a weld and turning of a fillet-welded plate, by the published schools side by side.

All are rough, within half of the value at best: typical figures to preset by, never a tolerance.
"""

import math

from msgspec import Struct

from anlage.core.results import require_above_zero

EXPANSION_OVER_HEAT = 2.449e-3  # α/(ρ·c) of steel [mm³/J], from memory, M
MALISIUS_K = (43.0, 64.0)  # by process, from memory, L
FILLET_ACROSS_MM, FILLET_SHARE = 0.8, 0.75  # a fillet, and up to which share of the thickness; from memory, M
FREEDOM = (0.6, 0.8)  # usual degree of freedom in Okerblom's rule, from memory, M


class School(Struct, frozen=True):
    """What one school says: least and most [mm], its name, source and confidence."""

    name: str
    low_mm: float
    high_mm: float
    source: str
    confidence: str


def transverse(
    area_mm2: float, *, thickness_mm: float, root_opening_mm: float = 0.0, heat_input_j_mm: float | None = None
) -> tuple[School, ...]:
    """Return the shrinkage across a butt weld by each school [mm].

    Parameters
    ----------
    area_mm2 : section of the weld metal [mm²]
    thickness_mm : plate thickness [mm]
    root_opening_mm : root opening [mm]
    heat_input_j_mm : net heat input of a single pass, which Okerblom's rule needs [J/mm]; `None` leaves it out

    Returns
    -------
    tuple of School : in the order of their years

    Raises
    ------
    InputError : area or thickness is not above 0

    Validity
    --------
    Butt welds in carbon steel, free to move; ± 50 %. Okerblom's: one pass. The constants of Malisius are doubtful.

    Sources
    -------
    Malisius 1936 via Masubuchi 1980 (L); Spraragen and Ettinger 1944 (H); Okerblom (M); Blodgett 1966 (H); all from
    memory.

    Examples
    --------
    >>> [school.high_mm for school in transverse(165, thickness_mm=14, root_opening_mm=3)][1:]
    [2.51, 1.18]
    """
    require_above_zero(area_mm2=area_mm2, thickness_mm=thickness_mm)
    over = area_mm2 / thickness_mm
    low, high = (1.3 * (0.6 * 0.0044 * k * over + 0.0093 * root_opening_mm) for k in MALISIUS_K)
    spraragen = 0.2 * over + 0.05 * root_opening_mm
    found = [
        School("malisius", low, high, "Malisius 1936 via Masubuchi 1980, from memory", "L"),
        School("spraragen_ettinger", spraragen, spraragen, "Spraragen and Ettinger 1944, from memory", "H"),
    ]
    if heat_input_j_mm is not None:
        low, high = (free * EXPANSION_OVER_HEAT * heat_input_j_mm / thickness_mm for free in FREEDOM)
        found.append(School("okerblom", low, high, "Okerblom, one pass, from memory", "M"))
    blodgett = 0.10 * over
    return (*found, School("blodgett", blodgett, blodgett, "Blodgett 1966, from memory", "H"))


def fillet_transverse(*, leg_mm: float, thickness_mm: float) -> float | None:
    """Return the shrinkage across one fillet [mm]; `None` where the rule says nothing.

    Parameters
    ----------
    leg_mm : leg of the fillet [mm]
    thickness_mm : thickness of the plate [mm]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Carbon steel, a leg of three quarters of the thickness at most; typical, ± 50 %.

    Sources
    -------
    Handbook rule, 0.8 mm a fillet, from memory, M.

    Examples
    --------
    >>> fillet_transverse(leg_mm=7, thickness_mm=12), fillet_transverse(leg_mm=10, thickness_mm=12)
    (0.8, None)
    """
    require_above_zero(leg_mm=leg_mm, thickness_mm=thickness_mm)
    return FILLET_ACROSS_MM if leg_mm <= FILLET_SHARE * thickness_mm else None


def fillet_turn(width_mm: float, *, leg_mm: float, thickness_mm: float) -> float:
    """Return how far the edge of a plate rises by a fillet on a T [mm].

    Parameters
    ----------
    width_mm : from the weld to the edge of the plate [mm]
    leg_mm : leg of the fillet [mm]
    thickness_mm : thickness of the plate [mm]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    One fillet in carbon steel, plate free to move; ± 50 %.

    Sources
    -------
    Blodgett 1966, 0.02·W·ω^1.3/t² in inches, from memory, H; converted by 25.4^0.7.

    Examples
    --------
    >>> fillet_turn(150, leg_mm=7, thickness_mm=12)
    2.52
    """
    require_above_zero(width_mm=width_mm, leg_mm=leg_mm, thickness_mm=thickness_mm)
    return 0.02 * math.pow(25.4, 0.7) * width_mm * math.pow(leg_mm, 1.3) / thickness_mm**2
