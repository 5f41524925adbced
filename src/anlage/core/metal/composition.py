"""What a metal is made of [% by mass]: element by element, each stated or not; what is not stated is no zero."""

from collections.abc import Iterable, Mapping

from anlage.core.errors import InputError, UnknownNameError

Composition = Mapping[str, float]

ELEMENTS = (
    "C", "Mn", "Si", "P", "S", "Cr", "Mo", "Ni", "Cu", "V", "Nb", "Ti", "Al", "B", "N", "W", "As", "Co", "Mg", "Fe",
    "Zn", "Zr", "Sn", "Sb", "Ca", "O", "H",
)  # fmt: skip
WHOLE = 100.0  # % by mass
ROUNDED = 0.5  # % by mass: what the rounding of twenty figures may add up to


def require_composition(composition: Composition) -> None:
    """Refuse what no metal is made of.

    Raises
    ------
    UnknownNameError : a name is no element of this table
    InputError : a share is below 0, not a number or above 100 %, or all together are above 100 %
    """
    for name, share in composition.items():
        if name not in ELEMENTS:
            raise UnknownNameError(name, ELEMENTS, where="composition")
        if not 0 <= share <= WHOLE:
            raise InputError(f"{share:g} % is no share", where=name, mend="state per cent by mass, from 0 to 100")
    total = sum(composition.values())
    if not total <= WHOLE + ROUNDED:
        raise InputError(f"adds up to {total:g} %", where="composition", mend="state per cent by mass, 100 at most")


def named(elements: Iterable[str]) -> str:
    """Return names of elements as a sentence lists them.

    Examples
    --------
    >>> named(["Mo", "V", "Ni"])
    'Mo, V and Ni'
    """
    *most, last = list(elements) or [""]
    return f"{', '.join(most)} and {last}" if most else last
