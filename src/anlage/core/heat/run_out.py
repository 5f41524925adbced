"""Heat input of covered electrodes from the length of bead that one electrode gives.

Glossary
--------
run-out length : length of bead from the consumed length of one electrode
run-out ratio : bead length over consumed electrode length
"""

import rtoml
from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.results import Notice, require_above_zero

POSSIBLE_PERCENT = (30.0, 250.0)  # own bounds: outside, a share was written for a percentage or the reverse
LOWEST_COVERED_PERCENT = 90.0  # "about 95 %": rutile and basic rods recover little less; below is not covered


class RunOutFactor(Struct, frozen=True):
    """Factor F [kJ/mm³] for electrodes of an efficiency up to `to_percent`, and where it comes from."""

    to_percent: float
    f_kj_mm3: float
    source: str
    confidence: str


class RunOut(Struct, frozen=True):
    """Heat input from run-out [kJ/mm], with the ratio, the factor used and what to mind."""

    heat_input_kj_mm: float
    run_out_ratio: float
    factor: RunOutFactor
    notices: tuple[Notice, ...]


def read_run_out_factors(text: str) -> tuple[RunOutFactor, ...]:
    """Return the factors written in `text` (TOML), in rising order of efficiency."""
    rows = rtoml.loads(text)["row"]
    factors = (RunOutFactor(r.get("to_percent", float("inf")), r["f"], r["source"], r["confidence"]) for r in rows)
    return tuple(sorted(factors, key=lambda factor: factor.to_percent))


def run_out(
    diameter_mm: float,
    *,
    consumed_length_mm: float,
    bead_length_mm: float,
    electrode_efficiency_percent: float,
    factors: tuple[RunOutFactor, ...],
) -> RunOut:
    """Return the heat input of a covered electrode from its run-out length.

    Parameters
    ----------
    diameter_mm : core wire diameter D [mm], above 0
    consumed_length_mm : electrode length less stub L [mm], above 0
    bead_length_mm : bead from that length r [mm], above 0
    electrode_efficiency_percent : metal recovery, deposit over core wire [%], above 0
    factors : the table of F, from `read_run_out_factors`

    Returns
    -------
    RunOut : Q = D²·L·F / r [kJ/mm]; k = 0.8 is inside F, do not multiply again

    Raises
    ------
    InputError : a value is not above 0, or the efficiency is no percentage between 30 and 250

    Validity
    --------
    Covered electrodes, metal recovery from about 95 %; not cellulosic electrodes, not vertical down (M).

    Sources
    -------
    EN 1011-2:2001 Annex C (M).

    Examples
    --------
    >>> from anlage.data.tables import run_out_factors
    >>> args = dict(consumed_length_mm=410, bead_length_mm=260, electrode_efficiency_percent=105)
    >>> run_out(4, **args, factors=run_out_factors()).heat_input_kj_mm
    1.0294
    """
    require_above_zero(
        diameter_mm=diameter_mm,
        consumed_length_mm=consumed_length_mm,
        bead_length_mm=bead_length_mm,
        electrode_efficiency_percent=electrode_efficiency_percent,
    )
    efficiency = electrode_efficiency_percent
    if not POSSIBLE_PERCENT[0] <= efficiency <= POSSIBLE_PERCENT[1]:
        mend = "state it in per cent, such as 105"
        raise InputError(f"{efficiency:g} % is no metal recovery", where="electrode_efficiency", mend=mend)
    factor = next(row for row in factors if efficiency <= row.to_percent)
    ratio = bead_length_mm / consumed_length_mm
    return RunOut(diameter_mm**2 * factor.f_kj_mm3 / ratio, ratio, factor, _notices(efficiency))


def _notices(efficiency: float) -> tuple[Notice, ...]:
    if efficiency >= LOWEST_COVERED_PERCENT:
        return ()
    text = f"{efficiency:g} % lies below the table, which starts at about 95 %"
    return (Notice("run_out.efficiency_below_table", "electrode_efficiency", text),)
