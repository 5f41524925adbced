"""Pictures of every place of the demo, always alike: for the documents of this project and for a look at a change."""

import os
import tempfile
from pathlib import Path

WIDTH_PX, HEIGHT_PX = 1280, 800
SETTLE = 8  # turns of the event loop until everything is laid out
RATES = {
    "labour_per_h": 62.0,
    "filler_per_kg": 4.8,
    "gas_per_m3": 9.5,
    "power_per_kwh": 0.31,
    "wait_min": 8.0,
}  # made up
# Views beside the first one of their place: place, which view, the procedure they are shown of, name of the picture.
VIEWS = (
    ("joint", 1, "OST-W-01", "takes"), ("joint", 2, "OST-W-01", "designs"), ("passes", 1, "OST-W-02", "stops"),
    ("passes", 2, "OST-W-02", "tacks"), ("passes", 3, "OST-W-02", "fit-up"),
    ("passes", 4, "OST-W-02", "sectors"), ("joint", 4, "OST-W-03", "node"),
)  # fmt: skip


def take_screenshots(folder: Path) -> tuple[Path, ...]:
    """Take a picture of each place and return the files.

    Raises
    ------
    OSError : the folder cannot be written
    """
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from anlage.session.machine.clock import utc_now
    from anlage.session.machine.settings import Settings
    from anlage.session.works.demo import demo_file
    from anlage.ui.app import application, open_window
    from anlage.ui.joint_place import JointPlace
    from anlage.ui.passes_place import PassesPlace
    from anlage.ui.shell import PLACES

    folder.mkdir(parents=True, exist_ok=True)
    running = application(["anlage"])
    taken = []
    with tempfile.TemporaryDirectory() as scratch:
        settings = Settings(width=WIDTH_PX, height=HEIGHT_PX, rates=RATES)
        window = open_window(settings, lambda: demo_file(utc_now(), folder=Path(scratch)), lambda _settings: None)
        for _ in range(SETTLE):
            running.processEvents()
        bench = window.ready()

        def take(name: str) -> None:
            for _ in range(SETTLE):
                running.processEvents()
            path = folder / f"{name}.png"
            if not window.shell.grab().save(str(path)):
                raise OSError(f"{path} cannot be written")
            taken.append(path)

        for place in PLACES:
            bench.go(place.id)
            take(place.id)
        assert bench.works is not None, "the demo is open"
        ids = {entry.number: entry.id for entry in bench.works.entries()}
        for place_id, view, number, name in VIEWS:
            bench.open_document(ids[number])
            bench.go(place_id)
            front = bench.current_place()
            assert isinstance(front, JointPlace | PassesPlace), "these places have several views"
            front.show_view(view)
            take(name)
            front.show_view(0)
        window.shell.close()
    return tuple(taken)
