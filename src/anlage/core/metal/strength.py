"""Strength of weld metal estimated from its composition; a certificate or a tension test says more."""

from msgspec import Struct

from anlage.core.metal.composition import Composition

TRACE = {"Cr": 0.1, "Ni": 0.1, "Mo": 0.03, "Nb": 0.01, "V": 0.01}  # own bounds of "beyond traces", % by mass
CARBON, MANGANESE = (0.045, 0.145), (0.65, 1.8)


class Strength(Struct, frozen=True):
    """Yield and tensile strength [MPa], what lies outside the fit, and alloying that it does not know."""

    yield_mpa: float
    tensile_mpa: float
    outside: tuple[tuple[str, float, float, float], ...]
    alloyed: tuple[str, ...]


def weld_strength(composition: Composition) -> Strength | None:
    """Return yield and tensile strength of carbon-manganese weld metal as welded [MPa]; `None` without C and Mn.

    Parameters
    ----------
    composition : shares of the deposit [% by mass]

    Returns
    -------
    Strength : yield = 335 + 439·C + 60·Mn + 361·C·Mn, tensile = 379 + 754·C + 63·Mn + 337·C·Mn

    Validity
    --------
    Basic covered electrodes, all-weld metal as welded, C 0.045 to 0.145, Mn 0.65 to 1.8 %, no other alloying. Process,
    dilution and stress relief move it by tens of MPa: never a proof of matching strength.

    Sources
    -------
    Evans, all-weld metal of C-Mn basic electrodes, from memory, M.

    Examples
    --------
    >>> found = weld_strength({"C": 0.07, "Mn": 1.35})
    >>> found.yield_mpa, found.tensile_mpa
    (480.8, 548.7)
    """
    if "C" not in composition or "Mn" not in composition:
        return None
    carbon, manganese = composition["C"], composition["Mn"]
    ranges = (("C", carbon, *CARBON), ("Mn", manganese, *MANGANESE))
    return Strength(
        335 + 439 * carbon + 60 * manganese + 361 * carbon * manganese,
        379 + 754 * carbon + 63 * manganese + 337 * carbon * manganese,
        tuple(each for each in ranges if not each[2] <= each[1] <= each[3]),
        tuple(name for name, most in TRACE.items() if composition.get(name, 0.0) > most),
    )
