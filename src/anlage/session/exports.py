"""Pictures and tables of a procedure as files: SVG, PDF and DXF; CSV and XLSX."""

from collections.abc import Callable, Mapping
from pathlib import Path
from types import MappingProxyType

from anlage.core.drawing import DisplayList, Measure, on_page
from anlage.core.errors import FormatError, InputError
from anlage.core.procedure import Wps, pass_energy
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.look import heat_colour, role_styles
from anlage.data.tables import unit_table
from anlage.formats.tables import Cell, Table, as_csv
from anlage.session.bead_areas import bead_area
from anlage.session.beads import bead_layout
from anlage.session.fields import field_of
from anlage.session.figures import deposit_of
from anlage.session.joint_pictures import design_picture, symbol_picture
from anlage.session.node import cope_picture, node_picture
from anlage.session.pictures import Sheet, bead_picture, drawable, heat_span, section_picture
from anlage.session.sectors import sector_heat, sector_picture
from anlage.session.stations import station_picture
from anlage.session.stop_plan import stop_picture
from anlage.session.takes import takes_sections

PAPER_MM = (170.0, 120.0)
PICTURES = ("section", "beads", "designs", "symbol", "stops", "node", "cope", "fit-up/PLACE", "sectors/PASS")
ENDINGS = (".svg", ".pdf", ".dxf", ".csv", ".xlsx")


def picture_of(wps: Wps, name: str, system: System, measure: Measure) -> DisplayList:
    """Return a picture of a procedure for a sheet, without anything chosen in it.

    Raises
    ------
    InputError : the joint is not stated in full, or there is no such picture
    """
    sketch = drawable(wps.joint)
    if sketch is None or sketch.incomplete:
        raise InputError("the joint is not stated in full", where=name, mend="state it at Joint first")
    kind, _, which = name.partition("/")
    if kind not in _MAKERS:
        raise InputError(f"{name} is no picture", where="picture", mend=f"take one of {', '.join(PICTURES)}")
    make, missing, mend = _MAKERS[kind]
    found = make(wps, which, Sheet(*PAPER_MM, system, measure))
    if found is None:
        raise InputError(missing, where=name, mend=mend)
    return found


def _section(wps: Wps, _which: str, sheet: Sheet) -> DisplayList | None:
    sketch = drawable(wps.joint)
    return None if sketch is None else section_picture(sketch, sheet)


def _at_station(wps: Wps, which: str, sheet: Sheet) -> DisplayList | None:
    """Return the beads as they lie at a station, named by its place or its id."""
    found = next((each for each in wps.stations if which in (each.id, each.place)), None)
    return None if found is None else station_picture(wps, found, "", sheet)


def _pass_id(wps: Wps, which: str) -> str:
    """Return the id of a pass named by its number or its id; "" for none."""
    return next((each.id for n, each in enumerate(wps.passes, 1) if which in (each.id, str(n))), "")


Maker = Callable[[Wps, str, Sheet], DisplayList | None]
_STATE = ("the joint is not stated in full", "state it at Joint first")
_NODE = ("the joint is no node of tubes that can be made", "state it at Joint")
_MAKERS: Mapping[str, tuple[Maker, str, str]] = MappingProxyType({
    "section": (_section, *_STATE),
    "beads": (lambda wps, _which, sheet: bead_picture(wps, "", sheet), *_STATE),
    "designs": (lambda wps, _which, sheet: design_picture(wps, sheet), *_STATE),
    "symbol": (lambda wps, _which, sheet: symbol_picture(wps, sheet.system, sheet.measure), *_STATE),
    "stops": (lambda wps, _which, sheet: stop_picture(wps, "", sheet), "there is no pass yet",
              "add passes, or fill the joint"),
    "node": (lambda wps, _which, sheet: node_picture(wps, "", sheet), *_NODE),
    "cope": (lambda wps, _which, sheet: cope_picture(wps, sheet, true_size=True), *_NODE),
    "fit-up": (_at_station, "there is no such station", "name one by its place"),
    "sectors": (lambda wps, which, sheet: sector_picture(wps, _pass_id(wps, which), sheet), "there is no such pass",
                "name one by its number"),
})  # fmt: skip


def picture_file(wps: Wps, name: str, ending: str, system: System, measure: Measure) -> bytes:
    """Return a picture as a file of an ending, `.svg`, `.pdf` or `.dxf`.

    Raises
    ------
    InputError : the joint is not stated in full, or nothing is written with that ending
    """
    picture = picture_of(wps, name, system, measure)
    kind, _, which = name.partition("/")
    span = sector_heat(wps, _pass_id(wps, which)) if kind == "sectors" else heat_span(wps)

    def heat(value: float) -> str:
        assert span is not None, "a heat has a span"
        return heat_colour(value, coldest=span[0], hottest=span[1])

    if ending == ".svg":
        from anlage.formats.svg import svg

        return svg(picture, role_styles("light"), ground="#FFFFFF", heat=heat if span else None).encode("utf-8")
    if ending == ".pdf":
        from anlage.formats.pdf import pdf

        return pdf([on_page(picture)], title=f"{wps.header.number} {name}".strip(), heat=heat if span else None)
    if ending == ".dxf":
        from anlage.formats.dxf import dxf

        return dxf(picture)
    raise InputError(
        f"nothing is written as {ending or 'a file without ending'}", where="file", mend="take .svg, .pdf or .dxf"
    )


# Tables --------------------------------------------------------------------------------------

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
        deposit = deposit_of(wps, each)
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


def save(path: Path, make: Callable[[], bytes]) -> None:
    """Write a file that is made first, so that a refusal leaves nothing behind.

    Raises
    ------
    FormatError : the file cannot be written
    """
    data = make()
    try:
        path.write_bytes(data)
    except OSError as fault:
        raise FormatError("it cannot be written", where=path.name, mend="choose a folder you can write") from fault
