"""Pictures of a procedure by their name, as files: SVG, PDF and DXF."""

from collections.abc import Callable, Mapping
from types import MappingProxyType

from anlage.core.drawing import DisplayList, Measure
from anlage.core.drawing.page import on_page
from anlage.core.errors import InputError
from anlage.core.procedure import Wps, drawable
from anlage.core.quantities.units import System
from anlage.data.look import heat_colour, role_styles
from anlage.session.seam.heat import heat_span
from anlage.session.seam.sectors import sector_picture
from anlage.session.seam.stations import station_picture
from anlage.session.seam.stop_plan import stop_picture
from anlage.session.takes.design_picture import design_picture
from anlage.session.weld.node import cope_picture, node_picture
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import bead_picture, section_picture
from anlage.session.weld.positions import position_picture
from anlage.session.weld.weld_symbol import symbol_picture

PAPER_MM = (170.0, 120.0)
PICTURES = (
    "position",
    "section",
    "beads",
    "designs",
    "symbol",
    "stops",
    "node",
    "cope",
    "fit-up/PLACE",
    "sectors/PASS",
)


def picture_of(wps: Wps, name: str, system: System, measure: Measure) -> DisplayList:
    """Return a picture of a procedure for a sheet, without anything chosen in it.

    Raises
    ------
    InputError : the joint is not stated in full, or there is no such picture
    """
    if name == "position":
        return position_picture(wps, Sheet(*PAPER_MM, system, measure))
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
    span = heat_span(wps)

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
