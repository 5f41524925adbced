"""Saving what a place shows: its picture as SVG, PDF or DXF, its passes and what they take as CSV or XLSX."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.session.output.pictures import picture_file
from anlage.session.output.saving import save
from anlage.session.output.tables import table_file
from anlage.ui.joint_place import JointPlace
from anlage.ui.look import measure

if TYPE_CHECKING:
    from anlage.ui.workbench import Workbench

PICTURE_FILES = "PDF (*.pdf);;SVG (*.svg);;DXF (*.dxf)"
TABLE_FILES = "Spreadsheet (*.xlsx);;CSV (*.csv)"


def picture_in_front(bench: "Workbench") -> str:
    """Return the name of the picture that the place in front shows; the section where it has none of its own."""
    from anlage.ui.sectors_view import SectorsView  # when asked for, as the views are
    from anlage.ui.stations_view import StationsView

    place = bench.current_place()
    if isinstance(place, JointPlace):
        shown = place.views.currentWidget()
        names = {place.compare: "designs", place.symbol: "symbol", place.node: "node"}
        return names.get(shown, "section")
    passes = bench.passes()
    if passes is None:
        return "section"
    shown = passes.views.currentWidget()
    if isinstance(shown, StationsView) and shown.chosen:
        return f"fit-up/{shown.chosen}"
    if isinstance(shown, SectorsView) and passes.selection.pass_id:
        return f"sectors/{passes.selection.pass_id}"
    on_seam = (passes.others.get(1), passes.others.get(2))  # starts and stops, tacks and strips: one picture
    return "stops" if shown in on_seam else "beads"


def ask_for_picture(bench: "Workbench") -> None:
    """Let the person choose where the picture goes, and write it there."""
    document = bench.document
    if document is None or not isinstance(document.working.value, Wps):
        return
    name = picture_in_front(bench)
    wps, system = document.wps, document.system
    _ask(bench, name.partition("/")[0], PICTURE_FILES, lambda ending: picture_file(wps, name, ending, system, measure))


def ask_for_table(bench: "Workbench") -> None:
    """Let the person choose where the passes and what they take go, and write them there."""
    document = bench.document
    if document is None or not isinstance(document.working.value, Wps):
        return
    wps, system, rates = document.wps, document.system, bench.settings.rates
    _ask(bench, "passes", TABLE_FILES, lambda ending: table_file(wps, ending, system, rates))


def _ask(bench: "Workbench", name: str, files: str, make: Callable[[str], bytes]) -> None:
    from PySide6.QtWidgets import QFileDialog  # when asked for: a start needs no dialog

    assert bench.document is not None, "something is open"
    number = bench.document.wps.header.number or "procedure"
    ending = files.partition("*")[2].partition(")")[0]
    proposed = f"{number} {name}{ending}".replace("/", "-")
    chosen, kind = QFileDialog.getSaveFileName(bench.shell, f"Save {name}", proposed, files)
    if not chosen:
        return
    path = Path(chosen)
    if not path.suffix:
        path = path.with_suffix(kind.partition("*")[2].partition(")")[0] or ending)
    try:
        save(path, lambda: make(path.suffix.lower()))
    except AnlageError as fault:
        bench.say(str(fault))
    else:
        bench.say(f"Saved {path.name}.")
