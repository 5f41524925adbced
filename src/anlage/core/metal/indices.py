"""Numbers that add up over a composition: carbon equivalents, chromium and nickel equivalents, transformation points.

Glossary
--------
index : one such number with its coefficients, what it needs, where it holds and who published it
"""

import math
from collections.abc import Mapping
from typing import Literal

from msgspec import Struct

from anlage.core.metal.composition import Composition
from anlage.core.toml_rows import rows_by_id

Confidence = Literal["H", "M", "L"]


class Index(Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """One row of `data/metal/indices.toml`: `constant` + Σ `times`·X + Σ X/`over`, X in % by mass."""

    id: str
    title: str
    unit: str
    source: str
    confidence: Confidence
    constant: float = 0.0
    times: Mapping[str, float] = {}
    over: Mapping[str, float] = {}
    needs: tuple[str, ...] = ()
    valid: Mapping[str, tuple[float, float]] = {}
    valid_confidence: Confidence = "M"
    use: str = ""

    @property
    def elements(self) -> tuple[str, ...]:
        """The elements that it counts."""
        return (*self.over, *self.times)


class Summed(Struct, frozen=True):
    """What an index comes to: `None` where an element that it `lacks` is not stated.

    `counted_as_none` are elements that were not stated and count as 0; `outside` those whose share lies outside the
    range of the index, with that range.
    """

    value: float | None
    lacks: tuple[str, ...]
    counted_as_none: tuple[str, ...]
    outside: tuple[tuple[str, float, float, float], ...]


def read_indices(text: str) -> Mapping[str, Index]:
    """Return the indices written in `text` (TOML) by their id."""
    return rows_by_id(text, "index", Index, where="indices.toml")


def summed(composition: Composition, index: Index) -> Summed:
    """Return an index of a composition, with what it lacks and where it leaves its range.

    Examples
    --------
    >>> from anlage.data.metal_tables import indices
    >>> summed({"C": 0.17, "Mn": 1.42, "Cr": 0.12}, indices()["ce_iiw"]).value
    0.43067
    >>> summed({"C": 0.17}, indices()["ce_iiw"])
    Summed(value=None, lacks=('Mn',), counted_as_none=('Cr', 'Mo', 'V', 'Ni', 'Cu'), outside=())
    """
    lacks = tuple(name for name in index.needs if name not in composition)
    not_stated = tuple(name for name in index.elements if name not in composition and name not in index.needs)
    outside = tuple(
        (name, composition[name], low, high)
        for name, (low, high) in index.valid.items()
        if name in composition and not low <= composition[name] <= high
    )
    if lacks:
        return Summed(None, lacks, not_stated, outside)
    value = index.constant
    value += sum(each * composition.get(name, 0.0) for name, each in index.times.items())
    value += sum(composition.get(name, 0.0) / each for name, each in index.over.items())
    return Summed(value, (), not_stated, outside)


def accommodation(carbon: float) -> float:
    """Return the factor A(C) of CEN, which goes from 0.5 at little carbon to 1.

    Parameters
    ----------
    carbon : share of carbon [% by mass]

    Validity
    --------
    Carbon 0.02 to 0.30 %.

    Sources
    -------
    Yurioka et al. 1983, Welding Journal 62(6), from memory, H.

    Examples
    --------
    >>> accommodation(0.06), accommodation(0.12), accommodation(0.20)
    (0.542, 0.750, 0.980)
    """
    return 0.75 + 0.25 * math.tanh(20 * (carbon - 0.12))


def cen(composition: Composition) -> float | None:
    """Return the carbon equivalent CEN of one formula over the whole range of carbon [%]; `None` without C and Mn.

    Parameters
    ----------
    composition : shares [% by mass]; what is not stated beside carbon and manganese counts as 0

    Validity
    --------
    Carbon 0.02 to 0.30 %.

    Sources
    -------
    Yurioka et al. 1983, Welding Journal 62(6), and 1987, from memory, H.

    Examples
    --------
    >>> cen({"C": 0.17, "Si": 0.35, "Mn": 1.42, "Cr": 0.12, "Mo": 0.03, "V": 0.04, "Ni": 0.15, "Cu": 0.18, "Nb": 0.02})
    0.4641
    """
    if "C" not in composition or "Mn" not in composition:
        return None
    share = composition.get
    hardening = sum(share(name, 0.0) for name in ("Cr", "Mo", "Nb", "V")) / 5
    alloy = share("Si", 0) / 24 + composition["Mn"] / 6 + share("Cu", 0) / 15 + share("Ni", 0) / 20 + hardening
    return composition["C"] + accommodation(composition["C"]) * (alloy + 5 * share("B", 0))


def ac3_andrews(composition: Composition) -> float | None:
    """Return Ac3, where a steel is all austenite on heating [°C]; `None` without C.

    Parameters
    ----------
    composition : shares [% by mass]; what is not stated beside carbon counts as 0

    Validity
    --------
    Low-alloy steel, carbon up to 0.6 %; manganese, chromium and copper lower it further and are left out here.

    Sources
    -------
    Andrews 1965, J. Iron Steel Inst. 203, from memory, H.

    Examples
    --------
    >>> ac3_andrews({"C": 0.17, "Si": 0.35, "Mo": 0.03, "V": 0.04, "Ni": 0.15})
    844.8
    """
    if "C" not in composition:
        return None
    share = composition.get
    alloy = 44.7 * share("Si", 0) + 104 * share("V", 0) + 31.5 * share("Mo", 0) + 13.1 * share("W", 0)
    return 910 - 203 * math.sqrt(composition["C"]) - 15.2 * share("Ni", 0) + alloy
