"""The preheat that is asked as a picture: a row a school and code over one axis, what is chosen as lines to drag."""

from anlage.core.drawing import DisplayList
from anlage.core.drawing.thermometer import AskRow, Axis, Chosen, thermometer
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.thermal.crayons import CrayonPair, crayon_pair
from anlage.data.metal_tables import crayons
from anlage.session.heat.asks import Ask, PreheatView
from anlage.session.heat.scales import in_reader, scale
from anlage.session.weld.picture_sheet import Sheet

ROOM_C = 30.0  # a warm workshop: up to here the least is read with a thermometer, no crayon melts so low
LEAST, MOST = "preheat/minimum_c", "preheat/interpass_maximum_c"


def ask_rows(view: PreheatView, system: System) -> tuple[AskRow, ...]:
    """Return a row for everything that asks, what says nothing last."""
    ordered = sorted(view.asks, key=lambda ask: (ask.high_c is None, -(ask.high_c or 0.0)))
    return tuple(_row(ask, view, system) for ask in ordered)


def chosen_lines(view: PreheatView, system: System) -> tuple[Chosen, ...]:
    """Return the two lines that are dragged."""
    least, most = (None if each is None else in_reader(each, system) for each in (view.chosen_c, view.interpass_c))
    return (Chosen("least", LEAST, least), Chosen("between passes", MOST, most))


def preheat_axis(view: PreheatView, sheet: Sheet) -> Axis:
    """Return the axis on which all that is asked and chosen has room."""
    rows, chosen = ask_rows(view, sheet.system), chosen_lines(view, sheet.system)
    unit = scale(sheet.system)
    return Axis.around(rows, chosen, (sheet.width_mm, sheet.height_mm), unit, sheet.measure)


def preheat_picture(view: PreheatView, axis: Axis, sheet: Sheet) -> DisplayList | None:
    """Return the picture; `None` while the metal is not known."""
    if not view.asks:
        return None
    return thermometer(ask_rows(view, sheet.system), chosen_lines(view, sheet.system), axis, sheet.measure)


def crayons_of(wps: Wps, system: System) -> tuple[CrayonPair, bool, bool]:
    """Return the crayons of a procedure, and for which of least and most one is asked; none melts so low as a room."""
    stated = wps.preheat.minimum_c
    heated = None if stated is None or stated <= ROOM_C else stated
    least, most = (None if each is None else in_reader(each, system)
                   for each in (heated, wps.preheat.interpass_maximum_c))  # fmt: skip
    return crayon_pair(crayons(), least=least, most=most, units=system), least is not None, most is not None


def crayon_sentence(wps: Wps, system: System) -> str:
    """Return which crayons show the least and the most, in the reader's scale."""
    unit, (pair, least, most) = scale(system), crayons_of(wps, system)
    if not least and not most:
        return ""
    if pair.must_melt is not None and pair.must_not is not None and pair.must_melt >= pair.must_not:
        return "Crayons: no two of the stock lie between the least and the most; measure with a probe."
    said = []
    if least:
        said.append(f"{pair.must_melt:g} {unit} must melt" if pair.must_melt else "no crayon of the stock is so hot")
    if most:
        said.append(f"{pair.must_not:g} {unit} must not melt" if pair.must_not else "no crayon of the stock is so cool")
    return f"Crayons: {', '.join(said)}; never inside the groove."


def _row(ask: Ask, view: PreheatView, system: System) -> AskRow:
    low, high = (None if each is None else in_reader(each, system) for each in (ask.low_c, ask.high_c))
    governs = view.governing is not None and view.governing.id == ask.id
    return AskRow(ask.word, low, high, ask.within, ask.kind == "code", governs, ask.noted(system))
