"""Whether there is a screen to open a window on."""

import os

from anlage.core.errors import InputError


def require_screen() -> None:
    """Refuse a window where none can be shown: Qt itself would abort the process.

    Raises
    ------
    InputError : neither an X nor a Wayland display is there, nor another platform asked for
    """
    if not any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")):
        mend = "start it in a desktop session, or see anlage --help for what works without"
        raise InputError("there is no screen to open a window on", where="anlage", mend=mend)
