"""Pictures of every place of the demo, always alike: for the documents of this project and for a look at a change."""

import os
import tempfile
import time
from pathlib import Path

from anlage.session.machine.clock import utc_now
from anlage.session.machine.settings import Settings
from anlage.session.works.demo import demo_file
from anlage.ui.desk.app import application, open_window
from anlage.ui.kit.tabs import Views
from anlage.ui.places import place_specs

WIDTH_PX, HEIGHT_PX = 1280, 800
SHOWN_RULE = "t_base"
PATIENCE_S = 60.0  # for what is worked out on a thread
SETTLE = 8  # turns of the event loop until everything is laid out
RATES = {
    "labour_per_h": 62.0,
    "filler_per_kg": 4.8,
    "gas_per_m3": 9.5,
    "power_per_kwh": 0.31,
    "wait_min": 8.0,
}  # made up
# Views beside the first one of their place: place, view, the procedure they are shown of.
VIEWS = (
    ("joint", "takes", "OST-W-01"), ("joint", "designs", "OST-W-01"), ("passes", "stops", "OST-W-02"),
    ("passes", "fit-up", "OST-W-02"), ("joint", "node", "OST-W-03"), ("heat", "cooling", "OST-W-01"),
    ("heat", "sequence", "OST-W-02"), ("heat", "after", "OST-W-05"),
)  # fmt: skip


def take_screenshots(folder: Path) -> tuple[Path, ...]:
    """Take a picture of each place and return the files.

    Raises
    ------
    OSError : the folder cannot be written
    """
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

    folder.mkdir(parents=True, exist_ok=True)
    running = application(["anlage"])
    taken = []
    with tempfile.TemporaryDirectory() as scratch:
        settings = Settings(width=WIDTH_PX, height=HEIGHT_PX, rates=RATES)
        window = open_window(settings, lambda: demo_file(utc_now(), folder=Path(scratch)), lambda _settings: None)
        for _ in range(SETTLE):
            running.processEvents()
        desk = window.ready()

        def take(name: str) -> None:
            for _ in range(SETTLE):
                running.processEvents()
            path = folder / f"{name}.png"
            if not window.shell.grab().save(str(path)):
                raise OSError(f"{path} cannot be written")
            taken.append(path)

        for place in place_specs():
            desk.go(place.id)
            if place.id == "rulebook":
                desk.rules.read(SHOWN_RULE)
            take(place.id)
        assert desk.works is not None, "the demo is open"
        ids = {entry.number: entry.id for entry in desk.works.entries()}
        for place_id, view, number in VIEWS:
            desk.open_document(ids[number])
            desk.go(place_id)
            views = desk.current_place().findChild(Views)
            before = views.in_front
            views.show_view(view)
            until = time.monotonic() + PATIENCE_S
            while view == "sequence" and time.monotonic() < until and views.view(view).waits is None:
                running.processEvents()
            take(view)
            views.show_view(before)
        window.shell.close()
    return tuple(taken)
