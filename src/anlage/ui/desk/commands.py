"""Every command of the window in one list: name, shortcut, what it does, and which kinds of document it serves."""

from collections.abc import Callable, Mapping
from functools import partial
from pkgutil import resolve_name
from typing import TYPE_CHECKING

from msgspec import Struct
from PySide6.QtGui import QAction, QUndoStack
from PySide6.QtWidgets import QMenu, QToolButton

from anlage.session.kinds import KINDS, PROCEDURE, RECORD, SOURCE
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import PlaceCommand, PlaceSpec

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

ANY = tuple(kind.id for kind in KINDS)


class Command(Struct, frozen=True):
    """One command: `kinds` are the kinds of document that it serves, none for a command that needs no document."""

    id: str
    text: str
    keys: str
    do: Callable[[], object]
    kinds: tuple[str, ...] = ()
    tip: str = ""
    words: str = ""  # others that people look for it by


def commands(desk: "WindowDesk", specs: tuple[PlaceSpec, ...]) -> tuple[Command, ...]:
    """Return every command, those of the desk first."""
    exporting, files = "anlage.ui.desk.exporting", "anlage.ui.desk.file_dialogs"
    own = (
        Command("find", "Find anything", "Ctrl+K", partial(loaded("anlage.ui.desk.finding:find"), desk)),
        Command("new", "New procedure", "Ctrl+N", partial(desk.new_document, PROCEDURE), words="WPS create add"),
        Command("new_record", "New record", "Ctrl+Shift+R", partial(desk.new_document, RECORD),
                words="PQR WPQR qualification create add"),
        Command("new_machine", "New machine", "Ctrl+Shift+M", partial(desk.new_document, SOURCE),
                words="power source set dial calibration create add"),
        Command("duplicate", "Duplicate the document", "Ctrl+Shift+D", desk.duplicate_document, ANY,
                words="copy template clone"),
        Command("coupon", "Weld a coupon of this: a record from the procedure", "", desk.weld_coupon, (PROCEDURE.id,),
                words="PQR record test piece plan"),
        Command("hanging", "What hangs on this record", "Ctrl+Shift+H", partial(_hanging, desk), (RECORD.id,),
                words="rest lose fail depends procedures"),
        Command("delete", "Put the document away", "Ctrl+Backspace", desk.delete_document, ANY,
                words="delete remove trash discard"),
        Command("restore", "Bring the document back that was put away", "Ctrl+Shift+Backspace", desk.restore_document),
        Command("job_data", "The job: number, code, metals, ranges", "Ctrl+J", desk.go_to_job, ANY),
        Command("undo", "Undo", "Ctrl+Z", desk.step_back),
        Command("redo", "Redo", "Ctrl+Shift+Z", desk.step_forth),
        Command("units", "Switch units", "Ctrl+U", desk.reader.switch_units),
        Command("theme", "Switch light and dark", "Ctrl+T", desk.reader.switch_theme),
        Command("open", "Open works file…", "Ctrl+O", partial(loaded(f"{files}:ask_for_file"), desk)),
        Command("create", "New works file…", "Ctrl+Shift+N", partial(loaded(f"{files}:ask_for_new_file"), desk)),
        Command("save_as", "Save the works file under another name…", "Ctrl+Shift+S",
                partial(loaded(f"{files}:ask_to_save_as"), desk)),
        Command("save_all", "Save every document as JSON…", "", partial(loaded(f"{files}:ask_for_folder"), desk)),
        Command("demo", "Open the demo", "", desk.open_demo),
        Command("picture", "Save the picture as PDF, SVG or DXF…", "Ctrl+Shift+P",
                partial(loaded(f"{exporting}:ask_for_picture"), desk), (PROCEDURE.id,)),
        Command("copy_picture", "Copy the picture", "Ctrl+Shift+C",
                partial(loaded("anlage.ui.desk.copying:copy_picture"), desk), (PROCEDURE.id,),
                words="clipboard PNG SVG"),
        Command("table", "Save the passes as XLSX or CSV…", "Ctrl+Shift+T",
                partial(loaded(f"{exporting}:ask_for_table"), desk), (PROCEDURE.id,)),
        Command("batch", "Print or save the sheets of several procedures…", "Ctrl+Shift+E",
                partial(loaded("anlage.ui.desk.batch_dialog:ask"), desk), words="batch PDF all WPS"),
        Command("plan", "Plan coupons…", "Ctrl+Shift+O", partial(loaded("anlage.ui.desk.plan_dialog:ask"), desk),
                words="planner coupons cover joints fewest cheapest tests"),
        Command("settings", "Settings…", "Ctrl+,", partial(loaded("anlage.ui.desk.settings_dialog:ask"), desk),
                words="preferences author letterhead paper units theme text size rates options"),
        Command("help", "Help for this place", "F1", partial(loaded("anlage.ui.desk.help_dialog:ask"), desk),
                words="guide manual how"),
        Command("shortcuts", "List of shortcuts", "Shift+F1",
                partial(loaded("anlage.ui.desk.help_dialog:ask"), desk, "Shortcuts"), words="keys keyboard"),
        Command("quit", "Quit", "Ctrl+Q", desk.shell.close),
    )  # fmt: skip
    at_places = tuple(
        Command(each.id, each.text, each.keys, partial(_do_there, desk, spec.id, each), spec.kinds, words=each.words)
        for spec in specs
        for each in spec.commands
    )
    to_places = tuple(
        Command(
            spec.id, f"Go to {spec.word}", spec.keys, partial(desk.go, spec.id), tip=spec.question, words=spec.words
        )
        for spec in specs
    )
    return (*own, *at_places, *to_places)


def _do_there(desk: "WindowDesk", place: str, command: PlaceCommand) -> None:
    """Do a command of a place, which opens first when it is not in front."""
    if desk.place != place:
        desk.go(place)
    resolve_name(command.do)(desk.current_place())


def install(desk: "WindowDesk", specs: tuple[PlaceSpec, ...]) -> Mapping[str, QAction]:
    """Make every command, hang those of the band on its buttons, and return them by id."""
    shell = desk.shell
    found: dict[str, QAction] = {}
    for each in commands(desk, specs):
        found[each.id] = shell.command(each.text, each.keys, each.do, each.tip, each.kinds)
        found[each.id].setWhatsThis(each.words)
    band = shell.band
    for button, name in (
        (band.number, "job_data"), (band.undo, "undo"), (band.redo, "redo"), (band.units, "units"),
        (band.search, "find"), (band.theme, "theme"),
    ):  # fmt: skip
        _hang(button, found[name])
    band.documents.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
    band.documents.setAccessibleName("Documents of this works file")
    band.documents.setToolTip("Documents of this works file")
    band.documents.clicked.connect(
        lambda: documents_menu(desk).popup(band.documents.mapToGlobal(band.documents.rect().bottomLeft()))
    )
    return found


def show_steps(actions: Mapping[str, QAction], stack: QUndoStack | None) -> None:
    """Say in the two commands of a document's steps which step each takes, and whether there is one."""
    for name, can, what in (
        ("undo", stack is not None and stack.canUndo(), stack.undoText() if stack else ""),
        ("redo", stack is not None and stack.canRedo(), stack.redoText() if stack else ""),
    ):
        action, word = actions[name], name.capitalize()
        action.setEnabled(can)
        action.setText(f"{word} {what}".strip())
        action.setToolTip(f"{word} {what} ({action.shortcut().toString()})")


def _hang(button: QToolButton, action: QAction) -> None:
    """Let a button do a command and say its tip; its text and icon stay its own."""
    button.clicked.connect(action.trigger)
    button.setToolTip(action.toolTip())
    action.changed.connect(lambda: (button.setToolTip(action.toolTip()), button.setEnabled(action.isEnabled())))


def documents_menu(desk: "WindowDesk") -> QMenu:
    """Return the documents of the open works file as a menu, kind by kind."""
    menu = QMenu(desk.shell)
    for kind in KINDS:
        for entry in desk.works.entries(kind) if desk.works else ():
            menu.addAction(f"{entry.number}   {entry.title}".strip(), partial(desk.open_document, entry.id))
    menu.addSeparator()
    for name in ("new", "new_record", "new_machine", "duplicate", "open"):
        menu.addAction(desk.actions[name])
    return menu


def _hanging(desk: "WindowDesk") -> None:
    loaded("anlage.ui.desk.hanging:ask")(desk)
