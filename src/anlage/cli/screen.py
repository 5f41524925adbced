"""The window, opened by a command where there is a screen for it."""

import os
from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING

from anlage.core.errors import InputError
from anlage.session.machine.pauses import load_quietly

if TYPE_CHECKING:
    from anlage.session.machine.settings import Settings


def require_screen() -> None:
    """Refuse a window where none can be shown: Qt itself would abort the process.

    Raises
    ------
    InputError : neither an X nor a Wayland display is there, nor another platform asked for
    """
    if not any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")):
        mend = "start it in a desktop session, or see anlage --help for what works without"
        raise InputError("there is no screen to open a window on", where="anlage", mend=mend)


def run_window(path: "Callable[[Settings], Path | None]") -> int:
    """Run the window on a works file, which is asked for after the first paint; return its exit status.

    Raises
    ------
    InputError : there is no screen
    """
    require_screen()
    load_quietly()
    return int(import_module("anlage.ui.desk.app").run(path))  # loaded once it is sure that there is a screen
