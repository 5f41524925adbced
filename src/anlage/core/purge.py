"""Purging a root: how long until the oxygen behind it is low enough, and what a rule of thumb really leaves.

Glossary
--------
volume change : as much gas as the purged space holds
mixing : share of the gas that mixes with what is in the space, 1 with good vents; the rest leaves as it came
"""

import math

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.results import require_above_zero

AIR_PPM = 209_500.0  # oxygen in air
THUMB = 4.0  # minutes = 4 × bore [in] × length [ft] / flow [ft³/h]
LITRE_PER_MINUTE_CFH = 0.471947


class Oxygen(Struct, frozen=True):
    """Oxygen behind a root [ppm]: what may be left, at the start (of air when not stated), and in the gas."""

    target_ppm: float
    start_ppm: float = AIR_PPM
    gas_ppm: float = 0.0


class Purge(Struct, frozen=True):
    """Minutes to the target: well mixed, in volume changes, and at the very least (plug flow)."""

    volume_l: float
    mixing_min: float
    volume_changes: float
    plug_min: float


def purged_volume(bore_mm: float, length_mm: float) -> float:
    """Return the volume of a bore between dams [l].

    Parameters
    ----------
    bore_mm : inside diameter [mm]
    length_mm : between the dams [mm]

    Raises
    ------
    InputError : a length is not above 0

    Validity
    --------
    A round bore.

    Sources
    -------
    Geometry.

    Examples
    --------
    >>> purged_volume(102.26, 450)
    3.696
    """
    require_above_zero(bore_mm=bore_mm, length_mm=length_mm)
    return math.pi / 4 * bore_mm**2 * length_mm / 1e6


def purge_time(
    volume_l: float,
    *,
    flow_l_min: float,
    oxygen: Oxygen,
    mixing: float = 1.0,
) -> Purge:
    """Return how long to purge until the oxygen has fallen to a target [min].

    Parameters
    ----------
    volume_l : of the purged space V [l]
    flow_l_min : of the gas q [l/min]
    oxygen : what may be left, what there is at the start, and in the gas [ppm]
    mixing : η, 1 for a space that mixes well, less where vents are poor (L)

    Returns
    -------
    Purge : t = V/(η·q)·ln((C0 - C_in)/(C - C_in)); plug flow V/q as the bound below

    Raises
    ------
    InputError : volume or flow is not above 0, the mixing no share, the target not between gas and start

    Validity
    --------
    A tight space: a leak of a thousandth of the flow adds 209 ppm for ever.

    Sources
    -------
    Well-mixed vessel, H.

    Examples
    --------
    >>> found = purge_time(3.696, flow_l_min=10, oxygen=Oxygen(50, gas_ppm=5))
    >>> found.mixing_min, found.volume_changes, found.plug_min
    (3.12, 8.446, 0.37)
    """
    require_above_zero(volume_l=volume_l, flow_l_min=flow_l_min)
    if not 0 < mixing <= 1:
        raise InputError(f"{mixing:g} is no share", where="mixing", mend="state a share above 0, 1 at most")
    target_ppm, start_ppm, gas_ppm = oxygen.target_ppm, oxygen.start_ppm, oxygen.gas_ppm
    if not 0 <= gas_ppm < target_ppm:
        text = f"{target_ppm:g} ppm is never reached with {gas_ppm:g} ppm in the gas"
        raise InputError(text, where="target", mend="state a target above the oxygen of the gas, or a purer gas")
    if not target_ppm < start_ppm <= 1e6:
        text = f"{target_ppm:g} ppm is not below the start of {start_ppm:g} ppm"
        raise InputError(text, where="target", mend="state a lower target, or what there is at the start")
    changes = math.log((start_ppm - gas_ppm) / (target_ppm - gas_ppm)) / mixing
    return Purge(volume_l, changes * volume_l / flow_l_min, changes, volume_l / flow_l_min)


def oxygen_left(changes: float, *, start_ppm: float = AIR_PPM, gas_ppm: float = 0.0, mixing: float = 1.0) -> float:
    """Return the oxygen left after so many volume changes [ppm].

    Parameters
    ----------
    changes : volume changes, 0 or more
    start_ppm, gas_ppm : oxygen at the start and in the gas [ppm]
    mixing : η, 1 for a space that mixes well

    Raises
    ------
    InputError : the changes are below 0, or the mixing is no share

    Validity
    --------
    As `purge_time`.

    Sources
    -------
    Well-mixed vessel, H.

    Examples
    --------
    >>> [round(oxygen_left(changes)) for changes in (5, 6, 10)]
    [1412, 519, 10]
    """
    if not (changes >= 0 and 0 < mixing <= 1):
        raise InputError(
            "changes and mixing make no purge", where="purge", mend="state them from 0 up, mixing 1 at most"
        )
    return gas_ppm + (start_ppm - gas_ppm) * math.exp(-mixing * changes)


def thumb_time(bore_mm: float, *, length_mm: float, flow_l_min: float) -> float:
    """Return the minutes of the rule of thumb, which are never to be called ready without the oxygen they leave.

    Parameters
    ----------
    bore_mm, length_mm : of the purged bore [mm]
    flow_l_min : of the gas [l/min]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    A bore of 2 in gets six volume changes by it, one of 6 in two.

    Sources
    -------
    Common practice, no source: 4 × diameter [in] × length [ft] ÷ flow [ft³/h].

    Examples
    --------
    >>> thumb_time(50.8, length_mm=304.8, flow_l_min=0.471947 * 10)
    0.8
    """
    require_above_zero(bore_mm=bore_mm, length_mm=length_mm, flow_l_min=flow_l_min)
    return THUMB * (bore_mm / 25.4) * (length_mm / 304.8) / (flow_l_min / LITRE_PER_MINUTE_CFH)


def leak_floor(flow_l_min: float, *, leak_l_min: float, gas_ppm: float = 0.0) -> float:
    """Return the oxygen below which a leak never lets it fall [ppm].

    Parameters
    ----------
    flow_l_min : of the gas q [l/min]
    leak_l_min : of air that gets in [l/min], 0 or more
    gas_ppm : oxygen in the gas [ppm]

    Raises
    ------
    InputError : the flow is not above 0, or the leak below 0

    Validity
    --------
    A space that mixes well.

    Sources
    -------
    Mass balance, H.

    Examples
    --------
    >>> leak_floor(10, leak_l_min=0.01)
    209.3
    """
    require_above_zero(flow_l_min=flow_l_min)
    if not 0 <= leak_l_min < math.inf:
        raise InputError(f"{leak_l_min:g} is no leak", where="leak", mend="state it from 0 up")
    return (flow_l_min * gas_ppm + leak_l_min * AIR_PPM) / (flow_l_min + leak_l_min)
