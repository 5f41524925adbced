"""What a mill certificate says of a metal, as people type it or as a table has it: heat, elements, strength."""

import csv
import re
from collections.abc import Mapping
from io import StringIO

from msgspec import Struct

from anlage.core.errors import FormatError, InputError
from anlage.core.metal.composition import ELEMENTS, require_composition

_PAIR = re.compile(r"(R[pt]0\.?[25]|[A-Za-z]+)\s*[:=]?\s*(\d+(?:[.,]\d+)?)\s*(%|ppm|MPa|N/mm²|N/mm2)?", re.IGNORECASE)
_HEAT = re.compile(r"\s*(?:heat|cast|charge)\s*[:#]?\s*([A-Za-z0-9/-]+)\s*[:;,]?", re.IGNORECASE)
_YIELD, _TENSILE = ("reh", "re", "rp02", "rp0.2", "rt05", "rt0.5", "yield"), ("rm", "uts", "tensile")
_SPELLED = {name.casefold(): name for name in ELEMENTS}
PPM = 1e-4
MOST_MPA = 3000.0


class Certificate(Struct, frozen=True):
    """What was read: the heat, shares [% by mass], yield and tensile strength [MPa]."""

    heat: str
    composition: Mapping[str, float]
    yield_mpa: float | None = None
    tensile_mpa: float | None = None


def read_certificate(text: str) -> Certificate:
    """Return what a text such as `Heat 48213: C 0.17 Mn 1.42 B 4 ppm ReH 371` says.

    Raises
    ------
    InputError : something in it is neither an element with its share nor a strength; an element comes twice

    Examples
    --------
    >>> read_certificate("Heat 48213: C 0.17, Mn 1,42 B 4ppm ReH 371 MPa").composition
    {'C': 0.17, 'Mn': 1.42, 'B': 0.0004}
    """
    found = _HEAT.match(text)
    heat, rest = (found[1], text[found.end() :]) if found else ("", text)
    values: list[tuple[str, str, str]] = []
    at = 0
    for pair in _PAIR.finditer(rest):
        _nothing_between(rest[at : pair.start()])
        values.append((pair[1], pair[2].replace(",", "."), pair[3] or ""))
        at = pair.end()
    _nothing_between(rest[at:])
    return _certificate(heat, values)


def read_certificates(text: str, *, where: str) -> tuple[tuple[Certificate, ...], tuple[str, ...]]:
    """Return the certificates of a CSV table, a row a heat, and a sentence for each line that is none.

    The first line names the columns: `heat`, elements, `reh`, `rm`; a unit may stand in brackets, `B [ppm]`.

    Raises
    ------
    FormatError : there is no line of columns with an element in it
    """
    rows = list(csv.reader(StringIO(text)))
    columns = [_column(cell) for cell in rows[0]] if rows else []
    if not any(name.casefold() in _SPELLED for name, _ in columns):
        raise FormatError("names no elements", where=where, mend="begin with a line such as heat,C,Mn,Si")
    read, faults = (
        [],
        [f"{where}: column {name} is not known and was left out" for name, _ in columns if not _known(name)],
    )
    for line, row in enumerate(rows[1:], 2):
        if not any(cell.strip() for cell in row):
            continue
        pairs = [
            (*column, cell.strip().replace(",", "."))
            for column, cell in zip(columns, row, strict=False)
            if cell.strip()
        ]
        heat = next((value for name, _, value in pairs if name.casefold() == "heat"), "")
        values = [(name, value, unit) for name, unit, value in pairs if _known(name) and name.casefold() != "heat"]
        try:
            read.append(_certificate(heat, values))
        except InputError as fault:
            faults.append(f"{where} line {line}: {fault.where}: {fault.what}")
    return tuple(read), tuple(faults)


def written(certificate: Certificate) -> str:
    """Return a certificate as it is typed."""
    parts = [f"{name} {share:g}" for name, share in certificate.composition.items()]
    parts += [
        f"{name} {value:g}"
        for name, value in (("ReH", certificate.yield_mpa), ("Rm", certificate.tensile_mpa))
        if value
    ]
    return f"Heat {certificate.heat}: {' '.join(parts)}" if certificate.heat else " ".join(parts)


def _certificate(heat: str, values: list[tuple[str, str, str]]) -> Certificate:
    shares: dict[str, float] = {}
    strength: dict[str, float] = {}
    for name, text, unit in values:
        key = name.casefold()
        try:
            number = float(text)
        except ValueError as fault:
            raise InputError(f"{text} is no number", where=name, mend="write a number") from fault
        if key in _SPELLED:
            if unit.casefold() not in ("", "%", "ppm"):
                raise InputError(f"{unit} is no unit of a share", where=name, mend="state per cent by mass, or ppm")
            if _SPELLED[key] in shares:
                raise InputError("is stated twice", where=name, mend="state it once")
            shares[_SPELLED[key]] = number * PPM if unit.casefold() == "ppm" else number
        elif key in _YIELD or key in _TENSILE:
            if unit and unit.casefold() not in ("mpa", "n/mm²", "n/mm2"):
                raise InputError(f"{unit} is no unit of strength", where=name, mend="state MPa")
            if not 0 < number <= MOST_MPA:
                raise InputError(f"{number:g} MPa is no strength", where=name, mend="state MPa")
            strength["yield" if key in _YIELD else "tensile"] = number
        else:
            raise InputError("is no element and no strength", where=name, mend="write pairs such as C 0.17 Mn 1.42")
    if not shares:
        raise InputError("names no element", where="certificate", mend="write pairs such as C 0.17 Mn 1.42")
    require_composition(shares)
    return Certificate(heat, shares, strength.get("yield"), strength.get("tensile"))


def _column(cell: str) -> tuple[str, str]:
    name, _, unit = cell.strip().partition("[")
    return name.strip(), unit.strip().rstrip("]").strip()


def _known(name: str) -> bool:
    return name.casefold() in (*_SPELLED, *_YIELD, *_TENSILE, "heat")


def _nothing_between(text: str) -> None:
    left = text.strip(" \t\n,;.")
    if left:
        raise InputError(
            f"{left[:20]} is not understood", where="certificate", mend="write pairs such as C 0.17 Mn 1.42"
        )
