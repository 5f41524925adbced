"""Saving what a place shows: its picture as SVG, PDF or DXF, its passes and what they take as CSV or XLSX."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from anlage.core.errors import AnlageError
from anlage.session.output.pictures import picture_file
from anlage.session.output.saving import save
from anlage.session.output.tables import table_file
from anlage.ui.kit.look import measure

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

PICTURE_FILES = "PDF (*.pdf);;SVG (*.svg);;DXF (*.dxf)"
TABLE_FILES = "Spreadsheet (*.xlsx);;CSV (*.csv)"


def ask_for_picture(desk: "WindowDesk") -> None:
    """Let the person choose where the picture in front goes, and write it there; the section where there is none."""
    document = desk.document
    if document is None:
        return
    name = desk.current_place().picture() or "section"
    wps, system = document.value, document.system
    _ask(desk, name.partition("/")[0], PICTURE_FILES, lambda ending: picture_file(wps, name, ending, system, measure))


def ask_for_table(desk: "WindowDesk") -> None:
    """Let the person choose where the passes and what they take go, and write them there."""
    document = desk.document
    if document is None:
        return
    wps, system, rates = document.value, document.system, desk.settings.rates
    _ask(desk, "passes", TABLE_FILES, lambda ending: table_file(wps, ending, system, rates))


def _ask(desk: "WindowDesk", name: str, files: str, make: Callable[[str], bytes]) -> None:
    assert desk.document is not None, "something is open"
    number = desk.document.value.header.number or "procedure"
    ending = files.partition("*")[2].partition(")")[0]
    proposed = f"{number} {name}{ending}".replace("/", "-")
    chosen, kind = QFileDialog.getSaveFileName(desk.shell, f"Save {name}", proposed, files)
    if not chosen:
        return
    path = Path(chosen)
    if not path.suffix:
        path = path.with_suffix(kind.partition("*")[2].partition(")")[0] or ending)
    try:
        save(path, lambda: make(path.suffix.lower()))
    except AnlageError as fault:
        desk.say(str(fault))
    else:
        desk.mention(f"Saved {path.name}.")
