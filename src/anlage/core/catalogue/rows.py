"""The rows of the shipped tables as frozen values, each field declared once, and the one reader of all of them.

A field is read by its type: `float | None` from a blank or a number, `tuple[str, ...]` from a list joined by `;`.
Every row carries `confidence` (H, M or L for the row as a whole) and `source`; `weaker_fields` names fields that
are less certain than their row.
"""

import csv
import math
from collections.abc import Callable, Mapping, Sequence
from io import StringIO
from types import MappingProxyType
from typing import Any, TypeVar

from msgspec import Struct
from msgspec.structs import fields

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


class SoldSize(Row, frozen=True, kw_only=True):
    """The two names of the size of one filler, of all that the table of settings says of it."""

    diameter_mm: float
    diameter_in: str


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
    own = [field for field in fields(row) if field.name not in _TOGETHER]
    missing = {field.name for field in own} - set(names) - {"source", "weaker_fields"}
    if missing:
        raise FormatError(f"no column {', '.join(sorted(missing))}", where=where, mend="add it to the header row")
    lines, cells = [], []
    for each in table:
        if each:
            lines.append(f"{where} line {table.line_num}")
            cells.append(each + [""] * (len(names) - len(each)))
    found = _Cells(lines, dict(zip(names, zip(*cells, strict=False), strict=False)))
    columns = {field.name: _READERS[_kind_name(str(field.type))](found, field.name) for field in own}
    columns |= {field.name: _TOGETHER[field.name](found) for field in fields(row) if field.name in _TOGETHER}
    for line, confidence in zip(lines, columns["confidence"], strict=True):
        if confidence not in ("H", "M", "L"):
            raise FormatError("the row has no confidence", where=line, mend="write H, M or L")
    return tuple(row(**dict(zip(columns, values, strict=True))) for values in zip(*columns.values(), strict=True))


class _Cells:
    """The cells of a table, column by column: thousands of them are read at every start."""

    def __init__(self, lines: Sequence[str], columns: Mapping[str, Sequence[str]]) -> None:
        self.lines, self.columns = lines, columns

    def texts(self, name: str) -> Sequence[str]:
        """Return the cells of a column, blank where the table has none of that name."""
        return self.columns.get(name) or ("",) * len(self.lines)

    def lists(self, name: str) -> Sequence[tuple[str, ...]]:
        """Return the cells of a column as lists joined by `;`."""
        return [tuple(filter(None, text.split(";"))) if text else () for text in self.texts(name)]

    def optional(self, name: str) -> Sequence[float | None]:
        """Return the cells of a column as numbers, `None` where blank."""
        return self.numbers(name, blank=None)

    def numbers(self, name: str, *, blank: float | None = math.nan, of: str = "") -> Sequence[float | None]:
        """Return the cells of a column as numbers, `blank` where nothing stands.

        Raises
        ------
        FormatError : a cell is no number, told as one of the column, or `of` what the column is about
        """
        texts = self.texts(name)
        try:
            found = [float(text) if text else blank for text in texts]
        except ValueError:
            found = [_as_number(text) if text else blank for text in texts]
        for line, text, value in zip(self.lines, texts, found, strict=True):
            if value is not None and not math.isfinite(value):
                mend = "write it with a decimal point"
                raise FormatError(f"{of or name} {text!r} is not a number", where=line, mend=mend)
        return found

    def parts(self, columns: Mapping[str, str]) -> Sequence[Mapping[str, float]]:
        """Return for each row the shares above zero of the parts that have a column."""
        there = {
            part: self.numbers(column, blank=0.0, of=part)
            for part, column in columns.items() if column in self.columns
        }  # fmt: skip
        rows = zip(*there.values(), strict=True) if there else ((),) * len(self.lines)
        return [
            MappingProxyType({part: share for part, share in zip(there, row, strict=True) if share}) for row in rows
        ]

    def composition(self) -> Sequence[Mapping[str, float]]:
        """Return for each row its elements; their columns may be spelled small."""
        return self.parts({each: each if each in self.columns else each.lower() for each in ELEMENTS})


def _as_number(text: str) -> float:
    try:
        return float(text)
    except ValueError:
        return math.nan


def _kind_name(kind: str) -> str:
    if "tuple" in kind:
        return "tuple"
    if "None" in kind:
        return "optional"
    return "float" if "float" in kind else "str"


_READERS: Mapping[str, Callable[[_Cells, str], Sequence[Any]]] = MappingProxyType(
    {"tuple": _Cells.lists, "optional": _Cells.optional, "float": _Cells.numbers, "str": _Cells.texts}
)
_TOGETHER: Mapping[str, Callable[[_Cells], Sequence[Any]]] = MappingProxyType({  # fields that several columns fill
    "composition": _Cells.composition,
    "components": lambda found: found.parts({gas: f"{gas.lower()}_pct" for gas in GAS_COMPONENTS}),
})  # fmt: skip
