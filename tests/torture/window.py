"""A window on the demo, and how much work it does for one thing that a person does."""

import os
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from types import FrameType
from typing import Any

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from msgspec import Struct
from PySide6.QtCore import QEvent
from PySide6.QtWidgets import QApplication, QWidget

from anlage.session.machine.settings import Settings
from anlage.session.works.demo import demo_file
from anlage.ui.desk.app import Window, application, open_window
from anlage.ui.desk.desk import WindowDesk
from anlage.ui.kit.tabs import Views

NOW = "2026-11-23T12:00:00Z"
TURNS = 3  # of the event loop, until what waits is worked out and painted


class TooMuchError(BaseException):
    """More work than any person would wait for; nothing may catch it as a fault."""


class Work(Struct):
    """How many calls were made, and how long the processor took for them [s]."""

    calls: int = 0
    seconds: float = 0.0


@contextmanager
def counted(most: int) -> Iterator[Work]:
    """Count the calls that are made within; beyond `most` they are cut short."""
    work = Work()

    def count(_frame: FrameType, event: str, _argument: Any) -> None:
        if event in ("call", "c_call"):
            work.calls += 1
            if work.calls > most:
                sys.setprofile(None)
                raise TooMuchError

    began = time.process_time()
    sys.setprofile(count)
    try:
        yield work
    except TooMuchError:
        pass
    finally:
        sys.setprofile(None)
        work.seconds = time.process_time() - began


@contextmanager
def timed() -> Iterator[Work]:
    """Measure what the processor takes for what is done within."""
    work, began = Work(), time.process_time()
    try:
        yield work
    finally:
        work.seconds = time.process_time() - began


def opened(folder: Path, path: Path | None = None) -> Window:
    """Return a window on a works file, the demo in a folder unless another is named."""
    application(["anlage"])
    works = path or demo_file(NOW, folder=folder)
    window = open_window(Settings(), lambda: works, lambda _settings: None)
    while window.desk is None:
        QApplication.processEvents()
    settle()
    return window


def settle() -> None:
    """Let everything be worked out, laid out and painted that waits for it, and what is to be deleted go."""
    for _ in range(TURNS):
        QApplication.processEvents()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)  # a loop that runs does it by itself


def views(desk: WindowDesk) -> Iterator[tuple[str, Callable[[], None]]]:
    """Yield every view that shows the document in front: its name, and what brings it to the front."""
    assert desk.kind is not None, "a document is in front"
    for spec in desk._places.specs.values():
        if spec.kinds and desk.kind.id not in spec.kinds:
            continue

        def go(place: str = spec.id) -> None:
            desk.go(place)

        yield spec.id, go
        shown: QWidget | None = desk.current_place() if desk.place == spec.id else None
        for tabs in shown.findChildren(Views) if shown is not None else ():
            for view in tabs._offered:

                def turn(place: str = spec.id, own: str = view) -> None:
                    desk.go(place)
                    for each in desk.current_place().findChildren(Views):
                        if own in each._offered:
                            each.show_view(own)

                yield f"{spec.id}/{view}", turn
