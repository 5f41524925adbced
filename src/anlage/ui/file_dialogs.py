"""Letting the person choose a works file, to open or to make."""

from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from anlage.ui.workbench import Workbench

PATTERN = "Works files (*.anlage)"


def ask_for_file(bench: "Workbench") -> None:
    """Let the person choose a works file, and open it."""
    from PySide6.QtWidgets import QFileDialog  # when asked for: a start needs no dialog

    name, _ = QFileDialog.getOpenFileName(bench.shell, "Open works file", _folder(bench), PATTERN)
    if name:
        bench.open_file(Path(name))


def ask_for_new_file(bench: "Workbench") -> None:
    """Let the person choose where a new works file is to lie, and make it."""
    from PySide6.QtWidgets import QFileDialog

    name, _ = QFileDialog.getSaveFileName(bench.shell, "New works file", _folder(bench), PATTERN)
    if name:
        path = Path(name)
        bench.open_file(path if path.suffix else path.with_suffix(".anlage"))


def _folder(bench: "Workbench") -> str:
    return str(bench.works.path.parent if bench.works else Path.home())
