"""Tables of a procedure as files: its passes and what they take, CSV and XLSX."""

from collections.abc import Mapping

from anlage.core.errors import InputError
from anlage.core.procedure import Wps, deposit_of_pass, pass_energy
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.formats.tables import Cell, Table, as_csv
from anlage.session.leaves.table import field_of
from anlage.session.takes.takes import takes_sections
from anlage.session.weld.bead_areas import bead_area
from anlage.session.weld.beads import bead_layout

_COLUMNS = ("current_a", "voltage_v", "travel_speed_mm_min", "wire_speed_mm_min", "thickness_mm")


def pass_table(wps: Wps, system: System) -> Table:
    """Return the passes as a table: numbers in the reader's units, ranges as least and most."""
    units = unit_table()
    head = ["Pass", "Role", "Process", "Filler", "Side", "Layer"]
    for leaf in _COLUMNS:
        field = field_of(f"passes/*/{leaf}")
        head += [f"{field.label} {end}, {field.unit(system)}" for end in ("least", "most")]
    energy, area = (units[kind].shown_in[system][0] for kind in ("heat_input", "area"))
    head += [f"Arc energy {end}, {energy.name}" for end in ("least", "most")]
    head += [f"Bead area, {area.name}", "Note"]
    found = bead_layout(wps)
    layers = {bead.key: bead.layer for bead in found.beads} if found else {}
    rows = []
    for number, each in enumerate(wps.passes, 1):
        deposit = deposit_of_pass(wps, each)
        row: list[Cell] = [number, each.role, deposit.process, deposit.filler, each.side, layers.get(each.id)]
        for leaf in _COLUMNS:
            factor = units[field_of(f"passes/*/{leaf}").kind].shown_in[system][0].factor
            row += _ends(getattr(each, leaf), factor)
        spent, bead = pass_energy(each), bead_area(deposit, each)
        row += _ends(spent.interval if spent else None, energy.factor)
        row += [_rounded(bead.middle / area.factor) if bead else None, each.note]
        rows.append(tuple(row))
    return Table("Passes", tuple(head), tuple(rows))


def _ends(span: Interval | None, factor: float) -> list[Cell]:
    return [None, None] if span is None else [_rounded(span.low / factor), _rounded(span.high / factor)]


def _rounded(value: float) -> float:
    return float(f"{value:.6g}")


def takes_table(wps: Wps, rates: Mapping[str, float], system: System) -> Table:
    """Return what the weld takes as a table."""
    sections = takes_sections(wps, rates, system)
    rows = tuple((each.title, figure.name, figure.text, figure.origin) for each in sections for figure in each.figures)
    return Table("What it takes", ("Group", "What", "How much", "Worked out from"), rows)


def table_file(wps: Wps, ending: str, system: System, rates: Mapping[str, float]) -> bytes:
    """Return the passes as CSV, or passes and what they take as a workbook.

    Raises
    ------
    InputError : nothing is written with that ending
    """
    if ending == ".csv":
        return as_csv(pass_table(wps, system))
    if ending == ".xlsx":
        from anlage.formats.xlsx import as_xlsx

        return as_xlsx([pass_table(wps, system), takes_table(wps, rates, system)])
    raise InputError(
        f"nothing is written as {ending or 'a file without ending'}", where="file", mend="take .csv or .xlsx"
    )
