"""The Passes place: what is laid, in what order, with what energy? Bead map, operating window, pass table."""

import time
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, QSize, Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from anlage.core.errors import AnlageError
from anlage.core.procedure import moved_pass, with_deposit, with_pass, without_deposit, without_pass
from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.proposal.fill import filled
from anlage.session.weld.figures import pass_figures
from anlage.session.weld.fill_notices import fill_notices
from anlage.session.weld.operating_window import heat_span
from anlage.ui.deposits import DepositStrip
from anlage.ui.document import Document
from anlage.ui.heat_scale import HeatScale
from anlage.ui.icons import icon
from anlage.ui.look import font
from anlage.ui.pass_presenters import BeadPresenter, WindowPresenter
from anlage.ui.pass_table import MOST_ROWS, PassTable
from anlage.ui.picture import PictureView
from anlage.ui.picture_editor import PictureEditor
from anlage.ui.selection import Selection
from anlage.ui.view_tabs import ViewTabs, bring_to_front

if TYPE_CHECKING:
    from anlage.ui.sectors_view import SectorsView
    from anlage.ui.stations_view import StationsView
    from anlage.ui.stops_view import StopsView
    from anlage.ui.stopwatch import Stopwatch
    from anlage.ui.tacks_view import TacksView


VIEWS = ("Beads", "Starts and stops", "Tacks and strips", "Fit-up", "Sectors and dials")
VIEW_OF = {"seam": 1, "tacks": 2, "stations": 3, "sectors": 4, "readings": 4}
FEW_ROWS = 5  # of the table beside starts and stops
SENTENCES = 3  # shown at once under the picture


class PassesPlace(QWidget):
    """Bead map, operating window, deposits and pass table.

    Signals
    -------
    told(sentence) : something is to be told in a line
    """

    told = Signal(str)

    def __init__(self, document: Document, clock: Callable[[], float] = time.monotonic) -> None:
        super().__init__()
        self.document, self._clock = document, clock
        self.selection = Selection(document)
        beads = BeadPresenter(document, self.selection)
        self.bead_view = PictureView(beads, document.reader, "Bead map", beads.matters)
        self.views = QStackedWidget()
        self.others: dict[int, StopsView | TacksView | StationsView | SectorsView] = {}  # made when first asked for
        self.window_view = PictureView(WindowPresenter(document, self.selection), document.reader, "Operating window")
        self.window_view.setMinimumHeight(200)
        self.editors = [PictureEditor(view, document) for view in (self.bead_view, self.window_view)]
        self.table = PassTable(document, self.selection)
        self.selection.follow()
        self.deposits = DepositStrip(document)
        self.scale = HeatScale(document.reader, lambda: heat_span(document.wps), self._energy)
        self.seam_scale = HeatScale(document.reader, self._seam_heat, self._energy)
        self.hero = _Hero(document, self.selection)
        self.fill = QLabel()
        self.fill.setProperty("tone", "muted")
        self.stopwatch: Stopwatch | None = None
        self._kind = document.wps.joint.kind
        self.tools: dict[str, QToolButton] = {}
        self._lay_out()
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        document.reader.look_changed.connect(self._draw_icons)
        self.selection.changed.connect(self.refresh)
        self._draw_icons()
        self.refresh()

    def _lay_out(self) -> None:
        left, right = QVBoxLayout(), QVBoxLayout()
        self.tabs = ViewTabs(VIEWS)
        self.tabs.asked.connect(self.show_view)
        left.setSpacing(6)
        left.addWidget(self.tabs)
        self.views.addWidget(self.bead_view)
        left.addWidget(self.views, 1)
        left.addWidget(self.fill)
        left.addWidget(self.seam_scale)
        right.addWidget(self.hero)
        right.addWidget(self.window_view, 1)
        right.addWidget(self.scale)
        pictures = QHBoxLayout()
        pictures.setSpacing(16)
        pictures.addLayout(left, 4)
        self.beside = QWidget()
        self.beside.setLayout(right)
        right.setContentsMargins(0, 0, 0, 0)
        pictures.addWidget(self.beside, 5)
        foot = QHBoxLayout()
        foot.setSpacing(6)
        foot.addWidget(self.deposits, 1)
        tools = QGridLayout()
        tools.setSpacing(6)
        commands = (
            ("add", "Add a pass (Ctrl+Return)", self.add_pass),
            ("copy", "Duplicate the pass (Ctrl+D)", self.duplicate_pass),
            ("remove", "Remove the pass (Ctrl+Del)", self.remove_pass),
            ("up", "Move the pass up (Alt+Up)", partial(self.move_pass, -1)),
            ("down", "Move the pass down (Alt+Down)", partial(self.move_pass, 1)),
            ("fill", "Fill the joint with passes (Ctrl+Shift+F)", self.fill_joint),
            ("stopwatch", "Travel speed by stopwatch (F8)", self.open_stopwatch),
        )
        for place, (name, tip, do) in enumerate(commands):
            button = self.tools[name] = QToolButton()
            button.setIconSize(QSize(18, 18))
            button.setToolTip(tip)
            button.setAccessibleName(tip.partition(" (")[0])
            button.setEnabled(self.document.can_write)
            button.clicked.connect(do)
            tools.addWidget(button, place // 4, place % 4)
        tools.setRowStretch(2, 1)
        foot.addLayout(tools)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 10, 16, 12)
        layout.setSpacing(8)
        layout.addLayout(pictures, 1)
        layout.addLayout(foot)
        layout.addWidget(self.table)

    def _draw_icons(self) -> None:
        for name, button in self.tools.items():
            button.setIcon(icon(name, self.document.reader.look.colour["ink"]))

    def _seam_heat(self) -> tuple[float, float] | None:
        """Return the span of the scale of the picture in front, beside the beads."""
        place = self.views.currentIndex()
        front = self.views.currentWidget()
        if place <= 0 or not isinstance(picture := getattr(front, "picture", None), PictureView):
            return None
        return picture.presenter.heat()

    def _energy(self, value: float) -> str:
        return show(value, "heat_input", self.document.system, unit_table())

    def refresh(self) -> None:
        """Show what the document says now; the beads of another preparation are looked at anew."""
        if self._kind != self.document.wps.joint.kind:
            self._kind = self.document.wps.joint.kind
            self.bead_view.lens.as_at_first()
        self.bead_view.refresh()
        for view in self.others.values():
            if view is self.views.currentWidget():
                view.refresh()
        self.window_view.refresh()
        self.scale.update()
        self.seam_scale.update()
        self.hero.refresh()
        self.table.viewport().update()
        wps, system = self.document.wps, self.document.system
        self.fill.setText("\n".join(each.text for each in fill_notices(wps, system)[:SENTENCES]))

    def show_view(self, place: int) -> None:
        """Show the beads, or one of the other views of `VIEWS`."""
        if place and place not in self.others:
            self.others[place] = self._made(place)
            self.views.addWidget(self.others[place])
        bring_to_front(self.views, self.others[place] if place else self.bead_view)
        others = (self.beside, self.deposits, self.fill, *self.tools.values())
        for widget in others:  # starts and stops need the room
            widget.setVisible(place == 0)
        self.seam_scale.setVisible(place != 0)
        self.table.show_at_most(MOST_ROWS if place == 0 else FEW_ROWS)
        self.tabs.choose(place)
        self.refresh()

    def _made(self, place: int) -> "StopsView | TacksView | StationsView | SectorsView":
        from anlage.ui.sectors_view import SectorsView
        from anlage.ui.stations_view import StationsView
        from anlage.ui.stops_view import StopsView
        from anlage.ui.tacks_view import TacksView

        return (StopsView, TacksView, StationsView, SectorsView)[place - 1](self.document, self.selection)

    def begin(self) -> None:
        """Put the keyboard where the work starts: in the table."""
        self.table.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard on a leaf; return whether it is on this place."""
        kind, _, rest = path.partition("/")
        if kind in VIEW_OF:
            self.show_view(VIEW_OF[kind])
            field = self.others[VIEW_OF[kind]].fields.get(path)
            if field is None:
                return False
            field.setFocus(Qt.FocusReason.ShortcutFocusReason)
            return True
        owner, _, leaf = rest.partition("/")
        if kind == "passes":
            self.selection.choose(owner)
            self.table.edit_leaf(leaf)
            return True
        card = self.deposits.cards.get(owner) if kind == "deposits" else None
        if card is None or leaf not in card.fields:
            return False
        card.fields[leaf].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    # Commands --------------------------------------------------------------------------------

    def add_pass(self) -> None:
        """Add a pass after the chosen one, to the same deposit; the first pass brings the first deposit."""
        wps, chosen = self.document.wps, self.selection.chosen
        home = chosen.deposit if chosen else wps.deposits[-1].id if wps.deposits else ""
        if not home:
            wps, home = with_deposit(wps)
        wps, _ = with_pass(wps, home, after=chosen.id if chosen else None)
        self.document.edit(wps, "Add a pass")
        self.table.edit_leaf("role")

    def duplicate_pass(self) -> None:
        """Add a pass after the chosen one that states the same."""
        chosen = self.selection.chosen
        if chosen is None:
            return
        stated = {name: getattr(chosen, name) for name in type(chosen).model_fields if name not in ("id", "deposit")}
        wps, _ = with_pass(self.document.wps, chosen.deposit, after=chosen.id, **stated)
        self.document.edit(wps, f"Duplicate pass {self.selection.row + 1}")

    def remove_pass(self) -> None:
        """Take the chosen pass out."""
        if self.selection.chosen is not None:
            number = self.selection.row + 1
            self.document.edit(without_pass(self.document.wps, self.selection.pass_id), f"Remove pass {number}")

    def move_pass(self, places: int) -> None:
        """Move the chosen pass up (below 0) or down in the order."""
        row = self.selection.row
        if row >= 0 and 0 <= row + places < len(self.document.wps.passes):
            wps = moved_pass(self.document.wps, self.selection.pass_id, row + places)
            self.document.edit(wps, f"Move pass {row + 1}")

    def fill_joint(self) -> None:
        """Write the passes anew so that they fill the joint, by the deposits and settings that are there."""
        try:
            wps = filled(self.document.wps)
        except AnlageError as fault:
            self.told.emit(str(fault))
            return
        self.document.edit(wps, "Fill the joint")
        self.told.emit(f"{len(wps.passes)} passes fill the joint; the settings are usual ones, to be proved.")

    def add_deposit(self) -> None:
        """Add a deposit with its first pass, and put the keyboard at its process."""
        wps, home = with_deposit(self.document.wps)
        wps, _ = with_pass(wps, home)
        self.document.edit(wps, "Add a deposit")
        self.go_to(f"deposits/{home}/process")

    def remove_deposit(self) -> None:
        """Take the deposit of the chosen pass out, with all its passes."""
        chosen = self.selection.chosen
        if chosen is None:
            return
        self.document.edit(without_deposit(self.document.wps, chosen.deposit), "Remove a deposit")

    def open_stopwatch(self) -> None:
        """Show the stopwatch for the chosen pass."""
        if self.selection.chosen is None:
            return
        if self.stopwatch is None:
            from anlage.ui.stopwatch import Stopwatch  # when first asked for

            self.stopwatch = Stopwatch(self.document, self.selection, self._clock, self)
            self.stopwatch.put_away.connect(self._on_put_away)
        self.stopwatch.adjustSize()
        corner = self.table.geometry().topRight() - QPoint(self.stopwatch.width() + 8, self.stopwatch.height() + 8)
        self.stopwatch.move(corner)
        self.stopwatch.show()
        self.stopwatch.raise_()
        self.stopwatch.way.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def _on_put_away(self) -> None:
        if self.stopwatch is not None:
            self.stopwatch.hide()
        self.table.edit_leaf("travel_speed_mm_min")


class _Hero(QWidget):
    """The one number of the place: the arc energy of the chosen pass, with its corners and its heat input."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document, self.selection = document, selection
        self.name, self.number, self.corners = QLabel(), QLabel(), QLabel()
        self.name.setProperty("tone", "muted")
        self.number.setFont(font("hero", strong=True))
        self.corners.setProperty("tone", "muted")
        self.corners.setFont(font("note"))
        self.corners.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self._lines: tuple[str, ...] = ()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(14)
        column = QVBoxLayout()
        column.setSpacing(0)
        column.addWidget(self.name)
        column.addWidget(self.number)
        row.addLayout(column)
        row.addWidget(self.corners, 1, Qt.AlignmentFlag.AlignBottom)

    def refresh(self) -> None:
        """Show the figures of the chosen pass."""
        chosen = self.selection.chosen
        if chosen is None:
            self.name.setText("Arc energy")
            self.number.setText("–")
            self._say("Add a pass with Ctrl+Return.")
            return
        figures = pass_figures(self.document.wps, chosen, self.document.system)
        self.name.setText(f"Arc energy of pass {self.selection.row + 1}")
        self.number.setText(figures.energy)
        self._say(figures.hottest, figures.coldest, figures.heat_input)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._say(*self._lines)

    def _say(self, *lines: str) -> None:
        """Show lines beside the number, each as far as there is room; the tooltip has them whole."""
        self._lines = tuple(filter(None, lines))
        room, metrics = self.corners.width(), self.corners.fontMetrics()
        self.corners.setText(
            "\n".join(metrics.elidedText(line, Qt.TextElideMode.ElideRight, room) for line in self._lines)
        )
        self.corners.setToolTip("\n".join(self._lines))
