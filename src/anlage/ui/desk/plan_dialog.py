"""Coupons planned: the fewest or cheapest that cover the procedures of the works, or a table of joints, on the map."""

from collections.abc import Callable, Mapping, Sequence
from functools import cache
from pathlib import Path
from threading import Event
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.qualified_map import coupon_map, thickness_at
from anlage.core.errors import AnlageError
from anlage.data.installed_codes import code_choices
from anlage.data.look import role_styles
from anlage.formats.rows import rows_of_file
from anlage.session.kinds import PROCEDURE
from anlage.session.planner.costs import costs_of
from anlage.session.planner.joints import Joint, joints_of, joints_of_procedures
from anlage.session.planner.picture import areas_of, span_words, spots_of
from anlage.session.planner.plan import Plan, Planned, Planning, moved, openings, planned, that_count
from anlage.session.works.register import ticks
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.later import Later
from anlage.ui.kit.look import measure
from anlage.ui.kit.reader import Reader
from anlage.ui.picture.view import PictureView

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

TITLE = "Plan coupons"
SIZE_PX, LIST_PX = (1120, 680), 380
TABLES = "Tables (*.csv *.xlsx)"
STEP_MM = 0.5
NAME_ROLE = int(Qt.ItemDataRole.UserRole)


class PlanPresenter(QObject):
    """The map of a plan: a coupon is dragged along the thicknesses to see what it would buy.

    Signals
    -------
    chosen(name) : a coupon was clicked or moved
    dragged(name, mm) : a coupon was moved to a thickness
    """

    chosen = Signal(str)
    dragged = Signal(str, float)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.joints: Sequence[Joint] = ()
        self.plan: Plan | None = None
        self.shown: Sequence[Planned] = ()
        self.chosen_name = self._held = ""
        self._size: Point = (200.0, 140.0)

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        self._size = (width_mm, height_mm)
        if not self.joints:
            return None
        areas = areas_of(self.joints, self.plan, self.shown, self.chosen_name)
        return coupon_map(areas, spots_of(self.shown), ticks(self.reader.system), self._size, measure)

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return False

    def empty_text(self) -> str:
        return "No procedure states a thickness and a process yet: a table of joints can be planned for as well."

    def take(self, target: str, at: Point) -> None:
        self._held = target.partition("/")[2] if target.startswith("coupon/") else ""
        self.choose(target)

    def drag(self, at: Point, *, fine: bool) -> None:
        if self._held:
            step = STEP_MM / 5 if fine else STEP_MM
            self.dragged.emit(self._held, round(thickness_at(at[0], self._size) / step) * step)

    def release(self) -> None:
        self._held = ""

    def step(self, target: str, steps: int) -> None:
        own = next((each for each in self.shown if target == f"coupon/{each.name}"), None)
        if own is not None:
            self.dragged.emit(own.name, own.coupon.size.thickness_mm + steps * STEP_MM)

    def choose(self, target: str) -> None:
        if target.startswith("coupon/"):
            self.chosen.emit(target.partition("/")[2])

    def dropped(self, source: str, target: str) -> None:
        """Nothing is dropped on anything."""

    def describe(self, target: str) -> str:
        own = next((each for each in self.shown if target == f"coupon/{each.name}"), None)
        if own is None:
            return target.partition("/")[2]
        covers = f"covers {', '.join(own.covers)}" if own.covers else "covers none of the joints"
        return f"{own.name}: {own.coupon.words(self.reader.system)}; {covers}"

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for

        picture = self.picture(200.0, 140.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""


class PlanDialog(Question):
    """What is to be covered and by which code at the head, the map at the left, the coupons at the right."""

    def __init__(self, desk: "WindowDesk") -> None:
        super().__init__(TITLE, desk.shell)
        self.desk = desk
        self.resize(*SIZE_PX)
        self.joints: Sequence[Joint] = joints_of_procedures(self._procedures())
        self.costs: Mapping[str, float] = {}
        self.plan: Plan | None = None
        self._stop = Event()
        self._later = _later()
        self._later.ready.connect(self._on_planned)
        self.presenter = PlanPresenter(desk.reader)
        self.map = PictureView(self.presenter, desk.reader, "Map of joints and coupons")
        self.code, self.list, self.more, self.state = QComboBox(), QListWidget(), QLabel(), QLabel()
        self.code.setAccessibleName("Code")
        self.list.setAccessibleName("Coupons")
        for code, said in code_choices("qualification").items():
            self.code.addItem(said, code)
        self.code.setCurrentIndex(max(self.code.findData(self._usual_code()), 0))
        self.table_button, self.cost_button = QPushButton("Joints of a table…"), QPushButton("Your costs…")
        self.back_button, self.stop_button, self.close_button = (
            QPushButton("As planned"), QPushButton("Stop"), QPushButton("Close"),
        )  # fmt: skip
        self.back_button.setToolTip("Put every coupon back where the plan has it")
        self.complaint = self.complaint_line(1)
        self._lay_out()
        self.presenter.chosen.connect(self.choose)
        self.presenter.dragged.connect(self.move_coupon)
        self.list.currentItemChanged.connect(self._on_current)
        self.code.currentIndexChanged.connect(self.plan_it)
        for button, do in ((self.table_button, self.ask_for_table), (self.cost_button, self.ask_for_costs),
                           (self.back_button, self._show_plan), (self.stop_button, self.stop),
                           (self.close_button, self.accept)):  # fmt: skip
            button.clicked.connect(lambda _checked=False, do=do: do())
        self.finished.connect(lambda _answer: self.stop())
        self.plan_it()
        self.list.setFocus()

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.addWidget(QLabel("by"))
        head.addWidget(self.code)
        head.addWidget(self.table_button)
        head.addWidget(self.cost_button)
        head.addStretch(1)
        self.column.addLayout(head)
        for label in (self.state, self.more):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.more.setProperty("tone", "muted")
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)
        right = QVBoxLayout()
        right.setContentsMargins(0, 0, 0, 0)
        right.addWidget(self.state)
        right.addWidget(self.list, 3)
        right.addWidget(self.more)
        column = QWidget()
        column.setFixedWidth(LIST_PX)
        column.setLayout(right)
        body = QHBoxLayout()
        body.setSpacing(16)
        body.addWidget(self.map, 1)
        body.addWidget(column)
        self.column.addLayout(body, 1)
        self.column.addWidget(self.complaint)
        self.add_foot(self.back_button, self.stop_button, self.close_button)

    # What is planned for ---------------------------------------------------------------------

    def _procedures(self) -> list[object]:
        works = self.desk.works
        return [works.read(each.id)[0].value for each in works.entries(PROCEDURE)] if works else []

    def _usual_code(self) -> str:
        named = [code for each in self.joints for code in each.wps.header.codes]
        return max(named, key=named.count, default="")

    def ask_for_table(self) -> None:
        """Ask for a table of joints, and plan for those."""
        name, _ = QFileDialog.getOpenFileName(self, "Joints to cover", "", TABLES)
        if name:
            self.take_table(Path(name))

    def take_table(self, path: Path) -> None:
        """Plan for the joints of a table, or say which row is at fault."""
        self._read(path, lambda rows: setattr(self, "joints", joints_of(rows, self.desk.reader.system)))

    def ask_for_costs(self) -> None:
        """Ask for a table of costs, and plan the cheapest."""
        name, _ = QFileDialog.getOpenFileName(self, "What a coupon costs", "", TABLES)
        if name:
            self.take_costs(Path(name))

    def take_costs(self, path: Path) -> None:
        """Plan by the person's own costs, or say which row is at fault."""
        self._read(path, lambda rows: setattr(self, "costs", costs_of(rows)))

    def _read(self, path: Path, take: Callable[[Sequence[Mapping[str, str]]], None]) -> None:
        try:
            take(rows_of_file(path))
        except AnlageError as fault:
            self.complaint.setText(f"{path.name}, {fault}")
            return
        self.complaint.clear()
        self.plan_it()

    # The plan --------------------------------------------------------------------------------

    def plan_it(self) -> None:
        """Work the plan out on a thread; until then the joints alone are shown."""
        self._stop.set()
        self._stop = stop = Event()
        self.plan = None
        self._show_plan()
        if not self.joints:
            self.state.setText("There is no joint to cover.")
            return
        self.state.setText(f"Planning for {len(self.joints)} joints…")
        self.stop_button.setEnabled(True)
        joints, code, costs = self.joints, self.code.currentData(), self.costs
        codes, records = self.desk.rules.codes(), [pqr for _, pqr in self._records()]

        def work() -> Plan | AnlageError | None:
            try:
                pack, _ = codes.edition_of(code)
                by = Planning(pack=pack, costs=costs, records=that_count(records, pack))
                return planned(joints, by, lambda: not stop.is_set())
            except AnlageError as fault:
                return fault

        self._later.ask(work)

    def _records(self) -> Sequence[tuple[str, object]]:
        works = self.desk.works
        return works.records() if works is not None else ()

    def stop(self) -> None:
        """Stop planning."""
        self._stop.set()
        self._later.forget()
        self.stop_button.setEnabled(False)
        if self.plan is None:
            self.state.setText("Stopped: nothing is planned.")

    def _on_planned(self, found: Plan | AnlageError) -> None:
        self.stop_button.setEnabled(False)
        if isinstance(found, AnlageError):
            self.state.setText("")
            self.complaint.setText(str(found))
            return
        self.plan = found
        self._show_plan()

    def _show_plan(self) -> None:
        """Show the plan as it was worked out."""
        plan = self.plan
        self.presenter.joints, self.presenter.plan = self.joints, plan
        self.presenter.shown = list(plan.coupons) if plan is not None else []
        self.back_button.setEnabled(False)
        self.list.clear()
        self.more.clear()
        if plan is not None:
            count, best = len(plan.coupons), "no fewer or cheaper ones do"
            if not plan.cover.is_optimal:
                best = f"the least may be {plan.cover.gap_percent:.0f} % cheaper"
            self.state.setText(
                f"{count} coupon{'s' if count > 1 else ''} of {plan.tried} possible; {best}."
                if count
                else "No coupon is needed."
            )
            self._fill_list(plan)
            system = self.desk.reader.system
            opened = [f"{each.words(system)}: {span_words(span, system)}" for each, span in openings(plan)[:3]]
            self.more.setText(f"One more coupon would open {'; '.join(opened)}." if opened else "")
        self.map.refresh()

    def _fill_list(self, plan: Plan) -> None:
        for each in self.presenter.shown:
            self._add(self._words(each), each.name)
        for joint, record in plan.already:
            self._add(f"{joint} is covered by {record}.")
        for joint, why in plan.uncovered:
            self._add(f"{joint} is not covered: {why}.")
        for said in plan.said:
            self._add(said)

    def _add(self, text: str, name: str = "") -> None:
        item = QListWidgetItem(text)
        item.setData(NAME_ROLE, name)
        self.list.addItem(item)

    def _words(self, each: Planned) -> str:
        needed = f" Needed for {', '.join(each.needed_for)}." if set(each.needed_for) != set(each.covers) else ""
        tests = ", ".join(f"{one.count} {one.kind}" for one in each.coupon.pqr.results)
        covers = ", ".join(each.covers) or "none of the joints"
        words = each.coupon.words(self.desk.reader.system)
        return f"{each.name}  {words}\nCovers {covers}.{needed}\nTests: {tests or 'not known'}."

    # One coupon ------------------------------------------------------------------------------

    def choose(self, name: str) -> None:
        """Choose a coupon by its name."""
        for row in range(self.list.count()):
            if self.list.item(row).data(NAME_ROLE) == name:
                self.list.setCurrentRow(row)

    def _on_current(self, item: QListWidgetItem | None, _before: object) -> None:
        self.presenter.chosen_name = item.data(NAME_ROLE) if item is not None else ""
        self.map.refresh()

    def move_coupon(self, name: str, thickness_mm: float) -> None:
        """Show what a coupon would buy and cover in another thickness; the plan stays as it is."""
        if self.plan is None:
            return
        number = next(n for n, each in enumerate(self.presenter.shown) if each.name == name)
        other = moved(self.plan, number, thickness_mm) if thickness_mm > 0 else None
        if other is None:
            return
        self.presenter.shown[number] = other  # type: ignore[index]
        self.back_button.setEnabled(True)
        self.choose(name)
        self.list.currentItem().setText(self._words(other))
        self.map.refresh()


@cache
def _later() -> Later:
    """Return who works plans out: it outlives the dialog, so that a thread that ends late has somebody to tell."""
    return Later(QApplication.instance() or QApplication([]))


def ask(desk: "WindowDesk") -> None:
    """Show the planner."""
    PlanDialog(desk).open()
