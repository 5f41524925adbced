"""The number that ISO 4063 gives a deposit: worked out of its process, gas and filler, and kept apart from them."""

import re

from anlage.core.catalogue import gas_composition
from anlage.core.errors import UnknownNameError
from anlage.core.processes import Efficiency, thermal_efficiency
from anlage.data.tables import catalogue, processes
from anlage.session.leaves.gases import NONE, gas_tokens, unknown_gases

INERT = frozenset({"Ar", "He"})
ACTIVE = frozenset({"CO2", "O2"})
REDUCING = frozenset({"H2"})
CORED = re.compile(r"^(?:R\w*T\d|EC|E\d+C)", re.IGNORECASE)  # a cored rod, a cored wire
STRIP = re.compile(r"^EQ", re.IGNORECASE)


def iso_number(process: str | None, filler: str | None, gas: str | None) -> str:
    """Return the ISO 4063 number of a deposit; "" where what is stated does not tell.

    Parameters
    ----------
    process : its canonical token
    filler : as stated, "none" for a weld without
    gas : as stated, "none" for a weld without; alternatives count only where all have one number

    Sources
    -------
    ISO 4063:2009 (H, from memory); the gases of 145 and 147 (M).

    Examples
    --------
    >>> iso_number("GMAW", "ER70S-6", "Ar-18CO2"), iso_number("GMAW", "ER4043", "Ar")
    ('135', '131')
    >>> iso_number("FCAW", "E71T-8", "none"), iso_number("GTAW", "none", "Ar"), iso_number("GMAW", "ER70S-6", None)
    ('114', '142', '')
    """
    row = processes().get(process or "")
    if row is None:
        return ""
    found = row.numbers_for(_activity(gas), _form(filler, hand_fed=row.hand_fed))
    return found[0] if len(found) == 1 else ""


def efficiency_of(process: str | None, filler: str | None, gas: str | None) -> Efficiency | None:
    """Return the thermal efficiency of a deposit: by its number where that is known, else that of its process."""
    if process is None:
        return None
    return thermal_efficiency(iso_number(process, filler, gas) or process, process, processes())


def _activity(gas: str | None) -> str:
    """Return what a gas does to the metal; "" where nobody says, or alternatives differ."""
    if not gas or unknown_gases(gas):
        return ""
    found = {_of_one(token) for token in gas_tokens(gas)}
    return next(iter(found)) if len(found) == 1 else ""


def _of_one(token: str) -> str:
    if token == NONE:
        return "none"
    try:
        parts = frozenset(name for name, share in catalogue().gas(token).components.items() if share)
    except UnknownNameError:
        parts = frozenset(gas_composition(token))
    if parts & ACTIVE:
        return "active"
    return "reducing" if parts & REDUCING else "inert" if parts and parts <= INERT else ""


def _form(filler: str | None, *, hand_fed: bool) -> str:
    if not filler:
        return ""
    if filler.casefold() == NONE:
        return "none"
    own = filler.strip().rpartition("-E")  # the electrode behind a flux: F7A2-EM12K, F7A2-EC1
    wire = f"E{own[2]}" if own[0] and not hand_fed else filler.strip()
    if STRIP.match(wire) or CORED.match(wire):
        return "strip" if STRIP.match(wire) else "cored"
    try:
        return "solid" if catalogue().filler(filler) else ""
    except UnknownNameError:
        return ""  # nobody knows what it is
