"""Every command of the window in one list: name, shortcut and what it does; the palette and F1 read the same list."""

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtGui import QAction
from PySide6.QtWidgets import QMenu, QToolButton

from anlage.core.procedure import WPS
from anlage.core.record import PQR
from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import fields
from anlage.ui.file_dialogs import ask_for_file, ask_for_new_file
from anlage.ui.shell import PLACES

if TYPE_CHECKING:
    from anlage.ui.palette import Entry
    from anlage.ui.passes_place import PassesPlace
    from anlage.ui.workbench import Workbench


BY_HAND = (
    ("Walk the dimensions of a drawing", "Tab"),
    ("Step a number or a dimension", "Up, Down, PgUp, PgDn"),
    ("Type a dimension where it stands", "Enter, or a digit"),
    ("Drag without steps", "Shift"),
    ("Go nearer to a drawing, or farther", "wheel, +, -"),
    ("Move a drawing that is near", "wheel button, arrow keys"),
    ("Drawing as at first, or all of it", "Home, End"),
)


def install(bench: "Workbench") -> dict[str, QAction]:
    """Make every command, hang those of the band on its buttons, and return them by id."""
    shell = bench.shell
    rows: list[tuple[str, str, str, Callable[[], object]]] = [
        ("find", "Find anything", "Ctrl+K", bench.find),
        ("new", "New procedure", "Ctrl+N", bench.new_document),
        ("new_record", "New record", "Ctrl+Shift+R", bench.new_record),
        ("duplicate", "Duplicate procedure", "Ctrl+Shift+D", bench.duplicate_document),
        ("delete", "Put procedure away", "Ctrl+Backspace", bench.delete_document),
        ("restore", "Bring the procedure back that was put away", "Ctrl+Shift+Backspace", bench.restore_document),
        ("job", "The job: number, code, metals, ranges", "Ctrl+J", bench.open_job),
        ("undo", "Undo", "Ctrl+Z", bench.step_back),
        ("redo", "Redo", "Ctrl+Shift+Z", bench.step_forth),
        ("units", "Switch units", "Ctrl+U", shell.reader.switch_units),
        ("theme", "Switch light and dark", "Ctrl+T", shell.reader.switch_theme),
        ("open", "Open works file…", "Ctrl+O", partial(ask_for_file, bench)),
        ("create", "New works file…", "Ctrl+Shift+N", partial(ask_for_new_file, bench)),
        ("demo", "Open the demo", "", bench.open_demo),
        ("add_pass", "Add a pass", "Ctrl+Return", _in_passes(bench, "add_pass")),
        ("copy_pass", "Duplicate the pass", "Ctrl+D", _in_passes(bench, "duplicate_pass")),
        ("remove_pass", "Remove the pass", "Ctrl+Del", _in_passes(bench, "remove_pass")),
        ("pass_up", "Move the pass up", "Alt+Up", _in_passes(bench, "move_pass", -1)),
        ("pass_down", "Move the pass down", "Alt+Down", _in_passes(bench, "move_pass", 1)),
        ("add_deposit", "Add a deposit", "Ctrl+Shift+Return", bench.add_deposit),
        ("remove_deposit", "Remove the deposit", "", _in_passes(bench, "remove_deposit")),
        ("fill_joint", "Fill the joint with passes", "Ctrl+Shift+F", _in_passes(bench, "fill_joint")),
        ("stopwatch", "Travel speed by stopwatch", "F8", _in_passes(bench, "open_stopwatch")),
        ("issue", "Issue revision", "", _on_sheet(bench, "issue")),
        ("pdf", "Save sheet as PDF…", "Ctrl+P", _on_sheet(bench, "ask_for_pdf")),
        ("picture", "Save the picture as PDF, SVG or DXF…", "Ctrl+Shift+P", _exporting(bench, "ask_for_picture")),
        ("table", "Save the passes as XLSX or CSV…", "Ctrl+Shift+T", _exporting(bench, "ask_for_table")),
        ("shortcuts", "List of shortcuts", "F1", lambda: shortcut_list(bench)),
        ("quit", "Quit", "Ctrl+Q", shell.close),
    ]
    found = {name: shell.command(text, keys, do) for name, text, keys, do in rows}
    for place in PLACES:
        found[place.id] = shell.command(
            f"Go to {place.word}", place.shortcut, partial(bench.go, place.id), place.question
        )
    band = shell.band
    for button, name in (
        (band.number, "job"), (band.undo, "undo"), (band.redo, "redo"), (band.units, "units"), (band.search, "find"),
        (band.theme, "theme"),
    ):  # fmt: skip
        _hang(button, found[name])
    band.documents.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
    band.documents.setAccessibleName("Procedures of this works file")
    band.documents.setToolTip("Procedures of this works file")
    band.documents.clicked.connect(
        lambda: documents_menu(bench).popup(band.documents.mapToGlobal(band.documents.rect().bottomLeft()))
    )
    return found


def _hang(button: QToolButton, action: QAction) -> None:
    """Let a button do a command and say its tip; its text and icon stay its own."""
    button.clicked.connect(action.trigger)
    button.setToolTip(action.toolTip())
    action.changed.connect(lambda: (button.setToolTip(action.toolTip()), button.setEnabled(action.isEnabled())))


def _in_passes(bench: "Workbench", name: str, *arguments: int) -> Callable[[], None]:
    """Return a command of the Passes place, which opens first when it is not in front."""

    def do() -> None:
        if bench.document is None:
            return
        if bench.passes() is None:
            bench.go("passes")
        place: PassesPlace | None = bench.passes()
        assert place is not None
        getattr(place, name)(*arguments)

    return do


def documents_menu(bench: "Workbench") -> QMenu:
    """Return the procedures and records of the open works file as a menu."""
    menu = QMenu(bench.shell)
    for kind in (WPS.format, PQR.format):
        for entry in bench.works.entries(kind) if bench.works else ():
            menu.addAction(f"{entry.number}   {entry.title}".strip(), partial(bench.open_document, entry.id))
    menu.addSeparator()
    for name in ("new", "new_record", "duplicate", "open"):
        menu.addAction(bench.actions[name])
    return menu


def _on_sheet(bench: "Workbench", name: str) -> Callable[[], None]:
    """Return a command of the Sheet place, which opens first."""

    def do() -> None:
        if bench.document is not None:
            bench.go("sheet")
            getattr(bench.current_place(), name)()

    return do


def _exporting(bench: "Workbench", name: str) -> Callable[[], None]:
    """Return a command that saves a file; what writes it is loaded when it is first asked for."""

    def do() -> None:
        from anlage.ui import exporting

        getattr(exporting, name)(bench)

    return do


def entries(bench: "Workbench") -> "list[Entry]":
    """Return everything the palette can find: commands, procedures, recent files and fields."""
    from anlage.ui.palette import Entry

    found = [
        Entry(action.text(), action.shortcut().toString(), action.trigger)
        for action in bench.shell.commands
        if action.isEnabled() and action is not bench.actions["find"]
    ]
    for kind, word in ((WPS.format, "procedure"), (PQR.format, "record")):
        own = bench.works.entries(kind) if bench.works else ()
        found += [Entry(f"{e.number} {e.title}".strip(), word, partial(bench.open_document, e.id)) for e in own]
    found += [Entry(name, "works file", partial(bench.open_named, name)) for name in bench.settings.recent[1:]]
    if bench.document is not None:
        wps = bench.document.wps
        plain = (path for path in fields() if "*" not in path and path != "joint/kind" and applies(wps, path))
        found += [Entry(fields()[path].label, "field", partial(bench.go_to, path)) for path in plain]
    return found


def shortcut_list(bench: "Workbench") -> None:
    """Show every command with its shortcut."""
    from PySide6.QtWidgets import QDialog, QFormLayout, QLabel

    dialog = QDialog(bench.shell)
    dialog.setWindowTitle("Shortcuts")
    form = QFormLayout(dialog)
    form.setContentsMargins(24, 18, 24, 18)
    form.setHorizontalSpacing(32)
    for action in bench.shell.commands:
        if not action.shortcut().isEmpty():
            form.addRow(action.text(), QLabel(action.shortcut().toString()))
    for text, keys in BY_HAND:
        form.addRow(text, QLabel(keys))
    dialog.open()
