"""What a weld is made of: filler and the base metal that it melts, and layers of it one over the other."""

from collections.abc import Mapping, Sequence

from anlage.core.errors import InputError
from anlage.core.metal.composition import Composition


def mixed(parts: Sequence[tuple[Composition, float]]) -> Mapping[str, float]:
    """Return the composition of a mixture [% by mass] of the elements that every part states.

    Parameters
    ----------
    parts : compositions with their shares, which add up to 1; a part of no share is left out

    Raises
    ------
    InputError : a share is below 0, or they do not add up to 1

    Validity
    --------
    Whole mixing of the pool. What burns off or is picked up is not in it.

    Sources
    -------
    Mass balance.

    Examples
    --------
    >>> mixed([({"Cr": 0.05, "C": 0.16}, 0.15), ({"Cr": 16.8, "C": 0.02}, 0.15), ({"Cr": 23.2, "C": 0.015}, 0.70)])
    {'Cr': 18.767, 'C': 0.0375}
    """
    shares = [share for _, share in parts]
    if not (all(share >= 0 for share in shares) and abs(sum(shares) - 1) < 1e-9):
        raise InputError("shares do not add up to 1", where="mixture", mend="state shares from 0 to 1")
    counted = [(composition, share) for composition, share in parts if share > 0]
    first = counted[0][0]
    common = [name for name in first if all(name in composition for composition, _ in counted)]
    return {name: sum(share * composition[name] for composition, share in counted) for name in common}


def weld_metal(
    base_a: Composition, base_b: Composition, filler: Composition, *, dilution: float, first_share: float
) -> Mapping[str, float]:
    """Return the composition of a weld between two base metals [% by mass].

    Parameters
    ----------
    base_a, base_b, filler : compositions [% by mass]
    dilution : molten base metal over the whole weld, 0 to 1
    first_share : share of the molten base metal that is of side a, 0 to 1

    Raises
    ------
    InputError : a share is not between 0 and 1

    Validity
    --------
    As `mixed`.

    Sources
    -------
    Mass balance.

    Examples
    --------
    >>> weld_metal({"Cr": 0.05}, {"Cr": 16.8}, {"Cr": 23.2}, dilution=0.3, first_share=0.5)
    {'Cr': 18.767}
    """
    for name, share in (("dilution", dilution), ("share_a", first_share)):
        if not 0 <= share <= 1:
            raise InputError(f"{share:g} is no share", where=name, mend="state a share from 0 to 1")
    return mixed([(base_a, dilution * first_share), (base_b, dilution * (1 - first_share)), (filler, 1 - dilution)])


def buttered(
    base: Composition, filler: Composition, *, dilution: float, layers: int
) -> tuple[Mapping[str, float], ...]:
    """Return the composition of each layer of buttering [% by mass], the first one first.

    Parameters
    ----------
    base, filler : compositions [% by mass]
    dilution : of each layer by what lies under it, 0 to 1
    layers : how many

    Raises
    ------
    InputError : the dilution is no share

    Validity
    --------
    Each layer melts the one under it alone.

    Sources
    -------
    Mass balance, layer by layer.

    Examples
    --------
    >>> [layer["Cr"] for layer in buttered({"Cr": 0.05}, {"Cr": 23.2}, dilution=0.25, layers=2)]
    [17.412, 21.753]
    """
    found: list[Mapping[str, float]] = []
    below = base
    for _ in range(layers):
        below = mixed([(below, dilution), (filler, 1 - dilution)])
        found.append(below)
    return tuple(found)
