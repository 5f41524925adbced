"""Hardness of the heat-affected zone beside a single pass [HV10], by two models that share no data.

Both run over their own end values at very short and very long times; what is given is held between the hardness of
all bainite and of all martensite, and whether it was held is told.
"""

import math

from msgspec import Struct

from anlage.core.metal.composition import Composition
from anlage.core.results import Source, require_above_zero

YURIOKA = Source("HAZ hardness, Yurioka", "Yurioka et al. 1987, Metal Construction 19(4), from memory", "M")
DUREN = Source("HAZ hardness, Düren", "Düren 1981; Lorenz and Düren, from memory", "M")
SCATTER_HV = 30.0  # about ±, M
YURIOKA_MOST = {"C": 0.8, "Si": 1.2, "Mn": 2.0, "Cu": 0.9, "Ni": 10.0, "Cr": 10.0, "Mo": 2.0}  # range of the fit, M/L


class Hardness(Struct, frozen=True):
    """A hardness [HV10] held between all bainite and all martensite; `raw_hv` is what the formula gave."""

    hv: float
    raw_hv: float
    bainite_hv: float
    martensite_hv: float

    @property
    def is_held(self) -> bool:
        """Whether the formula ran over one of its ends."""
        return self.hv != self.raw_hv


class Yurioka(Struct, frozen=True):
    """What the model of Yurioka says of a steel: equivalents [%], hardness at the ends [HV], and times to them [s]."""

    ce_i: float
    ce_ii: float
    ce_iii: float
    martensite_hv: float
    bainite_hv: float
    martensite_s: float
    bainite_s: float


def yurioka(composition: Composition) -> Yurioka:
    """Return the equivalents and end values of the model of Yurioka for a steel.

    Parameters
    ----------
    composition : shares [% by mass] with carbon; what is not stated counts as 0

    Raises
    ------
    KeyError : carbon is not stated

    Validity
    --------
    Carbon up to 0.8 %, Si 1.2, Mn 2, Cu 0.9, Ni 10, Cr 10, Mo 2 %; single pass, not tempered by later ones.

    Sources
    -------
    Yurioka, Okumura, Kasuya and Cotton 1987, Metal Construction 19(4), from memory, M.

    Examples
    --------
    >>> steel = {"C": 0.17, "Si": 0.35, "Mn": 1.42, "Cr": 0.12, "Mo": 0.03}
    >>> steel |= {"V": 0.04, "Ni": 0.15, "Cu": 0.18, "Nb": 0.02}
    >>> found = yurioka(steel)
    >>> found.martensite_hv, found.bainite_hv, found.martensite_s, found.bainite_s
    (443.0, 228.0, 1.167, 98.89)
    """
    share = composition.get
    carbon = composition["C"]
    si, mn, cu, ni = share("Si", 0.0), share("Mn", 0.0), share("Cu", 0.0), share("Ni", 0.0)
    cr, mo = share("Cr", 0.0), share("Mo", 0.0)
    fixed = carbon if carbon <= 0.3 else carbon / 6 + 0.25
    chromium = cr * (1 - 0.16 * math.sqrt(cr)) / 8
    ce_i = fixed + si / 24 + mn / 6 + cu / 15 + ni / 12 + chromium + mo / 4 + _boron(composition)
    micro = share("V", 0.0) / 5 + share("Nb", 0.0) / 3
    ce_ii = carbon + si / 24 + mn / 5 + cu / 10 + ni / 18 + cr / 5 + mo / 2.5 + micro
    ce_iii = fixed + mn / 3.6 + cu / 20 + ni / 9 + cr / 5 + mo / 4
    return Yurioka(
        ce_i,
        ce_ii,
        ce_iii,
        martensite_hv=884 * carbon * (1 - 0.3 * carbon**2) + 294,
        bainite_hv=145 + 130 * math.tanh(2.65 * ce_ii - 0.69),
        martensite_s=math.exp(10.6 * ce_i - 4.8),
        bainite_s=math.exp(6.2 * ce_iii + 0.74),
    )


def yurioka_hardness(composition: Composition, t85_s: float) -> Hardness | None:
    """Return the hardness of the heat-affected zone by Yurioka; `None` where his times cross, which says nothing.

    Parameters
    ----------
    composition : shares [% by mass] with carbon; what is not stated counts as 0
    t85_s : cooling time from 800 to 500 °C [s]

    Raises
    ------
    InputError : the time is not above 0

    Validity
    --------
    As `yurioka`; scatter about ±30 HV.

    Sources
    -------
    Yurioka, Okumura, Kasuya and Cotton 1987, Metal Construction 19(4), from memory, M.

    Examples
    --------
    >>> steel = {"C": 0.17, "Si": 0.35, "Mn": 1.42, "Cr": 0.12, "Mo": 0.03}
    >>> steel |= {"V": 0.04, "Ni": 0.15, "Cu": 0.18, "Nb": 0.02}
    >>> yurioka_hardness(steel, 8).hv
    360.9
    """
    require_above_zero(t85_s=t85_s)
    of = yurioka(composition)
    if not of.bainite_s > of.martensite_s:
        return None
    x = 4 * math.log(t85_s / of.martensite_s) / math.log(of.bainite_s / of.martensite_s) - 2
    middle, half = (of.martensite_hv + of.bainite_hv) / 2, (of.martensite_hv - of.bainite_hv) / 2.2
    return _held(middle - half * math.atan(x), of.bainite_hv, of.martensite_hv)


def duren_hardness(composition: Composition, t85_s: float) -> Hardness | None:
    """Return the hardness of the heat-affected zone by Düren; `None` where bainite comes out harder than martensite.

    Parameters
    ----------
    composition : shares [% by mass] with carbon; what is not stated counts as 0
    t85_s : cooling time from 800 to 500 °C [s]

    Raises
    ------
    InputError : the time is not above 0

    Validity
    --------
    Low-carbon structural and line-pipe steel, single pass, not tempered by later ones; scatter about ±30 HV.

    Sources
    -------
    Düren 1981; Lorenz and Düren, from memory, M.

    Examples
    --------
    >>> steel = {"C": 0.17, "Si": 0.35, "Mn": 1.42, "Cr": 0.12, "Mo": 0.03, "V": 0.04, "Ni": 0.15, "Cu": 0.18}
    >>> duren_hardness(steel, 8).hv, duren_hardness(steel, 3).raw_hv, duren_hardness(steel, 3).hv
    (376.4, 472.0, 441.3)
    """
    require_above_zero(t85_s=t85_s)
    share = composition.get
    carbon = composition["C"]
    alloy = share("Si", 0.0) / 11 + share("Mn", 0.0) / 8 + share("Cu", 0.0) / 9 + share("Cr", 0.0) / 5
    alloy += share("Ni", 0.0) / 17 + share("Mo", 0.0) / 6 + share("V", 0.0) / 3
    log = math.log10(t85_s)
    raw = 2019 * (carbon * (1 - 0.5 * log) + 0.3 * alloy) + 66 * (1 - 0.8 * log)
    return _held(raw, 350 * (carbon + alloy) + 101, 802 * carbon + 305)


def _boron(composition: Composition) -> float:
    """Return what boron adds to the first equivalent of Yurioka: less where nitrogen binds it."""
    ppm = 1e4 * composition.get("B", 0.0)
    free = max(0.0, (0.02 - composition.get("N", 0.0)) / 0.02)
    return free * min(max(0.03 * (ppm - 1), 0.0), 0.09)  # 0, 0.03, 0.06, 0.09 at 1, 2, 3 and 4 ppm


def _held(raw: float, bainite: float, martensite: float) -> Hardness | None:
    if not bainite < martensite:
        return None
    return Hardness(min(max(raw, bainite), martensite), raw, bainite, martensite)
