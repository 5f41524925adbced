"""Preheat against cold cracking by the schools, each by itself: they disagree by tens of degrees; no averages.

Glossary
--------
HD : hydrogen that the deposit gives off, ISO 3690 [ml per 100 g of deposit]
H_GL : the same by the older glycerine method, which finds less
restraint intensity K : force per length of weld that closes the opening by one length [kgf/mm²]
"""

import math
from typing import Literal

from msgspec import Struct

from anlage.core.metal.composition import Composition
from anlage.core.results import require_above_zero

Restraint = Literal["low", "medium", "high"]
K_PER_MM = {"low": 25.0, "medium": 40.0, "high": 69.0}  # K over thickness; high is the y-groove test, up to 40 mm
Outside = tuple[str, float, float, float]  # what lies outside its range: name, value, least, most


class School(Struct, frozen=True):
    """What one school asks [°C], and what lies outside the range it was made for."""

    name: str
    preheat_c: float
    outside: tuple[Outside, ...]
    source: str
    confidence: str
    note: str = ""


class ItoBessyo(Struct, frozen=True):
    """What Ito and Bessyo ask by thickness (`p_c`) and, where restraint is stated, by restraint (`p_w`)."""

    p_c: float
    by_thickness_c: float
    p_w: float | None
    by_restraint_c: float | None
    k_kgf_mm2: float | None
    hydrogen_glycerine: float
    outside: tuple[Outside, ...]


def method_b(cet: float, *, thickness_mm: float, hydrogen: float, heat_input_kj_mm: float) -> School:
    """Return the preheat of method B of the standard, by CET.

    Parameters
    ----------
    cet : carbon equivalent CET that governs [%], from `governing_cet`
    thickness_mm : plate thickness d [mm]
    hydrogen : HD, the upper end of the class of the consumable [ml/100 g]
    heat_input_kj_mm : Q with the efficiency k, the lowest of its range [kJ/mm]

    Returns
    -------
    School : T_p = 697·CET + 160·tanh(d/35) + 62·HD^0.35 + (53·CET - 32)·Q - 328 [°C]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Yield up to 1000 MPa, CET 0.2 to 0.5, d 10 to 90 mm, HD 1 to 20 ml/100 g, Q 0.5 to 4.0 kJ/mm; residual stress about
    the yield strength.

    Sources
    -------
    EN 1011-2:2001 method B; Uwer and Höhne 1991; from memory, H.

    Examples
    --------
    >>> method_b(0.33375, thickness_mm=32, hydrogen=8, heat_input_kj_mm=1.4).preheat_c
    128.7
    """
    require_above_zero(cet=cet, thickness_mm=thickness_mm, hydrogen=hydrogen, heat_input_kj_mm=heat_input_kj_mm)
    preheat = 697 * cet + 160 * math.tanh(thickness_mm / 35) + 62 * hydrogen**0.35 - 328
    preheat += (53 * cet - 32) * heat_input_kj_mm
    outside = _outside(
        ("cet", cet, 0.2, 0.5),
        ("thickness", thickness_mm, 10, 90),
        ("hydrogen", hydrogen, 1, 20),
        ("heat_input", heat_input_kj_mm, 0.5, 4.0),
    )
    return School("en1011_2_cet", preheat, outside, "EN 1011-2:2001 method B, from memory", "H")


def ito_bessyo(
    pcm: float,
    *,
    thickness_mm: float,
    hydrogen: float,
    heat_input_kj_mm: float | None = None,
    restraint: Restraint | None = None,
) -> ItoBessyo:
    """Return the preheat of Ito and Bessyo against cracking from the root.

    Parameters
    ----------
    pcm : carbon equivalent Pcm [%]
    thickness_mm : plate thickness t [mm]
    hydrogen : HD by ISO 3690 [ml/100 g]; turned into H_GL = 0.64·HD - 0.93, never below 0
    heat_input_kj_mm : Q, only looked at whether it lies in the range [kJ/mm]
    restraint : low, medium or high, for K of 25, 40 or 69 times the thickness

    Returns
    -------
    ItoBessyo : T = 1440·P - 392 [°C] by P_c = Pcm + H_GL/60 + t/600 and P_w = Pcm + H_GL/60 + K/40000

    Raises
    ------
    InputError : Pcm, thickness or hydrogen is not above 0

    Validity
    --------
    t 19 to 50 mm, H_GL 1 to 5 ml/100 g, Q 1.7 to 3.0 kJ/mm, K 500 to 3300 kgf/mm²; root of a y-groove. The factors of K
    are M, of low restraint L.

    Sources
    -------
    Ito and Bessyo 1968, IIW IX-576-68 and IX-631-69, from memory, H; ranges M.

    Examples
    --------
    >>> found = ito_bessyo(0.27617, thickness_mm=32, hydrogen=8, restraint="medium")
    >>> found.by_thickness_c, found.by_restraint_c, found.k_kgf_mm2
    (183.0, 152.3, 1280.0)
    """
    require_above_zero(pcm=pcm, thickness_mm=thickness_mm, hydrogen=hydrogen)
    glycerine = max(0.64 * hydrogen - 0.93, 0.0)
    k = None if restraint is None else K_PER_MM[restraint] * thickness_mm
    p_c = pcm + glycerine / 60 + thickness_mm / 600
    p_w = None if k is None else pcm + glycerine / 60 + k / 40000
    ranges = [("thickness", thickness_mm, 19.0, 50.0), ("hydrogen_glycerine", glycerine, 1.0, 5.0)]
    ranges += [] if heat_input_kj_mm is None else [("heat_input", heat_input_kj_mm, 1.7, 3.0)]
    ranges += [] if k is None else [("k_kgf_mm2", k, 500.0, 3300.0)]
    return ItoBessyo(
        p_c, 1440 * p_c - 392, p_w, None if p_w is None else 1440 * p_w - 392, k, glycerine, _outside(*ranges)
    )


def seferian(composition: Composition, *, thickness_mm: float) -> float | None:
    """Return the preheat of Séférian [°C]; `None` without carbon and manganese, 0 where he asks for none.

    Parameters
    ----------
    composition : shares [% by mass]; what is not stated beside carbon and manganese counts as 0
    thickness_mm : plate thickness t [mm]

    Raises
    ------
    InputError : the thickness is not above 0

    Validity
    --------
    Carbon and low-alloy steel. Knows neither hydrogen nor heat input; too careful for low-hydrogen work on thick plate.

    Sources
    -------
    Séférian 1959, from memory, H.

    Examples
    --------
    >>> steel = {"C": 0.17, "Mn": 1.42, "Cr": 0.12, "Mo": 0.03, "Ni": 0.15}
    >>> seferian(steel, thickness_mm=32), seferian({"C": 0.05, "Mn": 0.4}, thickness_mm=10)
    (139.2, 0.0)
    """
    require_above_zero(thickness_mm=thickness_mm)
    if "C" not in composition or "Mn" not in composition:
        return None
    share = composition.get
    chemical = composition["C"] + (composition["Mn"] + share("Cr", 0.0)) / 9
    chemical += share("Ni", 0.0) / 18 + 7 * share("Mo", 0.0) / 90
    total = chemical * (1 + 0.005 * thickness_mm)
    return 350 * math.sqrt(total - 0.25) if total > 0.25 else 0.0


def governing_cet(parent: float, weld: float | None) -> tuple[float, str]:
    """Return the CET that method B takes, and why in a few words.

    Parameters
    ----------
    parent : CET of the parent metal [%]
    weld : CET of the weld metal [%]; `None` where it is not known, and the parent's is taken

    Validity
    --------
    Steel up to 1000 MPa yield.

    Sources
    -------
    EN 1011-2:2001 method B, from memory, H.

    Examples
    --------
    >>> governing_cet(0.33, 0.25)
    (0.33, 'the parent metal')
    >>> governing_cet(0.25, 0.24)
    (0.27, 'the weld metal and 0.03')
    """
    if weld is None:
        return parent, "the parent metal; the weld metal's is not known"
    if parent - weld >= 0.03 - 1e-9:
        return parent, "the parent metal"
    return weld + 0.03, "the weld metal and 0.03"


def combined_thickness(*thicknesses_mm: float, twin: bool = False) -> float:
    """Return how much metal draws the heat off: the thicknesses that meet, half where twin fillets are laid at once.

    Parameters
    ----------
    thicknesses_mm : of the parts that meet, each the mean over 75 mm from the weld [mm]; two at a butt, three at a tee
    twin : whether fillets directly opposed are laid at the same time

    Raises
    ------
    InputError : a thickness is not above 0

    Validity
    --------
    Method A of the standard; method B takes the thickness of one plate.

    Sources
    -------
    EN 1011-2:2001 method A, from memory, H.

    Examples
    --------
    >>> combined_thickness(20, 20), combined_thickness(20, 20, 12, twin=True)
    (40.0, 26.0)
    """
    require_above_zero(**{f"thickness_{n}_mm": each for n, each in enumerate(thicknesses_mm, 1)})
    return sum(thicknesses_mm) / (2 if twin else 1)


def _outside(*ranges: Outside) -> tuple[Outside, ...]:
    return tuple(each for each in ranges if not each[2] <= each[1] <= each[3])
