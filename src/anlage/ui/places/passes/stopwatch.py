"""The stopwatch at the speed field: start and stop at two marks, and the speed is the way over the time."""

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.document import with_at
from anlage.core.errors import InputError
from anlage.core.quantities import show, show_interval
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.seam.stopwatch import Run, change_of, speed_of, way
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.icons import icon
from anlage.ui.kit.look import font
from anlage.ui.kit.text_line import TextLine
from anlage.ui.places.passes.selection import Selection

TICK_MS = 100
SHOWN_RUNS = 4


@guarded
class Stopwatch(QFrame):
    """A panel over the place; the runs of one pass are stated as its range of travel speed.

    Signals
    -------
    put_away() : the person is done with it
    """

    put_away = Signal()

    def __init__(self, document: Document, selection: Selection, clock: Callable[[], float], parent: QWidget) -> None:
        super().__init__(parent, objectName="floating")
        self.document, self.selection, self._clock = document, selection, clock
        self.runs: list[Run] = []
        self._started: float | None = None
        self._stopped: float | None = None  # a time that waits for its way
        self._asked = False  # whether a stated speed is to be changed
        self._timer = QTimer(self, interval=TICK_MS)
        self._timer.timeout.connect(self._show_time)
        self.title, self.time, self.said = QLabel(), QLabel("0.0 s"), QLabel()
        self.way, self.button, self.state = TextLine(), QPushButton(), QPushButton()
        self.clear, self.close_button = QPushButton("Clear"), QPushButton()
        self._lay_out()
        self.button.clicked.connect(self.toggle)
        self.way.editingFinished.connect(self._take_run)
        self.state.clicked.connect(self._on_state)
        self.clear.clicked.connect(self._on_clear)
        self.close_button.clicked.connect(self.put_away)
        selection.changed.connect(self._on_pass_changed)
        document.reader.units_changed.connect(self.refresh)
        document.part("joint").connect(self.refresh)
        self.refresh()

    def _lay_out(self) -> None:
        self.title.setFont(font("body", strong=True))
        self.time.setFont(font("hero", strong=True))
        self.time.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.said.setWordWrap(True)
        self.way.setAccessibleName("Way between start and stop")
        self.way.setFixedWidth(110)
        self.close_button.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        self.close_button.setAccessibleName("Put the stopwatch away")
        head = QHBoxLayout()
        head.addWidget(self.title, 1)
        head.addWidget(self.close_button)
        grid = QGridLayout()
        grid.addWidget(QLabel("Way"), 0, 0)
        grid.addWidget(self.way, 0, 1)
        grid.addWidget(self.time, 0, 2)
        grid.addWidget(self.button, 1, 0, 1, 3)
        grid.setColumnStretch(2, 1)
        foot = QHBoxLayout()
        foot.addWidget(self.state, 1)
        foot.addWidget(self.clear)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 12, 12)
        column.addLayout(head)
        column.addLayout(grid)
        column.addWidget(self.said)
        column.addLayout(foot)
        self.setFixedWidth(320)

    def refresh(self) -> None:
        """Show the runs in the reader's units, and what can be done."""
        system, joint = self.document.system, self.document.value.joint
        number = self.selection.row + 1
        self.title.setText(f"Stopwatch: travel speed of pass {number}")
        by_clock = joint.product == "pipe" and joint.od_mm is not None
        self.way.setPlaceholderText("6 to 3" if by_clock else "150" if system == "si" else "6")
        unit = unit_table()["length"].shown_in[system][0].name
        self.way.setToolTip(
            f"The length between the marks [{unit}]" + (", or two places on the clock" if by_clock else "")
        )
        self.button.setText("Stop" if self._started is not None else "Start")
        speeds = [show(run.speed_mm_min, "speed", system, unit_table()) for run in self.runs[-SHOWN_RUNS:]]
        self.said.setText(
            ", ".join(speeds) if speeds else "State the way, start at its first mark, stop at the second."
        )
        ready = bool(self.runs) and self.document.can_write
        self.state.setEnabled(ready)
        self.clear.setEnabled(bool(self.runs))
        self._asked = False
        both = self._said(speed_of(self.runs)) if self.runs else ""
        stated = self._stated()
        word = change_of(stated, speed_of(self.runs)) if self.runs and stated is not None else ""
        self.state.setText(f"{word.capitalize() or 'State'} {both}".strip() if both else "State the speed")
        self.close_button.setIcon(icon("close", self.document.reader.look.colour["ink"]))

    def _stated(self) -> Interval | None:
        chosen = self.selection.chosen
        return chosen.travel_speed_mm_min if chosen is not None else None

    def _said(self, speed: Interval) -> str:
        return show_interval(speed, "speed", self.document.system, unit_table())

    @property
    def has_times(self) -> bool:
        """Whether it runs, or holds times that were not stated yet."""
        return self._started is not None or self._stopped is not None or bool(self.runs)

    def _fault(self) -> InputError | None:
        try:
            way(self.way.text() or "nothing", self.document.value.joint, self.document.system)
        except InputError as fault:
            return fault
        return None

    def toggle(self) -> None:
        """Start, or stop and keep the run."""
        if self._started is None:
            self._started = self._clock()
            self._timer.start()
            self.button.setText("Stop")
            return
        time_s, self._started = self._clock() - self._started, None
        self._timer.stop()
        self.time.setText(f"{time_s:.1f} s")
        self._stopped = time_s if time_s > 0 else None
        self._take_run()

    def _take_run(self) -> None:
        """Make the stopped time a run as soon as its way is known; a time is never lost for a missing way."""
        fault = self._fault()
        if self._stopped is not None and fault is None:
            length = way(self.way.text(), self.document.value.joint, self.document.system)
            self.runs.append(Run(length, self._stopped))
            self._stopped = None
        self.refresh()
        if self._stopped is not None and fault is not None:
            self.said.setText(f"{fault.what}; {fault.mend}")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.put_away.emit()
        else:
            super().keyPressEvent(event)

    def _show_time(self) -> None:
        if self._started is not None:
            self.time.setText(f"{self._clock() - self._started:.1f} s")

    def _on_state(self) -> None:
        """State the speed; one that is stated already is changed only after a question."""
        stated, read = self._stated(), speed_of(self.runs)
        if stated is not None and stated != read and not self._asked:
            self._asked = True
            word = change_of(stated, read)
            self.said.setText(f"{self._said(stated)} is stated. {word.capitalize()} {self._said(read)}?")
            self.state.setText(f"Yes, {word} {self._said(read)}")
            return
        path = f"passes/{self.selection.pass_id}/travel_speed_mm_min"
        wps = with_at(self.document.value, path, speed_of(self.runs))
        self.document.edit(wps, f"Travel speed of pass {self.selection.row + 1}, by stopwatch")
        self.put_away.emit()

    def _on_clear(self) -> None:
        self.runs.clear()
        self.refresh()

    def _on_pass_changed(self) -> None:
        self.runs.clear()
        self.refresh()
