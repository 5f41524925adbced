"""Commands that open the window, or take its picture."""

import os
from pathlib import Path

from anlage.cli.answer import Answer
from anlage.core.errors import FormatError, InputError


def _require_screen() -> None:
    """Refuse a window where none can be shown: Qt itself would abort the process.

    Raises
    ------
    InputError : neither an X nor a Wayland display is there, nor another platform asked for
    """
    if not any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")):
        mend = "start it in a desktop session, or see anlage --help for what works without"
        raise InputError("there is no screen to open a window on", where="anlage", mend=mend)


def open_last() -> int:
    """Open the window on the works file that was open last; return the exit status.

    Raises
    ------
    InputError : there is no screen
    """
    _require_screen()
    from anlage.ui.app import last_works, run

    return run(last_works)


def open_demo(*, reset: bool) -> int:
    """Open the window on the demo; return the exit status.

    Raises
    ------
    InputError : there is no screen
    """
    _require_screen()
    from anlage.session.clock import utc_now
    from anlage.ui.app import run

    def demo(_settings: object) -> Path:
        from anlage.session.demo import demo_file  # after the first paint: it loads the database

        return demo_file(utc_now(), reset=reset)

    return run(demo)


def screenshots_answer(folder: str) -> Answer:
    """Return the pictures taken of every place of the demo.

    Raises
    ------
    FormatError : the folder cannot be written
    """
    from anlage.ui.screenshots import take_screenshots

    try:
        taken = take_screenshots(Path(folder))
    except OSError as fault:
        raise FormatError("it cannot be written", where=folder, mend="choose a folder you can write") from fault
    names = [str(path) for path in taken]
    return Answer({"pictures": names}, [("picture", name) for name in names], ())
