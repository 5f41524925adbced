"""Gases as the rules compare them: by the name of the catalogue, else by composition; alternatives each for itself."""

import re

from anlage.core.catalogue import gas_composition
from anlage.core.errors import UnknownNameError
from anlage.data.tables import catalogue

NONE = "none"
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
