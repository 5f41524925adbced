"""Least preheat that construction codes ask for a joint, from their tables; what is not known leaves two readings."""

from collections.abc import Iterator, Sequence
from typing import Literal

from msgspec import Struct

from anlage.core.toml_rows import whole_table

Units = Literal["si", "us"]
ANY = "*"
MM_PER_INCH, MPA_PER_KSI = 25.4, 6.894757


class Limits(Struct, frozen=True, forbid_unknown_fields=True):
    """One limit as printed in both unit systems: mm or MPa or °C, and inches, ksi or °F."""

    si: float
    us: float


class ConstructionCode(Struct, frozen=True, forbid_unknown_fields=True):
    """A code that asks for preheat; `binding` is false where its table only advises."""

    id: str
    word: str
    clause: str
    binding: bool


class Row(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """One row: for which P-Number, over and up to which thickness, strength, carbon, chromium; and what it asks."""

    code: str
    p_number: str
    least: Limits
    confidence: str
    over: Limits | None = None
    to: Limits | None = None
    smts_over: Limits | None = None
    smts_to: Limits | None = None
    carbon_over: float | None = None
    carbon_to: float | None = None
    cr_over: float | None = None
    interpass: float | None = None


class CodePreheat(Struct, frozen=True, forbid_unknown_fields=True):
    """All codes and their rows."""

    code: tuple[ConstructionCode, ...]
    row: tuple[Row, ...]


class PartFacts(Struct, frozen=True):
    """One side of a joint as the tables ask: P-Number, thickness of the thicker part, strength, carbon, chromium."""

    p_number: str
    thickness_mm: float | None
    smts_mpa: float | None
    carbon: float | None
    chromium: float | None


class CodeMinimum(Struct, frozen=True):
    """What a code asks [°C]: `low_c` is sure, `high_c` what it may ask where a fact is not known (`lacks`)."""

    code: ConstructionCode
    low_c: float
    high_c: float
    confidence: str
    lacks: tuple[str, ...] = ()
    interpass_c: float | None = None


def read_code_preheat(text: str) -> CodePreheat:
    """Return the tables as written in `text` (TOML)."""
    return whole_table(text, CodePreheat, where="code_preheat.toml")


def code_minimum(code: str, parts: Sequence[PartFacts], *, units: Units, tables: CodePreheat) -> CodeMinimum | None:
    """Return the least preheat that a code asks for a joint of some parts; `None` where it says nothing of one of them.

    Parameters
    ----------
    code : its id
    parts : both sides, each by itself; the highest holds
    units : whose column is read
    tables : from `read_code_preheat`

    Validity
    --------
    P-Numbers that the table lists; the thickness is that of the thicker part.

    Sources
    -------
    ASME B31.3 Table 330.1.1 (2014 and later), B31.1 para. 131.4, VIII-1 Appendix R; from memory, H to M.

    Examples
    --------
    >>> from anlage.data.metal_tables import code_preheat
    >>> steel = PartFacts("1", 30, 485, 0.35, None)
    >>> code_minimum("b31.3", [steel], units="si", tables=code_preheat()).high_c
    95.0
    """
    head = next(each for each in tables.code if each.id == code)
    found = [_of_part(code, part, units, tables.row) for part in parts]
    if not found or None in found:
        return None
    known = [each for each in found if each is not None]
    interpass = [each.interpass_c for each in known if each.interpass_c is not None]
    return CodeMinimum(
        head,
        max(each.low_c for each in known),
        max(each.high_c for each in known),
        max((each.confidence for each in known), key="HML".index),
        tuple(dict.fromkeys(lack for each in known for lack in each.lacks)),
        min(interpass, default=None),
    )


class _Found(Struct, frozen=True):
    low_c: float
    high_c: float
    confidence: str
    lacks: tuple[str, ...]
    interpass_c: float | None


def _of_part(code: str, part: PartFacts, units: Units, rows: Sequence[Row]) -> _Found | None:
    own = [row for row in rows if row.code == code and row.p_number == part.p_number]
    own = own or [row for row in rows if row.code == code and row.p_number == ANY]
    sure, possible, lacks = [], [], []
    for row in own:
        unknown = [name for name, holds in _conditions(row, part, units) if holds is None]
        if any(holds is False for _, holds in _conditions(row, part, units)):
            continue
        possible.append(row)
        if unknown:
            lacks += unknown
        else:
            sure.append(row)
    if not possible:
        return None
    high = max(_celsius(row.least, units) for row in possible)
    low = max((_celsius(row.least, units) for row in sure), default=min(_celsius(row.least, units) for row in possible))
    governing = max(possible, key=lambda row: row.least.si)
    told = tuple(dict.fromkeys(lacks)) if high > low else ()
    return _Found(low, high, governing.confidence, told, governing.interpass)


def _conditions(row: Row, part: PartFacts, units: Units) -> Iterator[tuple[str, bool | None]]:
    size = None if part.thickness_mm is None else part.thickness_mm / (1.0 if units == "si" else MM_PER_INCH)
    strong = None if part.smts_mpa is None else part.smts_mpa / (1.0 if units == "si" else MPA_PER_KSI)
    pairs = (
        ("thickness", size, _column(row.over, units), _column(row.to, units)),
        ("tensile strength", strong, _column(row.smts_over, units), _column(row.smts_to, units)),
        ("carbon", part.carbon, row.carbon_over, row.carbon_to),
        ("chromium", part.chromium, row.cr_over, None),
    )
    for name, value, over, to in pairs:
        if over is not None:
            yield name, None if value is None else value > over * (1 + 1e-6)
        if to is not None:
            yield name, None if value is None else value <= to * (1 + 1e-6)


def _column(limits: Limits | None, units: Units) -> float | None:
    return None if limits is None else limits.si if units == "si" else limits.us


def _celsius(least: Limits, units: Units) -> float:
    return least.si if units == "si" else (least.us - 32) / 1.8
