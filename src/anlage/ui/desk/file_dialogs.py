"""Letting the person choose a works file, to open or to make."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from anlage.ui.desk.telling import told
from anlage.ui.kit.loading import loaded

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


def ask_to_save_as(desk: "WindowDesk") -> bool:
    """Let the person choose where a copy of the works file is to lie, and go on in it; return whether that was done."""
    if desk.works is None:
        desk.say("Open a works file first.")
        return False
    options = QFileDialog.Option.DontConfirmOverwrite  # nothing is written over: another name is asked for
    name, _ = QFileDialog.getSaveFileName(
        desk.shell, "Save the works file under another name", _folder(desk), PATTERN, options=options
    )
    path = Path(name)
    return bool(name) and bool(desk.save_as(path if path.suffix else path.with_suffix(".anlage")))


def ask_for_folder(desk: "WindowDesk") -> None:
    """Let the person choose a folder, and save every document of the works file there as JSON."""
    if desk.works is None:
        desk.say("Open a works file first.")
        return
    name = QFileDialog.getExistingDirectory(desk.shell, "Save every document as JSON", _folder(desk))
    if name:
        save_all(desk, Path(name))


@told
def save_all(desk: "WindowDesk", folder: Path) -> None:
    """Save every document of the works file as JSON in a folder."""
    refused = loaded("anlage.session.output.all_documents:write_all")(desk.works, folder)
    desk.say(f"Every document is in {folder.name}." if not refused else f"Not saved: {'; '.join(refused)}.")


def _folder(desk: "WindowDesk") -> str:
    return str(desk.works.path.parent if desk.works else Path.home())
