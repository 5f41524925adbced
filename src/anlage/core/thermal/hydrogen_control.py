"""Preheat by hydrogen control of the structural code: susceptibility index, group, restraint and thickness.

The annex prints a table of groups as well as an index; near the edges of its bands they differ and which prevails is
not known: the higher group is taken.
"""

import math
from typing import Literal

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.results import require_above_zero
from anlage.core.toml_rows import whole_table

GROUPS = "ABCDEFG"
Level = Literal["H1", "H2", "H3"]
Units = Literal["si", "us"]


class HydrogenLevel(Struct, frozen=True, forbid_unknown_fields=True):
    """One level: hydrogen up to `most` [ml/100 g], and the figure that enters the index."""

    id: Level
    most: float
    counts_as: float


class Band(Struct, frozen=True, forbid_unknown_fields=True):
    """Minimum preheat of one restraint up to a thickness, by group A to G: as printed in °F and in °C."""

    restraint: Literal["low", "medium", "high"]
    si_to: float
    us_to: float
    us: tuple[float, ...]
    si: tuple[float, ...]
    below: Literal["", "A", "B", "C", "D"] = ""
    includes: bool = True


class HydrogenControl(Struct, frozen=True, forbid_unknown_fields=True):
    """The annex: levels of hydrogen, edges of the groups by index and by Pcm, and temperatures."""

    source: str
    confidence: str
    levels: tuple[HydrogenLevel, ...]
    index_to: tuple[float, ...]
    pcm_below: tuple[float, ...]
    table_from: dict[Level, str]
    bands: tuple[Band, ...]


class Restrained(Struct, frozen=True):
    """A joint as the annex sees it: its thicker part [mm], low, medium or high restraint, and the column that is read.

    The Celsius column of the code is no conversion of the other.
    """

    thickness_mm: float
    restraint: str
    units: Units


class Asked(Struct, frozen=True):
    """What hydrogen control asks: level, index, groups by index and by table, and the preheat [°C].

    `may_be_lower` says that the printed value is a ceiling of what is asked; `preheat_c` is `None` where the index or
    Pcm lies above the table.
    """

    level: Level
    index: float
    index_group: str | None
    table_group: str | None
    group: str | None
    preheat_c: float | None
    may_be_lower: bool = False


def read_hydrogen_control(text: str) -> HydrogenControl:
    """Return the annex as written in `text` (TOML)."""
    return whole_table(text, HydrogenControl, where="hydrogen_control.toml")


def hydrogen_level(hydrogen: float, control: HydrogenControl) -> HydrogenLevel:
    """Return the level of a hydrogen content [ml/100 g]."""
    require_above_zero(hydrogen=hydrogen)
    return next(each for each in control.levels if hydrogen <= each.most)


def susceptibility(pcm: float, level: HydrogenLevel) -> float:
    """Return the susceptibility index 12·Pcm + log H, rounded to the decimal that the table works on.

    Parameters
    ----------
    pcm : carbon equivalent Pcm [%]
    level : of hydrogen, from `hydrogen_level`

    Validity
    --------
    Steels of the code; Pcm below 0.38.

    Sources
    -------
    AWS D1.1, annex on hydrogen control (H in 2015, B in 2020), from memory, H; rounding M.

    Examples
    --------
    >>> from anlage.data.metal_tables import hydrogen_control
    >>> susceptibility(0.27617, hydrogen_level(8, hydrogen_control()))
    4.3
    """
    return math.floor(10 * (12 * pcm + math.log10(level.counts_as)) + 0.5 + 1e-9) / 10


def asked_preheat(pcm: float, *, hydrogen: float, joint: Restrained, control: HydrogenControl) -> Asked:
    """Return the preheat that hydrogen control asks for.

    Parameters
    ----------
    pcm : carbon equivalent Pcm [%]
    hydrogen : HD of the deposit [ml/100 g]; what is not known counts as not controlled
    joint : thickness of the thicker part, restraint, and whose column is read
    control : the annex, from `read_hydrogen_control`

    Raises
    ------
    InputError : a value is not above 0, or there is no such restraint

    Validity
    --------
    Steels of the code; index up to 7.0 and Pcm below 0.38.

    Sources
    -------
    AWS D1.1, annex on hydrogen control (I in 2010, H in 2015, B in 2020), from memory, M.

    Examples
    --------
    >>> from anlage.data.metal_tables import hydrogen_control
    >>> joint = Restrained(32, "medium", "si")
    >>> asked_preheat(0.27617, hydrogen=8, joint=joint, control=hydrogen_control()).preheat_c
    110.0
    """
    require_above_zero(pcm=pcm, thickness_mm=joint.thickness_mm)
    level = hydrogen_level(hydrogen, control)
    index = susceptibility(pcm, level)
    by_index = next((GROUPS[n] for n, most in enumerate(control.index_to) if index <= most + 1e-9), None)
    step = next((n for n, most in enumerate(control.pcm_below) if pcm < most), None)
    by_table = None if step is None else GROUPS[GROUPS.index(control.table_from[level.id]) + step]
    group = None if by_index is None or by_table is None else max(by_index, by_table)
    if group is None:
        return Asked(level.id, index, by_index, by_table, None, None)
    band = _band(joint, control)
    column = GROUPS.index(group)
    value = (band.si if joint.units == "si" else band.us)[column]
    preheat = value if joint.units == "si" else (value - 32) / 1.8
    lower = bool(band.below) and group <= band.below
    return Asked(level.id, index, by_index, by_table, group, preheat, lower)


def _band(joint: Restrained, control: HydrogenControl) -> Band:
    restraint, units = joint.restraint, joint.units
    size = joint.thickness_mm if units == "si" else joint.thickness_mm / 25.4
    bands = [band for band in control.bands if band.restraint == restraint]
    if not bands:
        raise InputError(f"no {restraint}", where="restraint", mend="take low, medium or high")
    for band in bands:
        most = band.si_to if units == "si" else band.us_to
        if size < most - 1e-9 or (band.includes and size <= most + 1e-9):
            return band
    return bands[-1]
