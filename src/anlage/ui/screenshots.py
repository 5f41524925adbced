"""Pictures of every place of the demo, always alike: for the documents of this project and for a look at a change."""

import os
import tempfile
from pathlib import Path

WIDTH_PX, HEIGHT_PX = 1280, 800
SETTLE = 8  # turns of the event loop until everything is laid out


def take_screenshots(folder: Path) -> tuple[Path, ...]:
    """Take a picture of each place and return the files.

    Raises
    ------
    OSError : the folder cannot be written
    """
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from anlage.session.clock import utc_now
    from anlage.session.demo import demo_file
    from anlage.session.settings import Settings
    from anlage.ui.app import application, open_window
    from anlage.ui.shell import PLACES

    folder.mkdir(parents=True, exist_ok=True)
    running = application(["anlage"])
    taken = []
    with tempfile.TemporaryDirectory() as scratch:
        settings = Settings(width=WIDTH_PX, height=HEIGHT_PX)
        window = open_window(settings, lambda: demo_file(utc_now(), folder=Path(scratch)), lambda _settings: None)
        for _ in range(SETTLE):
            running.processEvents()
        for place in PLACES:
            window.ready().go(place.id)
            for _ in range(SETTLE):
                running.processEvents()
            path = folder / f"{place.id}.png"
            if not window.shell.grab().save(str(path)):
                raise OSError(f"{path} cannot be written")
            taken.append(path)
        window.shell.close()
    return tuple(taken)
