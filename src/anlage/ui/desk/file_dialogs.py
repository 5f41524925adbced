"""Letting the person choose a works file, to open or to make."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

PATTERN = "Works files (*.anlage)"


def ask_for_file(desk: "WindowDesk") -> None:
    """Let the person choose a works file, and open it."""
    name, _ = QFileDialog.getOpenFileName(desk.shell, "Open works file", _folder(desk), PATTERN)
    if name:
        desk.open_file(Path(name))


def ask_for_new_file(desk: "WindowDesk") -> None:
    """Let the person choose where a new works file is to lie, and make it."""
    name, _ = QFileDialog.getSaveFileName(desk.shell, "New works file", _folder(desk), PATTERN)
    if name:
        path = Path(name)
        desk.open_file(path if path.suffix else path.with_suffix(".anlage"))


def _folder(desk: "WindowDesk") -> str:
    return str(desk.works.path.parent if desk.works else Path.home())
