"""Speed of the window: first paint, usable demo and memory against a bare window; edits against a 60 Hz frame.

What an edit costs is counted twice: in calls of Python for one digit, which no machine changes, and in time. Painting
is what follows an edit: only what changed is painted.

Child processes say when they have come so far; caches of compiled Python are kept as on any machine in use.
"""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

STARTS = 9
FRAME_S = 1 / 60
PAINTINGS = 60

BARE = """
import sys
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QWidget
class Window(QWidget):
    def paintEvent(self, event):
        print("painted", flush=True)
        QTimer.singleShot(0, running.quit)
running = QApplication([])
window = Window()
window.resize(1280, 800)
window.show()
running.exec()
print("memory", next(line.split()[1] for line in open("/proc/self/status") if line.startswith("VmRSS")), flush=True)
"""
OWN = """
import sys
from anlage.session.machine.pauses import load_quietly, settle
load_quietly()
from pathlib import Path
from anlage.session.machine.settings import Settings
from anlage.ui.desk.app import application, open_window
running = application(["anlage"])
window = open_window(Settings(), lambda: Path(sys.argv[1]), lambda _settings: None, settle)
while not window.shell._was_painted:
    running.processEvents()
print("painted", flush=True)
while window.desk is None or window.desk.document is None:
    running.processEvents()
running.processEvents()
print("usable", flush=True)
while window.desk.strip is None or window.desk.strip.proof is None:
    running.processEvents()
running.processEvents()
print("judged", flush=True)
print("memory", next(line.split()[1] for line in open("/proc/self/status") if line.startswith("VmRSS")), flush=True)
"""


def milestones(code: str, *words: str) -> dict[str, float]:
    """Return the seconds after which a child process said each word, and its memory [kB]."""
    start = time.perf_counter()
    found: dict[str, float] = {}
    with subprocess.Popen([sys.executable, "-c", code, *words], stdout=subprocess.PIPE, text=True) as child:
        assert child.stdout is not None
        for line in child.stdout:
            word, *rest = line.split()
            found[word] = float(rest[0]) if rest else time.perf_counter() - start
    return found


def starts(demo: Path) -> dict[str, tuple[float, float]]:
    """Return first paint, usable demo and memory as ratios to a bare window: of medians, and of the fastest of each.

    Where the clock of a machine comes and goes, the fastest of some starts tell a change that the medians hide.
    """
    rounds = [(milestones(BARE), milestones(OWN, str(demo))) for _ in range(STARTS + 1)][1:]  # the first warms caches

    def ratio(word: str, against: str) -> tuple[float, float]:
        bare, own = [one[against] for one, _ in rounds], [two[word] for _, two in rounds]
        return statistics.median(own) / statistics.median(bare), min(own) / min(bare)

    found = {word: ratio(word, "painted") for word in ("painted", "usable", "judged")}
    return found | {"memory": ratio("memory", "memory")}


def calls_of(work: Callable[[], object]) -> int:
    """Return how many calls of Python some work makes."""
    counted = 0

    def count(_frame: object, event: str, _argument: object) -> None:
        nonlocal counted
        counted += event == "call"

    sys.setprofile(count)
    try:
        work()
    finally:
        sys.setprofile(None)
    return counted


def edits_and_paintings(demo: Path) -> tuple[dict[str, tuple[float, float]], dict[str, int]]:
    """Return median and 95 of 100 of an edit and of the painting after it, in frames; and the calls for one digit."""
    from PySide6.QtWidgets import QApplication

    from anlage.session.machine.settings import Settings
    from anlage.ui.desk.app import application, open_window

    application(["anlage"])
    window = open_window(Settings(), lambda: demo, lambda _settings: None)
    while window.desk is None or window.desk.document is None:
        QApplication.processEvents()
    desk, found = window.desk, {}
    for place in ("joint", "passes"):
        desk.go(place)
        QApplication.processEvents()
        path = "joint/thickness_mm" if place == "joint" else f"passes/{desk.document.value.passes[0].id}/current_a"
        edited, painted = [], []
        for count in range(PAINTINGS):
            start = time.perf_counter()
            desk.document.type_text(path, f"{18 + count % 5}" if place == "joint" else f"95..{110 + count % 9}")
            edited.append(time.perf_counter() - start)
            start = time.perf_counter()
            QApplication.processEvents()  # judged, and told to the views
            QApplication.processEvents()  # painted
            painted.append(time.perf_counter() - start)
        found[f"{place}, edit"], found[f"{place}, painting what changed"] = in_frames(edited), in_frames(painted)
    speed = f"passes/{desk.document.value.passes[0].id}/travel_speed_mm_min"
    calls = {
        "one digit of the travel speed at Passes, calls": calls_of(lambda: desk.document.type_text(speed, "81")),
        "the same judged, kept and painted": calls_of(lambda: [QApplication.processEvents() for _ in range(3)]),
    }
    window.shell.close()
    return found, calls


def in_frames(times: list[float]) -> tuple[float, float]:
    """Return the median and 95 of 100, in frames."""
    ordered = sorted(times)
    return statistics.median(ordered) / FRAME_S, ordered[int(0.95 * len(ordered))] / FRAME_S


def main() -> None:
    """Measure and print."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
    from anlage.session.works.demo import demo_file

    with tempfile.TemporaryDirectory() as scratch:
        for name in ("CONFIG", "STATE", "DATA"):
            os.environ[f"XDG_{name}_HOME"] = scratch
        demo = demo_file("2026-11-23T12:00:00Z", folder=Path(scratch))
        ratios = starts(demo)
        for word, what in (
            ("painted", f"first paint of the shell, medians of {STARTS} interleaved starts"),
            ("usable", "demo procedure drawn and editable, the same"), ("judged", "with its verdicts, the same"),
            ("memory", "memory with the demo open"),
        ):  # fmt: skip
            median, fastest = ratios[word]
            print(f"{what:<66} {median:6.2f} × bare window ({fastest:.2f} the fastest of each)")
        times, calls = edits_and_paintings(demo)
        for name, (median, most) in times.items():
            print(f"{f'{name}, median (95 of 100)':<66} {median:6.2f} × 60 Hz frame ({most:.2f})")
        for name, count in calls.items():
            print(f"{name:<66} {count:6}")


if __name__ == "__main__":
    main()
