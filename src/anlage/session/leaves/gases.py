"""Gases as the rules compare them: by the name of the catalogue, else by composition; alternatives each for itself."""

import re

from anlage.core.catalogue import gas_composition
from anlage.core.errors import UnknownNameError
from anlage.data.gas_symbol_table import gas_symbols
from anlage.data.tables import catalogue

NONE = "none"
INERT = ("Ar", "He")
GASES = ("shielding_gas", "backing_gas", "trailing_gas", "orifice_gas")  # leaves of a deposit that name one
_OR = re.compile(r"\s+or\s+|\s*;\s*", re.IGNORECASE)


def gas_tokens(text: str | None) -> frozenset[str]:
    """Return the gases that a text names, each by its token; what nobody knows is left out.

    Examples
    --------
    >>> sorted(gas_tokens("Argon or 75Ar/25He")), sorted(gas_tokens("Ar-12CO2; none")), gas_tokens("steam")
    (['Ar', 'Ar-25He'], ['Ar-12CO2', 'none'], frozenset())
    """
    return frozenset(token for part in _parts(text) if (token := _token(part)))


def unknown_gases(text: str | None) -> tuple[str, ...]:
    """Return the parts of a text that name no gas."""
    return tuple(part for part in _parts(text) if not _token(part))


def _parts(text: str | None) -> list[str]:
    return [part for each in _OR.split(text or "") if (part := each.strip())]


def _token(name: str) -> str:
    if name.casefold() == NONE:
        return NONE
    try:
        return catalogue().gas(name).id
    except UnknownNameError:
        pass
    shares = sorted(gas_composition(name).items(), key=lambda each: -each[1])
    return "-".join([shares[0][0], *(f"{share:g}{gas}" for gas, share in shares[1:])]) if shares else ""


def gas_symbol(token: str) -> str:
    """Return the symbol of a gas by ISO 14175, "" where none fits.

    Sources
    -------
    ISO 14175:2008 (H, from memory): `data/gas_symbols.toml`.

    Examples
    --------
    >>> [gas_symbol(each) for each in ("Ar", "Ar-18CO2", "Ar-8CO2", "Ar-2O2", "Ar-30He", "CO2", "none")]
    ['I1', 'M21', 'M20', 'M13', 'I3', 'C1', '']
    """
    parts = gas_composition(token)
    active = {name: share for name, share in parts.items() if name not in INERT} or parts
    if set(active) == set(INERT):
        active = {"He": active["He"]}
    return next((each.id for each in gas_symbols() if each.holds(active, whole=len(parts) == 1)), "")


def co2_percent(token: str) -> float | None:
    """Return the share of carbon dioxide in a gas [%]; `None` of what is no gas.

    Examples
    --------
    >>> co2_percent("Ar-18CO2"), co2_percent("Ar"), co2_percent("none")
    (18.0, 0.0, None)
    """
    parts = gas_composition(token)
    return parts.get("CO2", 0.0) if parts else None
