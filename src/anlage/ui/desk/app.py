"""Starting the window: paint first, load after; and what happens when something goes wrong that nobody foresaw."""

import os
import sys
import threading
import time
from collections.abc import Callable
from pathlib import Path
from types import TracebackType
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QSize, QTimer, Signal
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QApplication

from anlage.core.errors import AnlageError
from anlage.data.files import FOLDER
from anlage.session.machine.clock import utc_now
from anlage.session.machine.crash import Run, ended_badly, start_unfinished, untold_crash, write_crash
from anlage.session.machine.pauses import settle
from anlage.session.machine.settings import Settings, read_settings, settings_file, state_folder, write_settings
from anlage.ui.desk.signals import Signals, tell_outside
from anlage.ui.frame.shell import Shell
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font, load_fonts
from anlage.ui.kit.place import Clocks
from anlage.ui.kit.reader import Reader
from anlage.ui.places import place_specs

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk


WINDOW_ICON = FOLDER / "anlage.png"  # packaging/anlage.svg in 256 x 256
SEEN_MS = 1500  # after which a window that answers is taken for one that does
PLAIN = ("-style", "fusion")  # as words: to ask for a style by its class loads 528 members of enumerations
TITLE_PX = 32  # about what a window manager puts over a window


class Window:
    """A running window: its shell at once, its desk after the first paint."""

    def __init__(self, shell: Shell) -> None:
        self.shell = shell
        self.desk: WindowDesk | None = None

    def ready(self) -> "WindowDesk":
        """Return the desk once it is there."""
        assert self.desk is not None, "the window was not painted yet"
        return self.desk


def application(arguments: list[str]) -> QApplication:
    """Return the one application, with the shipped fonts and the plain style that every desktop has."""
    found = QApplication.instance() or QApplication([*arguments, *PLAIN])
    assert isinstance(found, QApplication)
    found.setApplicationName("anlage")
    found.setDesktopFileName("anlage")
    load_fonts()
    found.setFont(font())
    found.setWindowIcon(QIcon(str(WINDOW_ICON)))
    return found


def open_window(
    settings: Settings,
    path: Callable[[], Path | None],
    keep: Callable[[Settings], None],
    done: Callable[[], None] = lambda: None,
) -> Window:
    """Show the window and load what it holds after its first paint.

    Parameters
    ----------
    settings : what was remembered
    path : asked after the first paint for the works file to open; `None` for the empty window
    keep : takes the settings when the window closes
    done : called once everything is there
    """
    specs = place_specs()
    shell = Shell(Reader(settings.units, settings.theme), specs)
    shell.resize(settings.width, settings.height)
    window = Window(shell)

    def load() -> None:
        window.desk = desk = loaded("anlage.ui.desk.desk:WindowDesk")(
            shell, settings, Clocks(utc_now, time.monotonic), specs
        )
        shell.closing.connect(lambda: keep(desk.settings))
        refused = ""
        try:
            works = path()
        except AnlageError as refusal:
            works, refused = None, str(refusal)
        same = works is not None and str(works.absolute()) in settings.recent[:1]
        unfinished = start_unfinished(state_folder())
        if works is None or not desk.open_file(works, settings.document if same else "", closed=unfinished):
            desk.go(desk.place)
        if refused:
            desk.say(refused)
        done()
        if told := _of_last_run(closed=unfinished and desk.document is None):
            desk.say(told)

    shell.painted.connect(load)
    shell.show()
    return window


def _of_last_run(*, closed: bool) -> str:
    """Return what is to be told of the last run, "" for nothing."""
    log, how = untold_crash(state_folder()), ended_badly(state_folder())
    said = f"In the last run something went wrong. What happened is in {log}." if log else how
    why = "The last start came to no end, so no document is open: choose one here."
    return f"{said} {why}".strip() if closed else said


class _Bridge(QObject):
    """Hands what failed on a thread to the window's own."""

    failed = Signal(object)

    def __init__(self, hook: Callable[..., None], parent: QObject) -> None:
        super().__init__(parent)
        self._hook = hook
        self.failed.connect(self._on_failed)

    def tell(self, failed: threading.ExceptHookArgs) -> None:
        """Take what failed; called on the thread."""
        if failed.exc_type is not SystemExit:
            self.failed.emit((failed.exc_type, failed.exc_value, failed.exc_traceback))

    def _on_failed(self, failed: tuple[object, ...]) -> None:
        self._hook(*failed)


def catch_faults(window: Window) -> None:
    """Save the drafts and write a log when something fails that nobody foresaw; the window stays open.

    What is said is what is so: neither saving nor writing the log is taken for granted.
    """

    def hook(kind: type[BaseException], fault: BaseException, trace: TracebackType | None) -> None:
        sys.__excepthook__(kind, fault, trace)
        if isinstance(fault, KeyboardInterrupt):
            return
        told = "Something went wrong"
        if window.desk is not None:
            try:
                faults = window.desk.flush()
            except Exception as other:  # noqa: BLE001 - whatever fails now, the first fault is told
                told += f", and the draft could not be saved: {other}"
            else:
                why = next(iter(faults.values()), None)
                told += "; the draft is saved" if why is None else f", and the draft is not saved: {why}"
        try:
            told += f". What happened is in {write_crash(state_folder(), fault, trace, now=utc_now())}."
        except OSError as other:
            told += f": {kind.__name__}: {fault}. No log could be written: {other}."
        if window.desk is not None:
            window.desk.say(told)

    bridge = _Bridge(hook, window.shell)
    sys.excepthook = hook
    threading.excepthook = bridge.tell


def run(path: Callable[[Settings], Path | None]) -> int:
    """Run the application on a works file until its window is closed; return its exit status."""
    file = settings_file()
    settings = read_settings(file)
    if settings.text_percent != 100:
        os.environ.setdefault("QT_SCALE_FACTOR", f"{settings.text_percent / 100}")  # read when the application is made
    running = application(sys.argv[:1])
    own = Run(state_folder())

    def done() -> None:
        settle()
        QTimer.singleShot(SEEN_MS, own.started)

    window = open_window(settings, lambda: path(settings), lambda kept: _keep(file, kept), done)
    room = window.shell.screen().availableGeometry().size() - QSize(0, TITLE_PX)
    window.shell.resize(window.shell.size().boundedTo(room))
    catch_faults(window)
    listening = Signals(window.shell, lambda: window.desk.flush() if window.desk is not None else {})
    try:
        return running.exec()
    finally:
        listening.close()
        own.end()


def _keep(file: Path, settings: Settings) -> None:
    """Keep the settings; the window is gone by now, so that a refusal goes where a terminal would show it."""
    try:
        write_settings(file, settings)
    except OSError as fault:
        tell_outside(f"{file.name}: the settings are not kept: {fault.strerror or fault}")
