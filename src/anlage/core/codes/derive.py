"""Facts that follow from other facts: groups of a metal, numbers of a filler, the class of a heat treatment."""

import re
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass

from anlage.core.catalogue import Filler, MetalGroup
from anlage.core.codes.a_number import ANumberRow, a_numbers
from anlage.core.codes.facts import Fact, pair_token
from anlage.core.ranges import Interval

_CORED = re.compile(r"^E\d+C")
_FLUX_CORED = re.compile(r"^E\w*T\d?(?:-|\d)")


def metal_facts(one: MetalGroup, other: MetalGroup | None = None) -> dict[str, Fact]:
    """Return the facts of the base metals: the pair by P-Number, both ends, and the pair by P-Number and Group.

    A metal without P-Number stands for itself under its name, so that it is never taken for another.
    """
    other = other or one
    ends = [metal.p_number or metal.name for metal in (one, other)]
    facts: dict[str, Fact] = {"p_number": pair_token(*ends), "p_numbers": frozenset(ends)}
    if one.group_number and other.group_number:
        groups = (f"{end}-{metal.group_number}" for end, metal in zip(ends, (one, other), strict=True))
        facts["group_number"] = pair_token(*groups)
    return facts


def filler_facts(
    filler: Filler, *, deposit: Mapping[str, float] | None = None, table: tuple[ANumberRow, ...] = ()
) -> dict[str, Fact]:
    """Return the facts of a filler; with a deposit analysis the A-Number is derived from it, not taken as recorded.

    An A-Number that is unknown or hazy (L), or that the analysis leaves open, is no fact.
    """
    facts: dict[str, Fact] = {
        "filler_classification": filler.classification,
        "filler_present": "with",
        "product_form": product_form(filler.classification),
        "f_number": filler.f_number,
    }
    derived = a_numbers(deposit, table) if deposit else ()
    listed = "" if filler.confidence_of("a_number") in ("L", "unknown") else filler.a_number
    a_number = (derived[0] if len(derived) == 1 else "") if deposit else listed
    if a_number:
        facts["a_number"] = a_number
    return facts


def product_form(classification: str) -> str:
    """Return the product form a classification names: bare, metal-cored or flux-cored.

    Examples
    --------
    >>> product_form("ER70S-6"), product_form("E70C-6M"), product_form("E71T-1M")
    ('bare', 'metal-cored', 'flux-cored')
    """
    if _CORED.match(classification):
        return "metal-cored"
    return "flux-cored" if _FLUX_CORED.match(classification) else "bare"


@dataclass(frozen=True, slots=True)
class LowerTransformation:
    """Approximate lower transformation temperature of some P-Numbers [°C]."""

    p_numbers: frozenset[str]
    ltt_c: float
    source: str
    confidence: str


def read_lower_transformations(text: str) -> tuple[LowerTransformation, ...]:
    """Return the table written in `text` (TOML)."""
    rows = tomllib.loads(text)["row"]
    return tuple(LowerTransformation(frozenset(r["p_numbers"]), r["ltt_c"], r["source"], r["confidence"]) for r in rows)


def heat_treatment_class(
    temperature_c: Interval, p_numbers: frozenset[str], table: tuple[LowerTransformation, ...]
) -> str | None:
    """Return the class of a heat treatment stated as a temperature range: `below-ltt`, `range`, or `None` if open.

    Metals outside P-1…P-6 and P-9…P-15F have one class, a stated range. For the others a range that stays below
    the lower transformation temperature of both ends is `below-ltt`; a range that reaches it, or a metal whose
    temperature the table does not hold, is not classified.

    Sources
    -------
    ASME BPVC IX QW-407.1 (first class list H, others M); temperatures: see the table.
    """
    classed = {"1", "3", "4", "5", "6", "9", "10", "11", "15"}
    if p_numbers and all(not _leading(p) or (_leading(p) not in classed) or p == "10H" for p in p_numbers):
        return "range"
    limits = [row.ltt_c for p in p_numbers for row in table if p in row.p_numbers]
    if len(limits) == len(p_numbers) and limits and temperature_c.high < min(limits):
        return "below-ltt"
    return None


def _leading(p_number: str) -> str:
    match = re.match(r"\d+", p_number)
    return match[0] if match else ""
