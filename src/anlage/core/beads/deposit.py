"""How much metal a bead gets: from wire feed, from an electrode's deposition rate, from an electrode's run-out."""

import math

from anlage.core.results import require_above_zero

MM3_PER_KG_AT_1_G_CM3 = 1e6


def wire_bead_area(
    wire_diameter_mm: float,
    *,
    wire_speed_mm_min: float,
    travel_speed_mm_min: float,
    efficiency: float,
    fill: float = 1.0,
) -> float:
    """Return the section of a bead laid with wire [mm²].

    Parameters
    ----------
    wire_diameter_mm : diameter of the wire [mm]
    wire_speed_mm_min, travel_speed_mm_min : feed of the wire and progress along the joint [mm/min]
    efficiency : share of the wire that becomes weld metal, above 0 to 1
    fill : share of the wire's section that is metal; 1 for solid wire

    Raises
    ------
    InputError : a value is not above 0, or a share is above 1

    Validity
    --------
    One wire; no iron powder or hot wire beside it.

    Sources
    -------
    Conservation of metal, A = η·(π·d²/4)·feed/speed; the same as an increase of deposited volume in ASME BPVC IX
    QW-409.1(b).

    Examples
    --------
    >>> wire_bead_area(1.2, wire_speed_mm_min=7400, travel_speed_mm_min=340, efficiency=0.96)
    23.63
    """
    require_above_zero(
        wire_diameter_mm=wire_diameter_mm, wire_speed_mm_min=wire_speed_mm_min, travel_speed_mm_min=travel_speed_mm_min,
        efficiency=efficiency, fill=fill,
    )  # fmt: skip
    return efficiency * fill * math.pi / 4 * wire_diameter_mm**2 * wire_speed_mm_min / travel_speed_mm_min


def deposition_rate(
    wire_diameter_mm: float, *, wire_speed_mm_min: float, efficiency: float, density_g_cm3: float
) -> float:
    """Return the weld metal laid per hour of arc [kg/h].

    Parameters
    ----------
    wire_diameter_mm : diameter of the wire [mm]
    wire_speed_mm_min : feed of the wire [mm/min]
    efficiency : share of the wire that becomes weld metal, above 0 to 1
    density_g_cm3 : density of the wire [g/cm³]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Solid wire; arc time only.

    Sources
    -------
    Conservation of metal.

    Examples
    --------
    >>> deposition_rate(1.2, wire_speed_mm_min=7400, efficiency=0.96, density_g_cm3=7.85)
    3.784
    """
    require_above_zero(
        wire_diameter_mm=wire_diameter_mm, wire_speed_mm_min=wire_speed_mm_min, efficiency=efficiency,
        density_g_cm3=density_g_cm3,
    )  # fmt: skip
    return efficiency * density_g_cm3 * math.pi / 4 * wire_diameter_mm**2 * wire_speed_mm_min * 60e-6


def bead_area_of_rate(rate_kg_h: float, *, travel_speed_mm_min: float, density_g_cm3: float) -> float:
    """Return the section of a bead from the metal laid per hour and the speed [mm²].

    Parameters
    ----------
    rate_kg_h : weld metal per hour of arc [kg/h]
    travel_speed_mm_min : progress along the joint [mm/min]
    density_g_cm3 : density of the weld metal [g/cm³]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Steady arc.

    Sources
    -------
    Conservation of metal.

    Examples
    --------
    >>> bead_area_of_rate(1.2, travel_speed_mm_min=120, density_g_cm3=7.85)
    21.23
    """
    require_above_zero(rate_kg_h=rate_kg_h, travel_speed_mm_min=travel_speed_mm_min, density_g_cm3=density_g_cm3)
    return rate_kg_h / 60 * MM3_PER_KG_AT_1_G_CM3 / density_g_cm3 / travel_speed_mm_min


def electrode_metal(diameter_mm: float, *, consumed_length_mm: float, recovery: float, density_g_cm3: float) -> float:
    """Return the weld metal that one covered electrode lays [kg].

    Parameters
    ----------
    diameter_mm : diameter of the core wire [mm]
    consumed_length_mm : length less stub [mm]
    recovery : weld metal over core metal melted, such as 1.15
    density_g_cm3 : density [g/cm³]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Recovery in the sense of ISO 2401.

    Sources
    -------
    Conservation of metal; ISO 2401 for the recovery, from memory, M.

    Examples
    --------
    >>> 1000 * electrode_metal(4, consumed_length_mm=400, recovery=1.15, density_g_cm3=7.85)
    45.4
    """
    require_above_zero(
        diameter_mm=diameter_mm, consumed_length_mm=consumed_length_mm, recovery=recovery, density_g_cm3=density_g_cm3
    )
    return density_g_cm3 * math.pi / 4 * diameter_mm**2 * consumed_length_mm * recovery * 1e-6
