"""The rows of the shipped tables as frozen values, each field declared once, and the one reader of all of them.

A field is read by its type: `float | None` from a blank or a number, `tuple[str, ...]` from a list joined by `;`.
Every row carries `confidence` (H, M or L for the row as a whole) and `source`; `weaker_fields` names fields that
are less certain than their row.
"""

import csv
import math
from collections.abc import Callable, Iterator, Mapping
from io import StringIO
from types import MappingProxyType
from typing import Any, TypeVar

from msgspec import Struct
from msgspec.structs import FieldInfo, fields

from anlage.core.errors import FormatError

ELEMENTS = ("C", "Mn", "Si", "P", "S", "Cr", "Mo", "Ni", "Cu", "V", "Nb", "Ti", "Al", "B", "N")
GAS_COMPONENTS = ("Ar", "He", "CO2", "O2", "H2", "N2")


class Row(Struct, frozen=True, kw_only=True):
    """What every row of a catalogue table has."""

    confidence: str
    source: str = ""
    weaker_fields: tuple[str, ...] = ()

    def confidence_of(self, field: str) -> str:
        """Return the confidence of one field: its own where it is weaker than the row's."""
        weaker = dict(entry.split(":", 1) for entry in self.weaker_fields)
        return weaker.get(field, self.confidence)[:1] if weaker.get(field) != "unknown" else "unknown"


class BaseMetal(Row, frozen=True, kw_only=True):
    """One grade in one product form and thickness band; composition is the specified maximum [% by mass]."""

    id: str
    spec: str
    grade: str
    uns_or_en: str
    product_form: str
    family: str
    p_number: str
    p_group: str
    iso15608_group: str
    d1_1_group: str
    smys_mpa: float | None
    smts_mpa: float | None
    smts_max_mpa: float | None
    composition: Mapping[str, float]


class PNumberRow(Row, frozen=True, kw_only=True):
    """One metal of ASME IX QW/QB-422 with its P-Number, group and minimum tensile strength."""

    spec: str
    grade: str
    uns: str
    smts_ksi: float | None
    smts_mpa: float | None
    p_number: str
    group_number: str
    note: str

    @property
    def id(self) -> str:
        """Its name: specification and grade."""
        return f"{self.spec} {self.grade}".strip()


class Filler(Row, frozen=True, kw_only=True):
    """One filler classification; composition is a typical analysis of `comp_basis` [% by mass]."""

    classification: str
    aws_spec: str
    iso_designation: str
    processes: tuple[str, ...]
    f_number: str
    a_number: str
    smts_ksi: float | None
    smts_mpa: float | None
    smys_ksi: float | None
    smys_mpa: float | None
    hydrogen_class: str
    currents: tuple[str, ...]
    positions: str
    progression: tuple[str, ...]
    shielding: str
    comp_basis: str
    composition: Mapping[str, float]
    density_g_cm3: float | None
    deposition_efficiency_percent: float | None
    api1104_group: str
    family: str
    notes: str


class FillerCurrent(Row, frozen=True, kw_only=True):
    """Usual settings of one filler size: a plausibility window, never a limit."""

    classification: str
    process: str
    mode: str
    diameter_mm: float
    diameter_in: str
    amps_min: float
    amps_max: float
    volts_min: float | None
    volts_max: float | None
    wire_speed_min_m_min: float | None
    wire_speed_max_m_min: float | None
    deposition_kg_h_typical: float | None
    at_amps: float | None
    at_wire_speed_m_min: float | None
    electrode_length_mm: float | None
    stub_mm: float | None
    electrode_efficiency_percent: float | None


class Gas(Row, frozen=True, kw_only=True):
    """One shielding, backing or plasma gas; components in % by volume, together 100."""

    id: str
    aws_a5_32_1997: str
    iso_14175_group: str
    iso_14175_designation: str
    role: tuple[str, ...]
    processes: tuple[str, ...]
    flow_min_l_min: float | None
    flow_max_l_min: float | None
    components: Mapping[str, float]


class PipeSize(Row, frozen=True, kw_only=True):
    """One pipe by nominal size and schedule [mm, in]."""

    nps: str
    schedule: str
    dn: str
    od_mm: float
    od_in: float
    wall_mm: float
    wall_in: float
    standard: str

    @property
    def bore_mm(self) -> float:
        """Inside diameter [mm]."""
        return self.od_mm - 2 * self.wall_mm


class ProcessLimits(Row, frozen=True, kw_only=True):
    """Thermal efficiency and plausibility windows of one process variant."""

    id: str
    process: str
    variant: str
    iso_4063: tuple[str, ...]
    thermal_efficiency_en1011_1: float | None
    volts_min: float
    volts_max: float
    amps_min: float
    amps_max: float
    travel_min_mm_min: float
    travel_max_mm_min: float
    operating_factor_manual_min_pct: float | None
    operating_factor_manual_max_pct: float | None


class Tungsten(Row, frozen=True, kw_only=True):
    """Usual currents of one tungsten electrode size [A]: a plausibility window, never a limit."""

    iso_6848: str
    aws_a5_12: str
    colour: str
    oxide: str
    diameter_mm: float
    diameter_in: str
    dcen_amps_min: float | None
    dcen_amps_max: float | None
    ac_amps_min: float | None
    ac_amps_max: float | None
    suits: str
    notes: str


AnyRow = TypeVar("AnyRow", bound=Row)


def read_rows(text: str, row: type[AnyRow], *, where: str) -> tuple[AnyRow, ...]:
    """Return the rows of a CSV table, in the order of the file.

    Raises
    ------
    FormatError : a column is missing, a number cannot be read, or a row has no confidence
    """
    table = csv.reader(StringIO(text))
    names = next(table, [])
    declared = [field for field in fields(row) if field.name not in ("composition", "components")]
    missing = {field.name for field in declared} - set(names) - {"source", "weaker_fields"}
    if missing:
        raise FormatError(f"no column {', '.join(sorted(missing))}", where=where, mend="add it to the header row")
    return tuple(_rows(table, names, row, declared, where))


def _rows(table: Any, names: list[str], row: type[AnyRow], declared: list[FieldInfo], where: str) -> Iterator[AnyRow]:
    places = {name: place for place, name in enumerate(names)}
    readers = [(field.name, places.get(field.name), _READERS[_kind_name(str(field.type))]) for field in declared]
    mixed = {field.name for field in fields(row)} & {"composition", "components"}
    elements = {el: el if el in names else el.lower() for el in ELEMENTS}
    gases = {gas: f"{gas.lower()}_pct" for gas in GAS_COMPONENTS}
    for cells in table:
        if not cells:
            continue
        line = cells + [""] * (len(names) - len(cells))
        here = f"{where} line {table.line_num}"
        values = {name: reader("" if at is None else line[at], name, here) for name, at, reader in readers}
        if "composition" in mixed:
            values["composition"] = _parts(line, places, elements, here)
        if "components" in mixed:
            values["components"] = _parts(line, places, gases, here)
        if values["confidence"] not in ("H", "M", "L"):
            raise FormatError("the row has no confidence", where=here, mend="write H, M or L")
        yield row(**values)


def _parts(line: list[str], places: Mapping[str, int], columns: Mapping[str, str], where: str) -> Mapping[str, float]:
    stated = {part: line[places[column]] for part, column in columns.items() if column in places}
    found = {part: _number(text, part, where) for part, text in stated.items() if text}
    return MappingProxyType({part: amount for part, amount in found.items() if amount})


def _kind_name(kind: str) -> str:
    if "tuple" in kind:
        return "tuple"
    if "None" in kind:
        return "optional"
    return "float" if "float" in kind else "str"


def _number(text: str, name: str, where: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise FormatError(f"{name} {text!r} is not a number", where=where, mend="write it with a decimal point")
    return value


_READERS: Mapping[str, Callable[[str, str, str], Any]] = MappingProxyType(
    {
        "tuple": lambda text, _name, _where: tuple(filter(None, text.split(";"))),
        "optional": lambda text, name, where: _number(text, name, where) if text else None,
        "float": _number,
        "str": lambda text, _name, _where: text,
    }
)
