"""`calc hardness`: hardness of the heat-affected zone beside a single pass, by two models."""

from typing import Any

from anlage.core.metal.composition import ELEMENTS
from anlage.core.ranges import Interval
from anlage.core.results import Notice
from anlage.core.thermal.hardness import (
    DUREN,
    SCATTER_HV,
    YURIOKA,
    YURIOKA_MOST,
    Hardness,
    duren_hardness,
    yurioka,
    yurioka_hardness,
)
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import outside_notice, over_stated, stated_composition

KEYS = (*ELEMENTS, "t85")
COUNTED = ("C", "Si", "Mn", "Cu", "Ni", "Cr", "Mo", "V", "Nb", "B", "N")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc hardness`."""
    arguments.need("t85")
    composition = {n: s for n, s in stated_composition(arguments, "C", "Mn").items() if n in COUNTED}
    time = arguments.interval("t85", "time")
    held: dict[str, None] = {}

    def formula(t85: float, **shares: float) -> dict[str, float | None]:
        found = {"yurioka_hv": yurioka_hardness(shares, t85), "duren_hv": duren_hardness(shares, t85)}
        held.update({name: None for name, each in found.items() if each is not None and each.is_held})
        return {name: _hv(each) for name, each in found.items()}

    found = over_stated(formula, {**composition, "t85": time})
    ends = over_stated(lambda **shares: _yurioka_values(shares), composition)
    values: dict[str, Any] = {name: number_or_interval(value) for name, value in found.items()}
    values["yurioka"] = {name: number_or_interval(value) for name, value in ends.items()}
    values["held"] = list(held)
    lines = [("Yurioka", shown("_hv", found["yurioka_hv"])), ("Düren", shown("_hv", found["duren_hv"]))]
    lines = [(name, text if text == "unknown" else f"{text} HV10") for name, text in lines]
    notices = [
        outside_notice("Yurioka", name, composition[name], (0.0, most))
        for name, most in YURIOKA_MOST.items()
        if name in composition and composition[name].high > most
    ]
    notices += _minding(found, held)
    missing = [name for name in COUNTED if name not in composition]
    if missing:
        text = f"{', '.join(missing)} not stated, counted as 0"
        notices.append(Notice("composition.counted_as_none", missing[0], text))
    return Answer(values, lines, [YURIOKA, DUREN], notices)


def _minding(found: dict[str, Interval | None], held: dict[str, None]) -> list[Notice]:
    notices = [Notice("hardness.scatter", "t85", f"± {SCATTER_HV:g} HV; one pass, not tempered by later ones")]
    words = {"yurioka_hv": "Yurioka", "duren_hv": "Düren"}
    for name in held:
        text = f"{words[name]} runs over its end here and is held between all bainite and all martensite"
        notices.append(Notice("hardness.held", name, text))
    for name, value in found.items():
        if value is None:
            text = f"{words[name]} says nothing of this steel: its martensite and bainite cross"
            notices.append(Notice("hardness.no_number", name, text))
    return notices


def _yurioka_values(shares: dict[str, float]) -> dict[str, float | None]:
    found = yurioka(shares)
    return {
        "ce_i": found.ce_i,
        "ce_ii": found.ce_ii,
        "ce_iii": found.ce_iii,
        "hm_hv": found.martensite_hv,
        "hb_hv": found.bainite_hv,
        "tau_m_s": found.martensite_s,
        "tau_b_s": found.bainite_s,
    }


def _hv(found: Hardness | None) -> float | None:
    return None if found is None else found.hv
